import { REGIONS_OF_BODY, type BodyPart } from './body-parts.js';
import type { Trait } from '../imposes/touch.js';
import type { Confidence, Joint } from '../terms.js';

/** A question asked before anybody is measured. */
export interface CautionQuestion {
  readonly id: string;
  readonly ask: string;
  /** What a yes means: do not measure but send the person on, or measure with care. */
  readonly ifYes: 'refer' | 'care';
  /** What to do on a yes. */
  readonly then: string;
  /** Joints that have to be touched for it to be asked, or traits of what is done; any of them will do. Asked always where both are empty. */
  readonly joints: readonly Joint[];
  readonly traits: readonly Trait[];
  /** Asked only after a yes to another question: the signs with which even care ends. */
  readonly follows?: string;
  readonly confidence: Confidence;
}

interface Touched {
  readonly at?: readonly BodyPart[];
  readonly traits?: readonly Trait[];
  readonly confidence?: Confidence;
}

const question =
  (ifYes: 'refer' | 'care') =>
  (id: string, ask: string, then: string, { at = [], traits = [], confidence = 'high' }: Touched = {}): CautionQuestion => ({
    id,
    ask,
    ifYes,
    then,
    joints: at.flatMap((part) => REGIONS_OF_BODY[part]),
    traits,
    confidence,
  });
const ends = question('refer');
const care = question('care');
/** With these signs even care ends. */
const signs = (of: CautionQuestion, ask: string, then: string): CautionQuestion[] => [
  of,
  { ...of, id: `${of.id}-signs`, ask, then, ifYes: 'refer', follows: of.id },
];

const TRUNK = ['neck', 'thorax', 'back'] as const;

/**
 * What is asked. No answer names a disease: it says to have this looked at
 * first. Local rules come first.
 *
 * @see usual cautions of the trade, from memory
 */
