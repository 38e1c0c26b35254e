import { findMotion } from '../catalogue/index.js';
import { isGain, isLoss } from '../finding/index.js';
import type { Limits } from '../precaution/index.js';
import { DRILLS, findDrill, forbiddenDrill, leaveFor, type Drill } from '../program/index.js';
import { worseningOf, type ProgressSeries } from '../progress/index.js';
import { dayWords, say, sayCount, upper } from '../words/say.js';
import { footOf } from './referrer.js';
import { plainDose, plainFigure, plainMotion, plainSide } from './plain.js';
import { telling } from './parts.js';
import type { Block, DrillBlock, Report, ReportedDrill, ReportFacts } from './types.js';

const MOST = 5;

/** One page for the person: what is better, what to do, when to stop, when to come back. Short words, short sentences, large print. */
export function patientReport(facts: ReportFacts): Report {
  const { clinic, person, program, signed, assessedOn } = facts;
  return {
    kind: 'patient',
    title: say('For {name}', { name: person.givenName }),
    subtitle: `${clinic}, ${dayWords(assessedOn)}`,
    foot: footOf(facts),
    draft: signed === null,
    large: true,
    blocks: [
      ...progressBlocks(facts),
      ...aims(facts),
      ...(program ? drills(program.drills, facts.limits, program.known) : noDrills()),
      ...leave(facts),
      { kind: 'heading', text: say('Stop and call us') },
      {
        kind: 'paragraph',
        tone: 'warning',
        text: say(
          'Stop if it hurts more than you can well bear. Call us if a joint swells up, if a leg or arm goes numb or weak, or if you feel ill.',
        ),
      },
      ...(program
        ? ([
            { kind: 'heading', text: say('Come back') },
            {
              kind: 'paragraph',
              text: say('We will look at it again on {day}. Bring this page with you.', { day: dayWords(program.recheckOn) }),
            },
          ] as const)
        : []),
      ...(signed ? [] : [{ kind: 'paragraph', tone: 'warning', text: say('This is a draft. It may still change.') } as const]),
    ],
  };
}

/**
 * What really moved, and what did not: a change that cannot be told from
 * measuring error is not called one. What is less than at the last visit, or
 * than at the best, is told as that, whatever it gained since the first.
 */
export function progressSentences(series: readonly ProgressSeries[]): {
  readonly better: string[];
  readonly same: string[];
  readonly less: string[];
} {
  const told = { better: [] as string[], same: [] as string[], less: [] as string[] };
  for (const one of eachOnce(telling(series))) {
    const { motion: id, side, mode, points, sinceFirst } = one;
    const worse = worseningOf(one);
    const what = plainMotion(id, side);
    if (!what || !sinceFirst) continue;
    const { better } = findMotion(id)!;
    const helped = mode === 'passive' && findMotion(id)!.unit === 'deg';
    const parts = { what: upper(what), now: plainFigure(id, points[points.length - 1]!.value) };
    const words = worse
      ? say(helped ? '{what}, with help: {before} on {day}, {now} now.' : '{what}: {before} on {day}, {now} now.', {
          ...parts,
          before: plainFigure(id, worse.before),
          day: dayWords(worse.on),
        })
      : say(helped ? '{what}, with help: {first} at first, {now} now.' : '{what}: {first} at first, {now} now.', {
          ...parts,
          first: plainFigure(id, points[0]!.value),
        });
    const full = better === 'less' ? `${words} ${say('Here less is better.')}` : words;
    const list = worse || isLoss(sinceFirst) ? told.less : isGain(sinceFirst) ? told.better : told.same;
    list.push(full);
  }
  return told;
}

/** One of each motion and side: what really moved; else what the person does alone, which tells them more than what a hand does. */
function eachOnce(series: readonly ProgressSeries[]): ProgressSeries[] {
  const best = new Map<string, ProgressSeries>();
  const worth = (of: ProgressSeries): number =>
    (worseningOf(of) ? 4 : 0) + (of.sinceFirst && of.sinceFirst.verdict !== 'within-error' ? 2 : 0) + (of.mode === 'active' ? 1 : 0);
  for (const one of series) {
    const key = `${one.motion} ${one.side} ${one.digit ?? ''}`;
    const known = best.get(key);
    if (!known || worth(one) > worth(known)) best.set(key, one);
  }
  return [...best.values()];
}

