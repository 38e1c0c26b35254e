import type { Touch } from '../imposes/touch.js';
import type { AnsweredCaution } from '../precaution/index.js';
import { REGIONS_OF_BODY, type BodyPart } from './body-parts.js';
import { CAUTIONS, type CautionQuestion } from './caution-list.js';

/** Said wherever the questions are shown. */
export const NOT_A_DIAGNOSIS =
  'These questions do not diagnose. Local rules, the treating surgeon and your own judgement as a licensed clinician come first.';

/** Stop when one of these comes up during a test. */
export const STOP_DURING =
  'Stop on sharp pain, an empty end with severe pain, spasm, sudden giving way, spreading numbness, change of colour or temperature, dizziness, nausea, or when the patient asks.';

/** The questions to ask before this is done: of what is touched, and of how. Signs that end even care are asked after a yes. */
export function cautionsFor({ joints, traits }: Touch): CautionQuestion[] {
  return CAUTIONS.filter(
    (question) =>
      question.follows === undefined &&
      ((question.joints.length === 0 && question.traits.length === 0) ||
        question.joints.some((joint) => joints.has(joint)) ||
        question.traits.some((trait) => traits.has(trait))),
  );
}

/** Questions with those that follow a yes to one of them, each after its own. */
export function withSigns(questions: readonly CautionQuestion[], yes: readonly string[]): CautionQuestion[] {
  return questions.flatMap((question) => [
    question,
    ...(yes.includes(question.id) ? CAUTIONS.filter((sign) => sign.follows === question.id) : []),
  ]);
}

/** What questions were called before; answers that were given then are told by today's. */
const NAMED_BEFORE: Readonly<Record<string, string>> = {
  infection: 'joint-infection',
  clot: 'clot-leg',
  nerve: 'nerve-loss',
  cord: 'myelopathy',
  repair: 'repair-unknown',
  'bone-in-muscle': 'extra-bone',
  'unstable-spine': 'fracture',
  'neck-vessels': 'neck-artery',
  'neck-ligaments': 'upper-neck',
  bone: 'thin-bones',
  loose: 'hypermobile',
  'thin-blood': 'blood-thin',
  sharp: 'pain-7',
};

/** A question's name of today. */
export const cautionNow = (id: string): string => NAMED_BEFORE[id] ?? id;

/** Every name an answer may bear. */
export const CAUTION_IDS: readonly string[] = [...CAUTIONS.map(({ id }) => id), ...Object.keys(NAMED_BEFORE)];

/** Parts of the body that an answer is about, by the question's id. */
export type CautionWhere = Readonly<Record<string, readonly BodyPart[]>>;

/** Answers as limits of the visit: an answer whose part nobody named holds everywhere. */
export function answeredOf({ yes, where = {} }: { readonly yes: readonly string[]; readonly where?: CautionWhere }): AnsweredCaution[] {
  return yes.map((id) => {
    const parts = where[id] ?? [];
    return { id: cautionNow(id), joints: parts.length > 0 ? parts.flatMap((part) => REGIONS_OF_BODY[part]) : null };
  });
}

/** What the answers come to. */
export type CautionOutcome = 'measure' | 'measure-with-care' | 'refer';

/** @param yes ids of the questions answered yes */
export function cautionOutcome(yes: readonly string[]): CautionOutcome {
  const now = yes.map(cautionNow);
  const said = CAUTIONS.filter((question) => now.includes(question.id));
  if (said.some((question) => question.ifYes === 'refer')) return 'refer';
  return said.length > 0 ? 'measure-with-care' : 'measure';
}
