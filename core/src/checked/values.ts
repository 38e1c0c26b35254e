import { motion } from '../catalogue/index.js';
import { errorKey, PUBLISHED_ERRORS } from '../error/index.js';
import { ERRORS_OF, type Figures, type ValueKind } from '../looked-up.js';
import { NORM_SETS, type NormEntry, type NormSet, type NormValue } from '../norms/index.js';
import { findProcedure, PROCEDURES, type Procedure, type TellWhen, type UsualLimit } from '../procedure/index.js';
import type { MotionId, Unit } from '../terms.js';
import { formatNumber, suffixOf } from '../words/figures.js';
import { say } from '../words/say.js';
import type { PrintedValue } from './types.js';

const LONGEST_WEEKS = 104;

/** Figures of a norm, without its kind. */
export function normFigures(value: NormValue): Figures {
  const { kind, ...figures } = value;
  void kind;
  return figures;
}

/** What a norm entry is a value of. */
export const normKey = ({ motion: id, mode, position, variant, side, digit, sex, ages, summary, value }: NormEntry): string =>
  [id, mode, position, variant ?? '', side ?? '', digit ?? '', sex, ages ? `${ages.from}-${ages.to}` : '', summary ?? '', value.kind].join(
    '|',
  );

/** Limits and values to tell of in their order: two of one motion differ by their place alone. */
export const limitKey = ({ kind, motion: id, with: others, mode }: UsualLimit, at: number): string =>
  ['limit', at, kind, id, (others ?? []).join('+'), mode ?? ''].join('|');
export const tellKey = ({ motion: id, mode }: TellWhen, at: number): string => ['tell', at, id, mode ?? ''].join('|');

/** The figures of a limit that a source can print: how far, and for how many weeks. */
export const limitFigures = ({ limit, untilWeek }: UsualLimit): Figures => ({
  ...(limit === null ? {} : { limit }),
  ...(untilWeek === null ? {} : { untilWeek }),
});
export const tellFigures = ({ fromWeek, below, atMost, beyondOther }: TellWhen): Figures => ({
  fromWeek,
  ...(below === undefined ? {} : { below }),
  ...(atMost === undefined ? {} : { atMost }),
  ...(beyondOther === undefined ? {} : { beyondOther }),
});

/** What each figure may be: of a spread and an error no less than nothing, otherwise what the motion can be. */
function allowedOf(id: MotionId, figures: Figures): PrintedValue['allowed'] {
  const { unit, limits } = motion(id);
  const one = (name: string) => {
    if (name === 'untilWeek' || name === 'fromWeek') return { unit: 'weeks' as const, min: 0, max: LONGEST_WEEKS };
    // An error of a force is a share of the reading in the tables of the program, and printed in its unit.
    if (name === 'sd' || name === 'amount') return { unit, min: 0, max: limits.max };
    return { unit, min: limits.min, max: limits.max };
  };
  return Object.fromEntries(Object.keys(figures).map((name) => [name, one(name)]));
}

const value = (
  kind: ValueKind,
  of: string,
  key: string,
  id: MotionId,
  about: readonly (string | null | undefined)[],
  figures: Figures,
): PrintedValue => ({
  kind,
  of,
  key,
  motion: id,
  about: about.filter((part) => part).join(', '),
  figures,
  allowed: allowedOf(id, figures),
});

const normValues = (set: NormSet): PrintedValue[] =>
  set.entries.map((entry) => {
    const { motion: id, mode, position, variant, side, digit, sex, ages, summary } = entry;
    return value(
      'norms',
      set.id,
      normKey(entry),
      id,
      [
        mode === 'any' ? null : mode,
        position === 'any' ? null : position,
        variant === 'any' ? null : variant,
        side,
        digit ? say('finger {digit}', { digit }) : null,
        sex === 'any' ? null : sex,
        ages?.label ?? say('adults, no age band'),
        summary,
      ],
      normFigures(entry.value),
    );
  });

