import { isIn, JOINTS, MOTION_NAMES, type Joint } from '../../terms.js';
import { isSpine } from '../table.js';
import { IMPOSED_BY, IMPOSED_LOADS, type ImposedLimb, type Imposition, type JointMotion } from '../types.js';
import type { Demands } from './types.js';

/** What a grip with effort does to hand and wrist. @see common practice, no source */
const GRIP: readonly string[] = ['fingerMcp', 'fingerPip', 'fingerDip'].map((joint) => `${joint}.flexion 70 resisted active`);
const THUMB: readonly string[] = ['thumbCmc', 'thumbMcp', 'thumbIp'].map((joint) => `${joint}.flexion 30 resisted active`);
const GRIPPING = [...GRIP, ...THUMB, 'wrist.extension 20 resisted active'].join(', ');

const LIMB_OF = { working: 'measured', helping: 'other', both: 'both' } as const satisfies Record<string, ImposedLimb>;
const LIMBS = ['working', 'helping', 'both'] as const;

/**
 * What is declared, row by row.
 *
 * @throws RangeError for a word that means nothing, so that nothing starts with a slip in the table
 */
export function rowsOf(id: string, { effort, weight, grip, ...demands }: Demands): Imposition[] {
  const rows: Imposition[] = [];
  const each = (text: string, read: (words: string[], whole: string) => Imposition) => {
    for (const one of text.split(',').map((part) => part.trim())) if (one !== '') rows.push(read(one.split(/\s+/), one));
  };
  const wrong = (whole: string, allowed: string): never => {
    throw new RangeError(`${id} declares "${whole}"; allowed: ${allowed}`);
  };
  const moves = (limb: ImposedLimb) => (words: string[], whole: string) =>
    movement(limb, words) ?? wrong(whole, 'as "hip.flexion 90 body active"');
  for (const limb of LIMBS) {
    each(demands[limb], moves(LIMB_OF[limb]));
    each(effort[limb], (words, whole) => work(LIMB_OF[limb], words) ?? wrong(whole, 'as "hip.extension held"'));
    each(weight[limb], (words, whole) => carrier(LIMB_OF[limb], words) ?? wrong(whole, 'as "knee" or "knee limb"'));
  }
  for (const part of ['neck', 'chest', 'lowBack'] as const) each(demands[part], moves('trunk'));
  each(effort.trunk, (words, whole) => work('trunk', words) ?? wrong(whole, 'as "lumbar.flexion"'));
  if (grip !== 'none') each(GRIPPING, moves(LIMB_OF[grip]));
  return rows;
}

function isMotion(text: string | undefined, limb: ImposedLimb): text is JointMotion {
  const [joint, direction] = (text ?? '').split('.');
  return isIn(JOINTS, joint) && isIn(MOTION_NAMES, direction) && isSpine(joint) === (limb === 'trunk');
}

function movement(limb: ImposedLimb, [motion, degrees, load = 'none', by = 'held', ...more]: string[]): Imposition | null {
  const angle = degrees === 'full' ? degrees : Number(degrees ?? NaN);
  if (more.length > 0 || !isMotion(motion, limb) || !isIn(IMPOSED_LOADS, load) || !isIn(IMPOSED_BY, by)) return null;
  return Number.isNaN(angle) ? null : { what: 'moves', limb, motion, degrees: angle, load, by, isFigure: false };
}

function work(limb: ImposedLimb, [motion, by = 'active', ...more]: string[]): Imposition | null {
  if (more.length > 0 || !isMotion(motion, limb) || !isIn(IMPOSED_BY, by)) return null;
  return { what: 'works', limb, motion, load: 'resisted', by };
}

function carrier(limb: ImposedLimb, [joint, load = 'body', ...more]: string[]): Imposition | null {
  if (more.length > 0 || !isIn(JOINTS, joint)) return null;
  const of = { limb: isSpine(joint as Joint) ? ('trunk' as const) : limb, joint, by: 'held' as const };
  if (load === 'touch') return { what: 'touches', ...of, load: 'none', by: 'measurement' };
  return isIn(IMPOSED_LOADS, load) ? { what: 'bears', ...of, load } : null;
}
