import { addWeeks } from '../days.js';
import type { Precaution } from '../precaution/precaution.js';
import type { IsoDate, Side } from '../terms.js';
import { lookedUpWords } from '../words/looked-up.js';
import { ARM_PROCEDURES } from './arm.js';
import { LEG_PROCEDURES } from './leg.js';
import { SPINE_PROCEDURES } from './spine.js';
import type { Procedure, UsualLimit } from './types.js';

export type { Procedure, TellWhen, UsualLimit } from './types.js';

/** Said wherever a ready set of limits is shown. */
export const SURGEON_WINS =
  'Usual limits, as a proposal, all from memory. The surgeon’s limits for this patient win, also when they are looser; change, add or remove them to match the letter, and ask when there is none. No day lifts a limit by itself: ask whether the surgeon has.';

/** The surgeon or a doctor is told at once of any of these, whatever was done. From memory. */
export const TELL_ALWAYS =
  'New swelling or pain of calf or arm; fever of 38 or more, or chills; a wound open, oozing or spreading red; a fall, pop or crack; sudden loss of a movement one had; new numbness or weakness; pain that rises instead of easing; a new hot implant or joint, even years later. Short of breath, chest pain, a cold or pale limb, tight unbearable pain: emergency.';

const KNOWN: readonly Procedure[] = [...LEG_PROCEDURES, ...ARM_PROCEDURES, ...SPINE_PROCEDURES];

/** Of a family it is not known which: all that holds after any of them. */
function unknownOf(id: string, name: string, family: readonly string[]): Procedure {
  const of = KNOWN.filter((procedure) => family.includes(procedure.id));
  return {
    id,
    name,
    region: of[0]!.region,
    ...(of.some((procedure) => procedure.isReplacement) ? { isReplacement: true } : {}),
    limits: of.flatMap((procedure) => procedure.limits),
    alsoOut: of.map((procedure) => procedure.alsoOut).join('; '),
    tellSigns: of[0]!.tellSigns,
    tellWhen: of.flatMap((procedure) => procedure.tellWhen),
    note: `Which it was is not known: the limits of all of them hold until that is asked. ${of.map((procedure) => procedure.name).join('; ')}.`,
    source: of[0]!.source,
    anyOf: family,
  };
}

/** Ready limits by procedure. Digits come from memory; protocols differ between surgeons. */
export const PROCEDURES: readonly Procedure[] = [
  ...KNOWN,
  unknownOf('hip-replacement', 'Hip replacement, approach not known', [
    'hip-replacement-posterior',
    'hip-replacement-anterior',
    'hip-replacement-lateral',
  ]),
  unknownOf('shoulder-replacement', 'Shoulder replacement, kind not known', [
    'shoulder-replacement-anatomic',
    'shoulder-replacement-reverse',
  ]),
  unknownOf('meniscus-repair-unknown', 'Meniscus repair, kind not known', ['meniscus-repair', 'meniscus-root-repair']),
];

/** The procedure of an id, or undefined. */
export function findProcedure(id: string): Procedure | undefined {
  return PROCEDURES.find((procedure) => procedure.id === id);
}

/**
 * The usual limits after a procedure as precautions of an episode, dated from
 * the day of the procedure. Those that have run out by `on` are left away;
 * without the day of the procedure every one still holds.
 *
 * @example usualPrecautions(findProcedure('meniscus-repair')!, 'left', '2026-11-02', '2026-11-23')[0]
 *   // { motion: 'knee.flexion', side: 'left', limit: 90, until: '2026-12-14', … }
 */
export function usualPrecautions(procedure: Procedure, side: Side | undefined, operatedOn: IsoDate | null, on: IsoDate): Precaution[] {
  return procedure.limits
    .map((limit) => precautionOf(procedure, limit, side, operatedOn))
    .filter(({ until }) => until === null || on < until);
}

function precautionOf({ name }: Procedure, limit: UsualLimit, side: Side | undefined, operatedOn: IsoDate | null): Precaution {
  const { kind, motion, mode, with: others, untilWeek, confidence, lookedUp } = limit;
  const weeks =
    untilWeek === null ? 'for good' : operatedOn ? `to week ${untilWeek}` : `to week ${untilWeek}, day of the operation not known`;
  return {
    motion,
    ...(kind === 'range' ? {} : { kind }),
    ...(others ? { with: others } : {}),
    ...(side && side !== 'midline' ? { side } : {}),
    ...(mode ? { mode } : {}),
    limit: limit.limit,
    until: untilWeek === null || !operatedOn ? null : addWeeks(operatedOn, untilWeek),
    source: `usual after ${name.charAt(0).toLowerCase()}${name.slice(1)}, ${weeks} (${lookedUp ? lookedUpWords(lookedUp) : `from memory, confidence ${confidence}`})`,
  };
}
