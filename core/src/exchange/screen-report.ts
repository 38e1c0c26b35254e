import { hurts, itemReasonWords, painAdvice, type GradedItem, type SideDifference } from '../screen/index.js';

const round = (value: number, digits = 1): number => Number(value.toFixed(digits)) + 0;

/** Graded items as the terminal prints them. */
export function screenReport(graded: readonly GradedItem[], sides: readonly SideDifference[]) {
  return {
    items: graded.map((one) => ({
      screen: one.screen,
      item: one.item.id,
      ...(one.done.view ? { view: one.done.view } : {}),
      ...(one.done.with?.length ? { with: one.done.with } : {}),
      side: one.side,
      quality: one.quality,
      pain: one.pain,
      painWhere: one.painWhere,
      value: one.value === null ? null : round(one.value),
      unit: one.unit,
      sem: one.sem === null ? null : round(one.sem),
      threshold: one.threshold && {
        value: one.threshold.value,
        unit: one.threshold.unit,
        at: one.threshold.at,
        source: one.threshold.source.cite,
      },
      faults: one.faults,
      missing: one.missing,
      because: one.reasons.map(itemReasonWords),
    })),
    sides: sides.map((s) => ({
      screen: s.screen,
      item: s.item.id,
      left: round(s.left.value!),
      right: round(s.right.value!),
      difference: round(s.difference),
      unit: s.unit,
      mdc95: round(s.mdc95),
      real: s.real,
    })),
    flags: graded.filter(hurts).map((one) => ({
      screen: one.screen,
      item: one.item.id,
      side: one.side,
      why: 'hurts' as const,
      pain: one.pain,
      advice: painAdvice(),
    })),
    opens: [...new Set(graded.flatMap(({ opens }) => opens))],
    notJudged: graded
      .filter(({ quality }) => quality === 'not judged')
      .map((one) => ({ screen: one.screen, item: one.item.id, side: one.side, why: whyNot(one) })),
  };
}

const whyNot = ({ reasons }: GradedItem): string =>
  reasons
    .filter(({ kind }) => kind === 'not-judged')
    .map(itemReasonWords)
    .join('; ');
