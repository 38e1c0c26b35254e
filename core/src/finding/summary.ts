import { motion } from '../catalogue/index.js';
import type { MotionId } from '../terms.js';
import { describeEnd } from '../words/figures.js';
import { screenSummary } from '../screen/index.js';
import { listed, lower, say, sayCount } from '../words/say.js';
import type { Judgement } from './judgement.js';
import { KINDS, kindOf, stageOf } from './kinds.js';
import { modedName } from './make.js';
import { RANKING_NAMES } from './rankings.js';
import type { NotJudged } from './silence.js';
import { nameOf } from './sums.js';
import type { Sum } from './types.js';
import { saidOf } from './words.js';

/** The parts of a summary in their order: every kind that has one, those that share it once. */
const SUMS: readonly Sum[] = [...new Set(Object.values(KINDS).flatMap((kind) => kind.sum ?? []))].sort((a, b) => a.at - b.at);

/**
 * A short summary of a visit in plain clinical words, to be read over and put
 * right: which joints and directions are short, which side is greater, what
 * hurts, what changed, what is to be measured again, and what comes first. No
 * figure in it that is not in the findings, and no diagnosis.
 */
export function draftSummary(judgement: Judgement): string {
  const said = [...measuredSummary(judgement), ...screenSummary(judgement.screens ?? [])];
  return said.join('\n');
}

function measuredSummary({ findings, measurements, ranking, judgedBy, notJudged }: Judgement): string[] {
  if (measurements.length === 0) return [];
  const told = findings.map((f) => ({ sum: kindOf(f.kind)?.sum, finding: { ...f, ...saidOf(f) } }));
  const said = SUMS.map((sum) => sum.words(told.filter((t) => t.sum === sum).map((t) => t.finding))).filter((words) => words !== '');
  if (told.every((t) => t.sum === undefined)) said.unshift(nothingShort(judgedBy));
  const first = findings.find((f) => stageOf(f.kind) === 'loss');
  if (first) {
    const parts = { name: nameOf(first), rule: say(RANKING_NAMES[ranking]) };
    const isStraight = first.place.by === 'straight-first';
    said.push(
      say(isStraight ? 'First: {name} ({rule}; after surgery on the knee, straightening first).' : 'First: {name} ({rule}).', parts),
    );
  }
  if (notJudged.length > 0) said.push(say('Not judged against norms: {which}.', { which: silent(notJudged) }));
  return said;
}

/** Said only of what was judged, and by what. */
function nothingShort(judgedBy: Judgement['judgedBy']): string {
  const count = judgedBy.reduce((sum, set) => sum + set.measurements, 0);
  if (count === 0) return say('Nothing was judged against norms; no side and no active reading is short by more than measuring error.');
  return sayCount(
    count,
    'Of {count} measurement judged against norms ({sets}), nothing is short of normal; nothing is short of the other side or active of passive by more than measuring error.',
    'Of {count} measurements judged against norms ({sets}), nothing is short of normal; nothing is short of the other side or active of passive by more than measuring error.',
    { sets: listed(judgedBy.map((set) => `${set.short} ${set.measurements}`)) },
  );
}

const WHY: Readonly<Record<NotJudged['reason'], string>> = {
  'no-comparable-norm': 'no norm that may be compared',
  'stopped-at-limit': 'stopped at a limit',
  forbidden: 'it must not be measured',
  'no-other-side': 'the other side is not measured',
};

/** Why one measurement was not judged: "stopped at a limit: 90° (the surgeon)". */
export function notJudgedWords({ reason, limit }: Pick<NotJudged, 'reason' | 'limit'>, id: MotionId): string {
  const why = say(WHY[reason]);
  return limit ? `${why}: ${describeEnd(motion(id), limit.at)} (${say(limit.source)})` : why;
}

/** What was not judged, named, by why it was not. */
function silent(notJudged: readonly NotJudged[]): string {
  const reasons = [...new Set(notJudged.map((of) => of.reason))];
  return reasons
    .map((reason) => {
      const names = notJudged
        .filter((of) => of.reason === reason)
        .map(({ motion: id, side, mode, digit }) => lower(modedName(id, side, mode, digit)));
      return `${listed([...new Set(names)])} (${say(WHY[reason])})`;
    })
    .join('; ');
}