const errorValues = (): PrintedValue[] =>
  PUBLISHED_ERRORS.map((row) =>
    value(
      'errors',
      ERRORS_OF,
      errorKey(row),
      row.motions[0]!,
      [
        ...row.motions.slice(1).map((id) => say(motion(id).name)),
        row.instruments.join(', '),
        say(row.examiners === 'same' ? 'one examiner' : 'two examiners'),
        row.figure,
        row.population,
        row.cite,
      ],
      { amount: row.amount },
    ),
  );

const LIMIT_WORDS: Readonly<Record<UsualLimit['kind'], string>> = {
  range: 'range limited',
  'end-range': 'not to the end of range',
  resisted: 'not against resistance',
  'against-gravity': 'not against gravity',
  weight: 'weight limited',
  'single-leg': 'not on this leg alone',
};

const procedureValues = ({ id: of, limits, tellWhen }: Procedure): PrintedValue[] => [
  ...limits.map((limit, at) => {
    const { kind, motion: id, with: others, mode, untilWeek } = limit;
    return value(
      'procedure',
      of,
      limitKey(limit, at),
      id,
      [
        mode,
        say(LIMIT_WORDS[kind]),
        others ? say('together with {others}', { others: others.map((one) => say(motion(one).name)).join(', ') }) : null,
        limit.limit === null ? say('not at all') : null,
        untilWeek === null ? say('for good') : null,
      ],
      limitFigures(limit),
    );
  }),
  ...tellWhen.map((told, at) =>
    value('procedure', of, tellKey(told, at), told.motion, [told.mode, say('the surgeon is told')], tellFigures(told)),
  ),
];

/** Everything that can be looked up of a set, the errors or a procedure; undefined where there is none of that name. */
export function valuesOf(kind: ValueKind, of: string): readonly PrintedValue[] | undefined {
  if (kind === 'errors') return of === ERRORS_OF ? errorValues() : undefined;
  if (kind === 'norms') {
    const set = NORM_SETS.find(({ id }) => id === of);
    return set && normValues(set);
  }
  const procedure = findProcedure(of);
  return procedure && !procedure.anyOf ? procedureValues(procedure) : undefined;
}

/** Where there are values to look up, with its name and its source as the program has it. */
export interface ValueTable {
  readonly kind: ValueKind;
  readonly of: string;
  readonly name: string;
  readonly cite: string;
}

/** Those that are put together from others have no values of their own. */
export const VALUE_TABLES: readonly ValueTable[] = [
  ...NORM_SETS.map(({ id, title, source }) => ({ kind: 'norms' as const, of: id, name: title, cite: source.cite })),
  { kind: 'errors', of: ERRORS_OF, name: 'Published measuring errors', cite: '' },
  ...PROCEDURES.filter(({ anyOf }) => !anyOf).map(({ id, name, source }) => ({
    kind: 'procedure' as const,
    of: id,
    name,
    cite: source.cite,
  })),
];

/** The figures of a value in a line: "mean 122°, sd 6.1°". */
export function figuresWords(figures: Figures, allowed: PrintedValue['allowed']): string {
  return Object.entries(figures)
    .map(([name, figure]) => {
      const unit = allowed[name]?.unit;
      return `${say(FIGURE_WORDS[name] ?? name)} ${formatNumber(figure)}${unit === 'weeks' ? '' : suffixOf(unit as Unit)}`;
    })
    .join(', ');
}

/** What a figure is called. */
export const FIGURE_WORDS: Readonly<Record<string, string>> = {
  expected: 'expected',
  at: 'line',
  low: 'from',
  high: 'to',
  mean: 'mean',
  sd: 'SD',
  ciLow: 'CI from',
  ciHigh: 'CI to',
  amount: 'amount',
  limit: 'limit',
  untilWeek: 'until week',
  fromWeek: 'from week',
  below: 'below',
  atMost: 'at most',
  beyondOther: 'more than the other side by',
};
