import { protocolOfId } from '../catalogue/index.js';
import {
  becauseWords,
  heldWords,
  leaveWords,
  notGivenWords,
  recheckWords,
  referWords,
  seenWords,
  type Prescribed,
  type Program,
} from '../program/index.js';

/** A programme, as the terminal prints it. */
export function programReport(program: Program) {
  return {
    drills: program.drills.map(drillReport),
    minutesADay: program.minutesADay,
    leftOut: program.leftOut.map((left) => ({ id: left.drill.id, why: notGivenWords(left) })),
    heldBack: program.held.map((held) => ({ motion: held.motion, side: held.side, why: heldWords(held) })),
    leaveForNow: program.leave.map((leave) => ({
      id: leave.rule.id,
      side: leave.side,
      leave: leave.rule.leave,
      instead: leave.instead,
      backWhen: { motion: leave.motion, value: leave.value, atLeast: leave.below },
      words: leaveWords(leave),
    })),
    refer: program.refer.map(referWords),
    recheckOn: program.recheck.on,
    recheckBecause: recheckWords(program.recheck),
  };
}

function drillReport(one: Prescribed) {
  const { drill, side, dose, minutes, moves, movesSide, needs, seen } = one;
  const what = 'protocol' in moves ? { motion: protocolOfId(moves.protocol)!.motion, ...moves } : { item: `${moves.screen}.${moves.item}` };
  return {
    id: drill.id,
    name: drill.name,
    stage: drill.stage,
    motion: needs[0]!.motion,
    side,
    dose,
    minutes,
    moves: { ...what, side: movesSide },
    mdc95: seen && Math.round(seen.mdc95 * 10) / 10,
    seen: seenWords(one),
    because: needs.flatMap((need) => need.because.map(becauseWords)),
    stop: drill.stop,
    cues: drill.cues,
    source: drill.source.cite,
  };
}