export const CAUTIONS: readonly CautionQuestion[] = [
  ends(
    'fracture',
    'A fall, blow, crash or twist lately and not checked yet: cannot load it, out of shape, sore on the bone? Or pain in a bone that grew with running?',
    'No movement of it, have it checked the same day. Neck: keep the head still, emergency. Pain that grew with running: no hop, run or heel raise, check in days; in the groin off the leg, the same day.',
  ),
  ends('dislocation', 'Has a joint come out, or does one feel out now?', 'Have it seen the same day.'),
  care(
    'slipped-before',
    'Has this shoulder, kneecap, hip or elbow ever slipped?',
    'Not into the position in which it slips, no push; ask first.',
    { at: ['shoulder', 'elbow', 'hip', 'knee'] },
  ),
  ends(
    'joint-infection',
    'A hot, red, swollen joint, feeling ill, or a replaced joint that is newly hot?',
    'Medical review the same day; emergency if unwell.',
  ),
  ends(
    'fever',
    'Fever of 38 or more, chills, or ill today?',
    'Postpone. With back or joint pain, weak immunity, a drip or injected drugs: review the same day.',
  ),
  ends(
    'clot-leg',
    'New one-sided swelling, pain or warmth of the calf or thigh; an operation, cast, long travel, cancer, pregnancy or the pill lately?',
    'Do not squeeze or stretch the calf; medical review the same day. With breathlessness: emergency.',
    { at: ['hip', 'knee', 'foot'] },
  ),
  ends('clot-arm', 'Arm swollen, blue or heavy, veins showing, after effort, a line or a port?', 'Medical review the same day.', {
    at: ['shoulder', 'elbow', 'hand'],
  }),
  ends(
    'cauda-equina',
    'Numb between the legs, new trouble with bladder, bowel or sex, pain or weakness in both legs?',
    'Measure nothing: emergency now, even if mild.',
    { at: ['back', 'hip'], traits: ['nerve', 'head-down'] },
  ),
  ends(
    'nerve-loss',
    'Weakness or numbness that is new or growing?',
    'Review the same day if it grows, or if a foot or hand drops. Old and checked: measure with care.',
  ),
  ends(
    'myelopathy',
    'Clumsy hands, unsteady walk, heavy legs, or shocks down the spine on bending the neck?',
    'No neck end range, urgent check; balance only with a person beside.',
    { at: ['neck'], traits: ['overhead', 'balance'] },
  ),
  ends(
    'neck-artery',
    'New dizziness, double vision, drop attack, trouble with speech or swallowing, a numb face, unsteady, a drooping lid, or neck or head pain unlike any before?',
    'Measure nothing. New: emergency; no position test for it. Old, checked and unchanged: with care, no end range.',
    { at: ['neck'], traits: ['head-down'] },
  ),
  ...signs(
    care(
      'upper-neck',
      'Inflammatory arthritis, long steroids, loose tissue, Down syndrome, a neck injury lately, or in a child a throat infection?',
      'Ask first. No push and no end range of bending; medical clearance, recorded.',
      { at: ['neck'] },
    ),
    'And the head feels too heavy, or the lips tingle?',
    'Measure nothing of the neck; medical review first.',
  ),
  ...signs(
    care('cancer', 'Ever had cancer?', 'No resistance and no load on a painful long bone; ask about new pain.', {
      at: [...TRUNK, 'hip', 'shoulder'],
    }),
    'And new pain there?',
    'Have it looked at first, within days; no resistance.',
  ),
  ends(
    'night',
    'Weight loss without reason, constant pain at night, or pain that no position eases?',
    'Have it looked at first, within days.',
    { at: [...TRUNK, 'hip', 'shoulder'] },
  ),
  ends(
    'child-hip',
    'Under 18 with pain of hip, groin, thigh or knee, or a limp?',
    'No rotation test, off the leg, check the same day; with fever: emergency.',
    { at: ['hip', 'knee'], traits: ['balance'] },
  ),
  ends('limb-blood', 'A limb suddenly cold, pale or blue, or its pulse gone?', 'Emergency.'),
  ends(
    'compartment',
    'Pain beyond all reason, the limb tight, worse when toes or fingers are stretched, after injury, cast, operation or hard effort?',
    'Emergency. Do not raise it above the heart; loosen wraps if taught.',
    { at: ['elbow', 'hand', 'knee', 'foot'] },
  ),
  ends(
    'repair-unknown',
    'A tendon, ligament, muscle or bone repaired, and the limits are not known?',
    'The other side only; get the limits, then enter them as precautions. Torn and not repaired: the same until cleared.',
  ),
  care(
    'extra-bone',
    'Told of new bone in a muscle; or a hard lump and fast loss after a blow, burn, head or cord injury, or an operation of hip or elbow?',
    'Own active movement only, no push, no heat; refer.',
    { at: ['hip', 'knee', 'elbow'], confidence: 'medium' },
  ),
  ...signs(
    care(
      'thin-bones',
      'Thin bones, a fracture from little, loss of height, steroids for over 3 months?',
      'No loaded or end-range bending, twisting or push.',
      {
        at: [...TRUNK, 'hip', 'hand'],
        traits: ['head-down'],
      },
    ),
    'And sudden pain of the back?',
    'Measure nothing of the spine; X-ray first.',
  ),
  ...signs(
    care('pregnancy', 'Pregnant?', 'Not face down, no pressure on the belly, short times on the back from about week 20, no breath hold.', {
      at: [...TRUNK, 'hip'],
      traits: ['face-down', 'balance', 'effort'],
    }),
    'And bleeding, fluid, contractions, a bad headache, flicker before the eyes, a swollen calf?',
    'Maternity unit now.',
  ),
  ...signs(
    care(
      'after-birth',
      'A birth in the last 12 weeks?',
      'No maximum effort of the trunk, no lowering of both legs, no jump. Leaking or heaviness: refer to pelvic health.',
      {
        at: ['back', 'hip'],
        confidence: 'medium',
      },
    ),
    'And heavy bleeding, fever, leg pain or headache?',
    'Medical review now.',
  ),
  care(
    'hypermobile',
    'Very bendy, joints that slip, a disorder of the tissue?',
    'No push and no long hold at the end; stop at the first firm.',
    {
      traits: ['end-range', 'by-hand'],
    },
  ),
  ...signs(
    care('blood-thin', 'Blood thinners or a bleeding disorder?', 'No hard pressure, no maximum effort; look for bruising.', {
      traits: ['effort', 'by-hand', 'girth'],
    }),
    'And a big bruise, a swollen joint, or a knock on the head lately?',
    'Medical review the same day.',
  ),
  ...signs(
    care(
      'injection',
      'An injection into or near it in 2 weeks, a block or numbing today?',
      'No maximum effort and no push at the end for 1 to 2 weeks; numb: nothing passive.',
      {
        confidence: 'medium',
        traits: ['effort', 'end-range'],
      },
    ),
    'And hot since then?',
    'Medical review the same day.',
  ),
  care(
    'pain-7',
    'Pain at rest of 7 or more of 10 now?',
    'Own gentle movement only, or postpone; unexplained, or not eased by any position: refer.',
    {
      confidence: 'medium',
    },
  ),
  ...signs(
    care(
      'skin',
      'Open wound, stitches, blister, rash, fragile skin, lymph swelling, or allergy to tape there?',
      'No contact there; no cuff or strap on a limb at risk of lymph swelling without asking.',
    ),
    'And red that spreads, or ooze?',
    'Medical review the same day.',
  ),
  care('numb', 'Skin there that cannot feel heat, touch or pain?', 'Pain is no guide: keep to limits, look at the skin afterwards.'),
  care(
    'device',
    'Pacemaker, defibrillator, pump, nerve or ear implant, shunt valve?',
    'Phone and magnet 15 cm away, no strap over it; new device: arm below 90° and no lift for 4 to 6 weeks.',
  ),
  ...signs(
    care('seizure', 'Seizures?', 'A person beside, a mat, no step or height, no fast breathing, no flicker.', {
      confidence: 'medium',
      traits: ['balance', 'eyes-closed', 'effort'],
    }),
    'And one today, or a first one that was not checked?',
    'Measure nothing; medical review.',
  ),
  ...signs(
    care('dizzy-standing', 'Faint or dizzy on getting up?', 'Sit first; blood pressure lying and standing.', {
      traits: ['balance', 'head-down'],
    }),
    'And fainted, or is it new?',
    'Medical review first.',
  ),
  care('falls', 'Fallen in the last year, or afraid of falling?', 'A person within reach, a wall or rail.', {
    traits: ['balance', 'eyes-closed'],
  }),
  ends('chest', 'Chest pain, tightness, breathless or a racing heart, now or on effort?', 'Now: emergency. On effort: the doctor first.', {
    traits: ['effort', 'balance'],
  }),
  care(
    'heart-pressure',
    'Heart attack, heart operation or stroke in 3 months, pressure above about 180 over 110, a failing heart?',
    'Release by the doctor; no breath hold. Breastbone cut: no push, pull, lean or load overhead for 8 to 12 weeks.',
    { traits: ['effort', 'head-down'] },
  ),
  ...signs(
    care('aneurysm', 'A bulge of a main vessel?', 'No breath hold, no deep contact with the belly.', {
      at: ['back', 'thorax'],
      traits: ['effort', 'head-down'],
    }),
    'And sudden tearing pain of back or belly?',
    'Emergency.',
  ),
  care(
    'belly-operation',
    'Operation of belly, hernia, groin, breast or chest in 3 months?',
    'Through the keyhole about 4 to 6, open 8 to 12 weeks without maximum effort of the trunk; ask the surgeon.',
    { at: ['thorax', 'back'], traits: ['face-down', 'overhead'], confidence: 'medium' },
  ),
  ...signs(
    care(
      'head-down',
      'Eye operation, detached retina, glaucoma, spinning, ear or brain operation, reflux?',
      'No head below the heart; with a gas bubble in the eye the surgeon’s rules.',
      {
        traits: ['head-down'],
      },
    ),
    'And new flashes, or a curtain before the eye?',
    'Eye doctor the same day.',
  ),
  ends(
    'consent',
    'Cannot say in own words what is done, or say stop: drunk, sedated, newly confused?',
    'No measuring without consent; new confusion: emergency. A child: guardian present and the child’s own yes.',
  ),
];
