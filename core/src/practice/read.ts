import type { Degrees } from '../terms.js';
import { between, oneOf, type Exercise, type SlipId } from './types.js';

/** A goniometer as it lies there, with its angle. */
export interface ReadTask {
  readonly truth: Degrees;
  /** Where the still arm points: degrees clockwise from straight up. */
  readonly stillAt: Degrees;
  /** 1: the moving arm opens clockwise. */
  readonly sense: 1 | -1;
  /** Which of the two rings counts from the still arm. */
  readonly ring: 'outer' | 'inner';
  /** Where the eye is to begin with: 0 is square above the line, ±1 as far off as it goes. */
  readonly eye: number;
}

export interface ReadAnswer {
  readonly degrees: Degrees;
  /** Where the eye was when it was read. */
  readonly eye: number;
}

/** By how much the line of the arm seems to lie elsewhere with the eye as far off as it goes. @see our choice: an arm 4 mm thick, the eye 45° off, 60 mm from the axis */
export const MOST_PARALLAX: Degrees = 4;

/** Where the line of the arm seems to lie on the scale; at half its height it is off by half. */
export const seemsAt = (truth: Degrees, eye: number): Degrees => truth + MOST_PARALLAX * eye;

const near = (one: number, other: number, within: number): boolean => Math.abs(one - other) <= within;

/** Between two tens, counted from the wrong one of them: 37 as 43, or as 23. */
const wrongWays = (truth: Degrees): readonly Degrees[] => [Math.floor(truth / 10), Math.ceil(truth / 10)].map((ten) => 20 * ten - truth);

function slipOf({ truth }: ReadTask, { degrees, eye }: ReadAnswer): SlipId {
  const off = degrees - truth;
  const parallax = MOST_PARALLAX * eye;
  if (Math.abs(off) <= 0.5) return 'half';
  if (Math.abs(parallax) >= 1 && near(off, parallax, 0.5)) return 'parallax';
  if (Math.abs(truth - 90) > 4 && near(degrees, 180 - truth, 1)) return 'otherRing';
  if (near(Math.abs(off), 10, 0.5)) return 'tens';
  if (wrongWays(truth).some((wrong) => near(degrees, wrong, 0.5))) return 'wrongWay';
  if (Math.abs(parallax) >= 1 && near(off, parallax, 1)) return 'parallax';
  return 'misread';
}

/** Reading a goniometer: which ring, between the marks, with the eye square above the line. */
export const READ: Exercise<ReadTask, ReadAnswer> = {
  id: 'read',
  cards: ['whole', 'half'].flatMap((step) =>
    ['square', 'askew'].flatMap((eye) => ['outer', 'inner'].map((ring) => `${step}/${eye}/${ring}`)),
  ),
  make: (card, random) => {
    const [step, eye, ring] = card.split('/');
    const whole = between(random, 12, 168);
    return {
      truth: step === 'half' ? whole + 0.5 : whole,
      stillAt: between(random, 0, 330, 30),
      sense: oneOf(random, [1, -1] as const),
      ring: ring as ReadTask['ring'],
      eye: eye === 'askew' ? oneOf(random, [1, -1] as const) * between(random, 50, 100, 5) * 0.01 : 0,
    };
  },
  score: (task, answer) => {
    const off = answer.degrees - task.truth;
    if (off === 0) return { mark: 'right', off, slips: [] };
    const slip = slipOf(task, answer);
    return { mark: Math.abs(off) <= 1 ? 'near' : 'wrong', off, slips: [slip] };
  },
  read: (_, { degrees }) => degrees,
  truth: ({ truth }) => truth,
};
