import {
  allowedSides,
  DIGITS,
  END_FEELS,
  motion,
  PROTOCOLS,
  SCREENS,
  SEXES,
  VIEWS,
  type Protocol,
  type ScreenItem,
} from '@dial-gauge/core';
import fc from 'fast-check';

/** Anything that somebody may write, with what spreadsheets, quotes and lines trip over. */
const words = fc.oneof(
  fc.string({ unit: 'grapheme', minLength: 1, maxLength: 30 }).filter((text) => text.trim() !== ''),
  fc.constantFrom('=1+1', "'=1+1", '-5', '@x', '+', 'a "b", c', 'line\nbreak', 'none', 'yes', '3', 'ä; ö\tü', 'Ωμέγα'),
);
const maybe = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined });

/** A measurement as it is written: what makes it itself, and anything else. */
interface Written {
  readonly motion: string;
  readonly side: string;
  readonly mode: string;
  readonly position: string;
  readonly protocol?: string | undefined;
  readonly digit?: number | undefined;
}

/** A reading that the instrument can have shown, most of the time one that the motion can hold. */
function trialOf(way: Protocol, instrument: string): fc.Arbitrary<unknown> {
  const { unit, limits } = motion(way.motion);
  const within = fc.integer({ min: Math.ceil(limits.min), max: Math.floor(limits.max) });
  if (instrument === 'dualInclinometer')
    return fc.record({
      upper: fc.record({ zero: fc.integer({ min: 0, max: 20 }), end: fc.integer({ min: 40, max: 60 }) }),
      lower: fc.record({ zero: fc.integer({ min: 0, max: 20 }), end: fc.integer({ min: 0, max: 30 }) }),
      sense: fc.constantFrom(1, -1),
    });
  if (unit !== 'deg') return within.map((value) => ({ value }));
  const plain = within.chain((end) => maybe(fc.integer({ min: Math.min(end, -5), max: end })).map((start) => ({ start, end })));
  if (instrument !== 'inclinometer') return plain;
  return fc.oneof(
    plain,
    within.map((end) => ({ zero: 90, end: (((90 + end) % 360) + 360) % 360, sense: 1 })),
  );
}

const measurement: fc.Arbitrary<Written> = fc.constantFrom<Protocol[]>(...PROTOCOLS).chain((way) => {
  const about = motion(way.motion);
  return fc.constantFrom(...way.instruments).chain((instrument) =>
    fc.record({
      motion: fc.constant<string>(way.motion),
      digit: about.perDigit ? fc.constantFrom(...DIGITS) : fc.constant(undefined),
      side: fc.constantFrom<string[]>(...allowedSides(about)),
      mode: fc.constantFrom(...way.modes),
      position: fc.constant(way.position),
      protocol: fc.constant(way.variant === null ? undefined : way.id),
      instrument: fc.constant(instrument),
      trials: fc.array(trialOf(way, instrument), { minLength: 1, maxLength: 3 }),
      pain: maybe(fc.integer({ min: 0, max: 10 })),
      painWhere: maybe(words),
      endFeel: maybe(fc.constantFrom(...END_FEELS)),
      substitutions: maybe(fc.subarray(way.substitutions.map(({ id }): string => id))),
      examiner: maybe(words),
      broughtIn: maybe(fc.boolean()),
    }),
  );
});

/** What an item may be answered with. */
function answerOf({ answered, faults }: ScreenItem): fc.Arbitrary<object> {
  const seen = maybe(fc.subarray(faults.filter(({ views }) => views.length === 0).map(({ id }) => id)));
  const pain = fc.record({ pain: maybe(fc.integer({ min: 0, max: 10 })), painWhere: maybe(words), note: maybe(words), faults: seen });
  const with_ = (own: fc.Arbitrary<object>) => fc.tuple(pain, own).map(([a, b]) => ({ ...a, ...b }));
  switch (answered.by) {
    case 'amount':
      return with_(fc.integer({ min: Math.ceil(answered.min), max: Math.floor(answered.max) }).map((value) => ({ value })));
    case 'look':
      return with_(fc.constantFrom(true, false, null).map((meets) => ({ meets })));
    case 'circle':
      return with_(fc.constantFrom(null, { from: 2, to: 5 }).map((sector) => ({ sector })));
    case 'felt':
      return with_(fc.subarray([...answered.wanted, ...answered.unwanted], { minLength: 1 }).map((felt) => ({ felt })));
    case 'choice':
      return with_(fc.constantFrom(...answered.choices.map(({ id }) => ({ answer: id }))));
  }
}

const screen = fc.constantFrom(...SCREENS).chain(({ id, items }) =>
  fc.record({
    screen: fc.constant(id),
    screenedOn: maybe(fc.constant('2026-11-19')),
    items: fc.subarray([...items], { minLength: 1, maxLength: Math.min(3, items.length) }).chain((some) =>
      fc.tuple(
        ...some.map((item) =>
          fc.record({
            item: fc.constant(item.id),
            view: item.views.length > 0 ? fc.constantFrom(...VIEWS.filter((view) => item.views.includes(view))) : fc.constant(undefined),
            with: maybe(fc.subarray([...item.modifications])),
            side: item.sides === 'each' ? fc.constantFrom('left', 'right') : fc.constant(undefined),
            tries: fc.array(answerOf(item), { minLength: 1, maxLength: 2 }),
          }),
        ),
      ),
    ),
  }),
);

/** Assessment files, most of which are accepted: what is not is passed over by who asks. */
export const anyFile = fc.record({
  format: fc.constant('dial-gauge/assessment'),
  version: fc.constant(1),
  person: fc.record({ birthDate: fc.constantFrom('1984-05-02', '1941-02-28'), sex: fc.constantFrom(...SEXES) }),
  assessedOn: fc.constant('2026-11-20'),
  involvedSide: maybe(fc.constantFrom('left', 'right', 'both')),
  complaintAt: maybe(fc.constantFrom('knee', 'cervical', 'fingerPip')),
  procedure: maybe(fc.constantFrom({ id: 'knee-replacement', on: '2026-10-01' })),
  ranking: maybe(fc.constantFrom('largest-first', 'ground-up')),
  normSets: maybe(fc.constantFrom(['boone-azen-1979'], ['ama-guides-4', 'aaos-1965'])),
  precautions: maybe(
    fc.array(
      fc.record({
        motion: fc.constantFrom('hip.flexion', 'knee.extension'),
        side: maybe(fc.constantFrom('left', 'right')),
        mode: maybe(fc.constantFrom('active', 'passive')),
        limit: fc.constantFrom(null, 0, 10),
        until: fc.constantFrom(null, '2027-01-01'),
        source: words,
      }),
      { maxLength: 3 },
    ),
  ),
  measurements: fc.uniqueArray(measurement, {
    minLength: 1,
    maxLength: 6,
    selector: (one) => JSON.stringify([one.motion, one.side, one.mode, one.position, one.protocol, one.digit]),
  }),
  screens: maybe(fc.array(screen, { maxLength: 2 })),
  previous: maybe(
    fc.record({ assessedOn: fc.constant('2026-10-20'), measurements: fc.array(measurement, { minLength: 1, maxLength: 1 }) }),
  ),
});
