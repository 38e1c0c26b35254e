import { motion } from '../catalogue/index.js';

import { describeEnd, formatSize } from '../words/figures.js';
import { dayWords, say, sayCount } from '../words/say.js';
import type { QueueLine, QueueReason } from './queue-standing.js';

const SAYS = { worse: 'it is worse', swelling: 'it is more swollen', pain: 'pain {pain} of 10' } as const;

/** A reason in words: "has not really moved for 6 weeks, 10° short of the goal: left knee flexion, active". */
export function reasonWords(reason: QueueReason): string {
  switch (reason.kind) {
    case 'worse': {
      const said = reason.says.map((one) => say(SAYS[one], { pain: String(reason.pain ?? '') })).join(', ');
      return say('wrote on {day}: {said}', { day: dayWords(reason.since), said });
    }
    case 'lost':
      return say('{size} worse than on {day}: {name}', {
        size: formatSize(reason.size, motion(reason.motion).unit),
        day: dayWords(reason.before),
        name: reason.name,
      });
    case 'unfinished':
      return say('visit of {day} is not signed', { day: dayWords(reason.since) });
    case 'review':
      return sayCount(reason.entries, '1 entry came after the signature and waits', '{count} entries came after the signature and wait');
    case 'behind':
      return say('behind the usual course since {day}: {name}', { day: dayWords(reason.since), name: reason.name });
    case 'stuck': {
      const parts = {
        n: String(reason.weeks),
        name: reason.name,
        missing: reason.missing === null ? '' : formatSize(reason.missing, motion(reason.motion).unit),
      };
      return reason.missing === null
        ? say('no real change for {n} weeks: {name}', parts)
        : say('no real change for {n} weeks, {missing} short of the goal: {name}', parts);
    }
    case 'wrote':
      return say('wrote: “{note}”', { note: reason.note });
    case 'due':
      return say('recheck due {day}', { day: dayWords(reason.since) });
    case 'goal-met': {
      const about = motion(reason.motion);
      return say('goal met: {name}, {value} of {goal}', {
        name: reason.name,
        value: describeEnd(about, reason.value),
        goal: describeEnd(about, reason.goal),
      });
    }
  }
}

/** "Left knee flexion, active 106°" */
export function lineWords({ name, motion: id, points }: QueueLine): string {
  const last = points[points.length - 1]!;
  return `${name} ${describeEnd(motion(id), last.value)}`;
}