function progressBlocks({ series }: ReportFacts): Block[] {
  const { better, same, less } = progressSentences(series);
  if (better.length + same.length + less.length === 0)
    return [
      { kind: 'heading', text: say('Where you are') },
      { kind: 'paragraph', text: say('We took the first numbers. Next time we can see what has changed.') },
    ];
  const cut = (items: readonly string[]): readonly string[] =>
    items.length <= MOST ? items : [...items.slice(0, MOST), sayCount(items.length - MOST, 'And {count} more.', 'And {count} more.')];
  return [
    ...(less.length > 0
      ? ([
          { kind: 'heading', text: say('What is less than before') },
          { kind: 'list', items: cut(less) },
          { kind: 'paragraph', text: say('Ask us about this. We look at it with you.') },
        ] as const)
      : []),
    { kind: 'heading', text: say('What is better') },
    better.length > 0
      ? { kind: 'list', items: cut(better) }
      : {
          kind: 'paragraph',
          text:
            less.length > 0 ? say('Nothing yet that we can be sure of.') : say('No change yet that we can be sure of. This takes time.'),
        },
    ...(same.length > 0 && better.length > 0
      ? [
          {
            kind: 'paragraph',
            tone: 'quiet',
            text: sayCount(same.length, '{count} more number is about the same.', '{count} more numbers are about the same.'),
          } as const,
        ]
      : []),
  ];
}

/** What is aimed at, and whether it is there. */
function aims({ series }: ReportFacts): Block[] {
  const items = eachOnce(series.filter(({ goal }) => goal !== null)).flatMap(({ goal, motion: id, side, projection, isCurrent }) => {
    const what = plainMotion(id, side);
    if (!goal || !what || !isCurrent || projection?.kind === 'reached') return [];
    return [say('{what}. The aim is {goal}.', { what: upper(what), goal: plainFigure(id, goal.value) })];
  });
  const once = [...new Set(items)].slice(0, MOST);
  return once.length === 0
    ? []
    : [
        { kind: 'heading', text: say('What we aim for') },
        { kind: 'list', items: once },
      ];
}

const noDrills = (): Block[] => [{ kind: 'paragraph', tone: 'quiet', text: say('You have no drills from us yet.') }];

/** What was given; what a limit speaks against by now is named, and not shown how to do. */
function drills(given: readonly ReportedDrill[], limits: Limits, known: readonly Drill[] = DRILLS): Block[] {
  const isOut = ({ drill: id, side }: ReportedDrill): boolean => {
    const drill = findDrill(id, known);
    return drill !== undefined && forbiddenDrill(drill, side, limits) !== null;
  };
  const blocks = given.filter((one) => !isOut(one)).flatMap((one) => drillBlock(one, known) ?? []);
  const out = given.filter(isOut).flatMap((one) => drillBlock(one, known)?.title ?? []);
  return [
    ...(blocks.length === 0 ? [] : [{ kind: 'heading', text: say('What to do') } as const, ...blocks]),
    ...(out.length === 0
      ? []
      : ([
          { kind: 'heading', text: say('Do not do for now') },
          { kind: 'paragraph', tone: 'warning', text: say('There is a new limit for you. Ask us what you may do instead.') },
          { kind: 'list', items: out },
        ] as const)),
  ];
}

/** A drill as the person is told it; undefined for one that this version does not know. */
export function drillBlock({ drill: id, side, dose, words }: ReportedDrill, known: readonly Drill[] = DRILLS): DrillBlock | undefined {
  const drill = findDrill(id, known);
  if (!drill) return undefined;
  const where = plainSide(side);
  return {
    kind: 'drill',
    title: where ? `${drill.name}, ${where}` : drill.name,
    dose: plainDose(dose),
    cues: words ? [words] : drill.cues,
    stop: drill.stop,
    start: drill.start,
    end: drill.end,
  };
}

function leave({ judgement, program, limits }: ReportFacts): Block[] {
  const items = program
    ? [
        ...new Set(
          leaveFor(judgement, limits).map(({ rule, instead }) =>
            instead === null
              ? say('No {leave} for now.', { leave: say(rule.leave) })
              : say('No {leave} for now. Do {instead}.', { leave: say(rule.leave), instead: say(instead) }),
          ),
        ),
      ]
    : [];
  return items.length === 0
    ? []
    : [
        { kind: 'heading', text: say('Not yet') },
        { kind: 'list', items },
      ];
}
