import { motion, protocolOfId } from '../catalogue/index.js';
import { modedName, sidedName, TELLING_END_FEELS } from '../finding/index.js';
import { forbiddenWords } from '../precaution/index.js';
import { itemName, itemOf } from '../screen/index.js';
import { formatNumber, formatSize } from '../words/figures.js';
import { listed, lower, say, sayCount } from '../words/say.js';
import type { DrillSide, NotGiven } from './choose.js';
import type { Leave } from './leave.js';
import type { Held } from './needs.js';
import type { Prescribed, Recheck, Refer } from './program.js';
import type { DrillStage, Equipment } from './drills/types.js';

export const stageWords = (stage: DrillStage): string => say(stage);

const EQUIPMENT_WORDS: Readonly<Record<Equipment, string>> = {
  band: 'a band',
  strap: 'a strap',
  towel: 'a towel',
  ball: 'a ball',
  roller: 'a roller',
  stick: 'a stick',
  step: 'a step',
  chair: 'a chair',
  table: 'a table',
  pillow: 'a pillow',
  weight: 'a weight',
  bike: 'a bike',
  bar: 'a bar',
};
export const equipmentWords = (piece: Equipment): string => say(EQUIPMENT_WORDS[piece]);

export const drillSideWords = (side: DrillSide): string => (side === 'both' ? say('both sides') : side === 'midline' ? '' : say(side));

/** Why a drill that would have served is not given. */
export function notGivenWords({ why }: NotGiven): string {
  switch (why.why) {
    case 'forbidden': {
      const { by, side } = why;
      const where = drillSideWords(side);
      const words = forbiddenWords(by);
      return where ? say('{side}: {words}', { side: where, words }) : words;
    }
    case 'equipment':
      return say('needs {what}, which is not at hand', { what: listed(why.missing.map(equipmentWords)) });
    case 'too-painful':
      return say('hurts {pain} of 10 there: it is begun at {most} or less', { pain: String(why.pain), most: String(why.most) });
    case 'nerve':
      return say('answers point to a nerve: nothing that draws on it');
    case 'lax':
      return why.motion
        ? say('{motion} goes further than usual: it is neither freed nor lengthened', { motion: lower(motion(why.motion).name) })
        : say('more mobile than most in general: nothing is freed or lengthened');
    case 'hurts':
      return heldWords(why.held);
    case 'healing':
      return why.known
        ? say('{weeks} weeks after the operation; usual from week {before} on, the surgeon wins', { weeks: why.weeks, before: why.before })
        : say('the day of the operation is not known; usual from week {before} on, the surgeon wins', { before: why.before });
    case 'made-worse':
      return sayCount(why.times, 'made it worse at a retest', 'made it worse at {count} retests');
    case 'minutes':
      return say('takes {minutes} min; no more than {available} min a day', {
        minutes: formatNumber(why.minutes),
        available: formatNumber(why.available),
      });
    case 'worth-less':
      return say('others answer more of what was found');
  }
}

/** Why nothing is worked on there yet, and what changes that. */
export function heldWords(held: Held): string {
  const name = lower(sidedName(held.motion, held.side));
  switch (held.why) {
    case 'hurts':
      return say('{name} hurts, {pain} of 10: pain is handled before range', { name, pain: held.pain });
    case 'end-feel':
      return say('{name}: an end feel that is to be looked at first', { name });
    case 'item-hurts':
      return say('{item} hurts: have it looked at before it is worked on', { item: itemName(held.outcome) });
    case 'measure-by-hand':
      return say('{name} is short by its own strength: measure it by hand first, that decides what is done', { name });
    case 'not-by-hand-now':
      return say(
        '{name} is short by its own strength: a limit keeps it from being measured by hand for now, so nothing is given for it yet',
        {
          name,
        },
      );
  }
}

/** "deep squats; squats to level, slowly, in their place. Back when left hip internal rotation by hand reaches 20°" */
export function leaveWords({ rule, side, motion: id, value, below, instead }: Leave): string {
  const { mode } = rule.while.find((one) => one.motion === id)!;
  const { unit } = motion(id);
  const leave = say(rule.leave);
  return say('{leave}. Back when {reading} reaches {below} (now {value})', {
    leave: instead === null ? say('No {leave} for now', { leave }) : say('No {leave} for now: {instead}', { leave, instead: say(instead) }),
    reading: lower(modedName(id, side, mode)),
    below: formatSize(below, unit),
    value: formatSize(value, unit),
  });
}

export function referWords(refer: Refer): string {
  switch (refer.why) {
    case 'end-feel': {
      const { finding, motion: id, side } = refer.held;
      const felt = (finding.facts as { readonly felt?: keyof typeof TELLING_END_FEELS }).felt;
      const then = felt && TELLING_END_FEELS[felt]?.then;
      return then
        ? say('{name}: {then}', { name: sidedName(id, side), then: say(then) })
        : say('{name}: an end feel that is to be looked at first', { name: sidedName(id, side) });
    }
    case 'answered':
      return say(refer.says);
    case 'unchanged': {
      const { motion: id, side, weeks } = refer.unchanged;
      return sayCount(
        weeks,
        '{name}: no real change after {count} week of drills',
        '{name}: no real change after {count} weeks of drills',
        {
          name: sidedName(id, side),
        },
      );
    }
  }
}

/** What a drill should move: "left hip internal rotation, active, sitting". */
export function movesWords({ moves, movesSide }: Pick<Prescribed, 'moves' | 'movesSide'>): string {
  const of = movesSide === 'both' ? 'midline' : movesSide;
  if ('screen' in moves) {
    const item = itemOf(moves);
    return item ? itemName({ name: item.name, side: of, view: null, with: [] }) : moves.item;
  }
  const protocol = protocolOfId(moves.protocol)!;
  return say('{motion}, {label}', { motion: lower(modedName(protocol.motion, of, moves.mode)), label: protocol.label });
}

/** When a change of it could be seen at all. */
export function seenWords({ moves, seen }: Pick<Prescribed, 'moves' | 'seen'>): string {
  if (!seen) return say('It was not measured this time: measure it next time, so that a change can be told.');
  const unit = 'protocol' in moves ? motion(protocolOfId(moves.protocol)!.motion).unit : 'deg';
  const size = formatSize(seen.mdc95, unit);
  return seen.weeks === null
    ? say('Less than {size} of change is measuring error; at which pace it moves is not known yet.', { size })
    : sayCount(
        seen.weeks,
        'Less than {size} of change is measuring error; at the pace so far that takes {count} week.',
        'Less than {size} of change is measuring error; at the pace so far that takes {count} weeks.',
        { size },
      );
}

export function recheckWords(recheck: Recheck): string {
  switch (recheck.why) {
    case 'after-surgery':
      return sayCount(
        recheck.weeks,
        '{count} week after the operation: looked at at each visit',
        '{count} weeks after the operation: looked at at each visit',
      );
    case 'four-weeks':
      return say('about every four weeks for mobility work');
    case 'first-change-seen':
      return sayCount(
        recheck.weeks,
        'at the pace so far no real change can be seen before {count} week',
        'at the pace so far no real change can be seen before {count} weeks',
      );
  }
}
