import { directionOf, jointOfRow, type DoneTrait, type Imposition } from '../imposes/index.js';
import type { Joint, Mode, MotionId, Position } from '../terms.js';
import { say } from '../words/say.js';
import { CAUTION_SHORT, TRAIT_WORDS } from './caution-words.js';
import type { Rule, RuleAt } from './caution-rule.js';
import { CAUTION_RULES } from './caution-rules.js';

/** A question that was answered yes, and the joints that the answer is about; null where nobody said: it holds everywhere. */
export interface AnsweredCaution {
  readonly id: string;
  readonly joints: readonly Joint[] | null;
}

/** What a yes to a caution leaves out, as a limit beside the precautions. It ends with the visit. */
export interface CautionLimit {
  readonly caution: string;
  readonly rule: Rule;
  readonly joints: readonly Joint[] | null;
  readonly words: string;
  readonly source: string;
  readonly until: null;
}

const known = new Map<string, readonly CautionLimit[]>();

/** The limits that follow from what was answered yes. */
export const cautionLimits = (answered: readonly AnsweredCaution[]): readonly CautionLimit[] => answered.flatMap(limitsOf);

function limitsOf({ id, joints }: AnsweredCaution): readonly CautionLimit[] {
  const key = `${id} ${joints?.join(' ') ?? '*'}`;
  const found =
    known.get(key) ??
    (CAUTION_RULES[id] ?? []).map((rule): CautionLimit => ({
      caution: id,
      rule,
      joints,
      words: wordsOf(rule),
      source: sourceOf(id),
      until: null,
    }));
  // Few questions and few parts: as many as there are of both at most.
  known.set(key, found);
  return found;
}

/** Whether it matters where: an answer without a part of the body holds everywhere. */
export const asksWhere = (id: string): boolean => (CAUTION_RULES[id] ?? []).some(({ at }) => at === 'asked');

/** What answers leave out, each once, in words. */
export const leftOutWords = (answered: readonly AnsweredCaution[]): string[] => [
  ...new Set(
    answered
      .flatMap(({ id }) => CAUTION_RULES[id] ?? [])
      .flatMap((rule) => (rule.when === 'trait' ? [TRAIT_WORDS[rule.trait]] : rule.when === 'everything' ? [wordsOf(rule)] : [])),
  ),
];

const sourceOf = (id: string): string => say('answered yes: {what}', { what: CAUTION_SHORT[id] ?? id });

function wordsOf(rule: Rule): string {
  switch (rule.when) {
    case 'trait':
      return rule.kind === 'gentle'
        ? say('{trait}: only as far as it goes by itself', { trait: TRAIT_WORDS[rule.trait] })
        : say('{trait}: left out', { trait: TRAIT_WORDS[rule.trait] });
    case 'row':
      return say('this movement or load: left out');
    case 'everything':
      return rule.of === 'part' ? say('nothing of this part') : say('nothing until it was looked at');
  }
}

interface Done {
  readonly motion: MotionId | null;
  readonly mode: Mode;
  readonly position: Position;
  readonly rows: readonly Imposition[];
  readonly traits: ReadonlySet<DoneTrait>;
}

/** What a limit of a caution says of something that is done; null: nothing. */
export function cautionSays({ rule, joints }: CautionLimit, done: Done): { kind: 'forbidden' | 'gentle'; row: Imposition | null } | null {
  const at = placeOf(rule.at, joints);
  const { rows, traits, position } = done;
  const kind = rule.kind === 'gentle' && done.motion === null ? 'forbidden' : rule.kind;
  switch (rule.when) {
    case 'trait':
      return (traits.has(rule.trait) || traits.has('unknown-task')) && isAt(at, rows) ? { kind, row: null } : null;
    case 'everything': {
      if (rule.of === 'standing') return position === 'standing' ? { kind, row: null } : null;
      return isAt(at, rows) ? { kind, row: null } : null;
    }
    case 'row': {
      const row = rows.find((one) => isRow(rule, one) && (at === null || at.includes(jointOfRow(one))));
      return row ? { kind, row } : null;
    }
  }
}

/** Joints at which a rule holds; null: at all. */
function placeOf(at: RuleAt, joints: readonly Joint[] | null): readonly Joint[] | null {
  if (at === 'neck') return ['cervical'];
  if (at === 'hip') return ['hip'];
  return at === 'asked' ? joints : null;
}

/** A limb that merely lies is left alone. */
const isAt = (at: readonly Joint[] | null, rows: readonly Imposition[]): boolean =>
  at === null || rows.some((row) => at.includes(jointOfRow(row)) && (row.by !== 'held' || row.load !== 'none' || row.what === 'touches'));

function isRow({ joint, direction, from, load }: Extract<Rule, { when: 'row' }>, row: Imposition): boolean {
  if (joint !== '*' && jointOfRow(row) !== joint) return false;
  if (load !== '*' && row.load !== load) return false;
  if (direction === 'weight') return row.what === 'bears';
  if (!('motion' in row) || (direction !== '*' && directionOf(row.motion) !== direction)) return false;
  if (from === null) return true;
  if (row.what === 'works') return from === 0;
  return row.degrees === 'full' || (from !== 'full' && row.degrees >= from);
}
