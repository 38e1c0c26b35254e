import type { Region, Source } from '../terms.js';

/** A question asked before anybody is measured. */
export interface CautionQuestion {
  readonly id: string;
  readonly ask: string;
  /** What a yes means: do not measure but send the person on, or measure with care. */
  readonly ifYes: 'refer' | 'care';
  /** What to do on a yes. */
  readonly then: string;
  /** Asked only before these are measured; always where it is empty. */
  readonly regions: readonly Region[];
  readonly source: Source;
}

/** Said wherever the questions are shown. */
export const NOT_A_DIAGNOSIS =
  'These questions do not diagnose. Local rules, the treating surgeon and your own judgement as a licensed clinician come first.';

const CONSENSUS: Source = { cite: 'consensus rules for stopping and referring', fromMemory: true };
const NECK_RULES: Source = {
  cite: 'Rushton A et al., international framework for the neck, 2014/2020; Stiell IG 2001 JAMA 286:1841',
  fromMemory: true,
};
const LEG: readonly Region[] = ['hip', 'knee', 'ankle', 'subtalar', 'greatToeMtp', 'greatToeIp', 'muscleLength', 'girth'];
const SPINE: readonly Region[] = ['cervical', 'thoracic', 'lumbar', 'thoracolumbar'];

const refer = (id: string, ask: string, then: string, regions: readonly Region[] = [], source = CONSENSUS): CautionQuestion => ({
  id,
  ask,
  ifYes: 'refer',
  then,
  regions,
  source,
});
const care = (id: string, ask: string, then: string, regions: readonly Region[] = [], source = CONSENSUS): CautionQuestion => ({
  ...refer(id, ask, then, regions, source),
  ifYes: 'care',
});

/** What is asked, those that end the visit first. */
export const CAUTIONS: readonly CautionQuestion[] = [
  refer(
    'fracture',
    'A fall or blow, and a fracture or dislocation is not ruled out?',
    'Support the limb and send for imaging; do not move the joint.',
  ),
  refer(
    'infection',
    'A hot, red, swollen joint, or fever with joint pain?',
    'Same-day medical review: a joint infection has to be ruled out.',
  ),
  refer(
    'clot',
    'Calf or arm newly swollen, warm and tender, or short of breath?',
    'Urgent medical review for a clot; do not measure or squeeze the calf.',
    LEG,
  ),
  refer(
    'nerve',
    'New numbness, weakness, or change of bladder, bowel or saddle feeling?',
    'Emergency review when bladder, bowel or saddle feeling changed; otherwise medical review before measuring.',
  ),
  refer(
    'cord',
    'New clumsiness of hands or gait, or electric shocks on bending the neck?',
    'Medical review before any movement test of the spine.',
    SPINE,
  ),
  refer('night', 'Constant pain at night or weight loss without a reason?', 'Medical review before measuring.'),
  refer(
    'repair',
    'A tendon or ligament repaired lately, and the surgeon’s limits not known?',
    'Ask the surgeon for the limits first; then enter them as precautions.',
  ),
  refer('bone-in-muscle', 'A hard, growing lump in a bruised muscle?', 'No stretching and no passive range; medical review.'),
  refer(
    'unstable-spine',
    'Known instability of the spine, or a spinal fracture not cleared?',
    'No range of the spine until it is cleared.',
    SPINE,
  ),
  refer('compartment', 'Pain out of proportion with a tense limb, or a wound that has opened?', 'Emergency review.'),
  refer(
    'neck-vessels',
    'Dizziness, double vision, fainting, trouble with speech or swallowing, or a new severe headache?',
    'Do not measure neck extension or rotation; medical review.',
    ['cervical'],
    NECK_RULES,
  ),
  care(
    'neck-ligaments',
    'Long steroid use, inflammatory arthritis, or another reason for loose upper neck ligaments?',
    'Active range only, no end-range hold; review before passive testing.',
    ['cervical'],
    NECK_RULES,
  ),
  care('bone', 'Osteoporosis?', 'No forced bending of the spine; stop at the first resistance.', SPINE),
  care('loose', 'Very mobile joints, pregnancy or shortly after it?', 'No pressure at the end of range.'),
  care(
    'thin-blood',
    'Blood thinners, or an injection into the joint within a week?',
    'No pressure at the end of range; look for bruising.',
  ),
  care(
    'sharp',
    'Pain of 7 or more of 10 at rest or on movement?',
    'Active range first and only as far as the patient allows; stop when asked.',
  ),
];

/** Stop when one of these comes up during a test. */
export const STOP_DURING =
  'Stop on sharp pain, an empty end with severe pain, spasm, sudden giving way, spreading numbness, change of colour or temperature, dizziness, nausea, or when the patient asks.';

/** The questions to ask before these regions are measured. */
export function cautionsFor(regions: readonly Region[]): CautionQuestion[] {
  return CAUTIONS.filter((question) => question.regions.length === 0 || question.regions.some((region) => regions.includes(region)));
}

/** What the answers come to. */
export type CautionOutcome = 'measure' | 'measure-with-care' | 'refer';

/** @param yes ids of the questions answered yes */
export function cautionOutcome(yes: readonly string[]): CautionOutcome {
  const said = CAUTIONS.filter((question) => yes.includes(question.id));
  if (said.some((question) => question.ifYes === 'refer')) return 'refer';
  return said.length > 0 ? 'measure-with-care' : 'measure';
}
