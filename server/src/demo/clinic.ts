import type { InvolvedSide, MotionId, Sex } from '@dial-gauge/core';

/** A made-up clinic with made-up people. Days count back from the day of seeding. */
export const DEMO_CLINIC = { name: 'Saltmarsh Lane Physiotherapy', normSet: 'boone-azen-1979' };
export const DEMO_USER = { name: 'Wren Calloway', email: 'wren@saltmarsh.example', password: 'tide-and-table' };

/** A second examiner, so that what two people measure can be seen. */
export const DEMO_COLLEAGUE = { name: 'Rook Ansty', email: 'rook@saltmarsh.example', password: 'tide-and-table' };

/** Left and right, degrees. */
type Pair = readonly [left: number, right: number];
export interface DemoReading {
  readonly motion: MotionId;
  readonly active: Pair;
  readonly passive: Pair;
  /** Pain 0–10 at the end of the passive motion. */
  readonly pain?: { readonly side: 'left' | 'right'; readonly level: number; readonly where: string };
  readonly faked?: { readonly side: 'left' | 'right'; readonly by: string };
}

export interface DemoPatient {
  readonly givenName: string;
  readonly familyName: string;
  readonly age: number;
  readonly sex: Sex;
  readonly occupation: string;
  readonly complaint: string;
  readonly involvedSide: InvolvedSide | null;
  readonly procedure?: { readonly id: string; readonly daysAgo: number };
  readonly wanted?: string;
  readonly visits: readonly { readonly daysAgo: number; readonly readings: readonly DemoReading[] }[];
}

const GARDENER: DemoPatient = {
  givenName: 'Odalys',
  familyName: 'Brandt',
  age: 58,
  sex: 'female',
  occupation: 'Gardener',
  complaint: 'Both hips stiff, worse after kneeling',
  involvedSide: 'both',
  visits: [
    {
      daysAgo: 42,
      readings: [
        { motion: 'hip.flexion', active: [88, 92], passive: [96, 99], pain: { side: 'right', level: 5, where: 'front of the groin' } },
        { motion: 'hip.abduction', active: [22, 24], passive: [27, 28] },
        { motion: 'hip.adduction', active: [16, 17], passive: [19, 20] },
        { motion: 'hip.extension', active: [1, 3], passive: [-4, 6] },
        { motion: 'hip.internalRotation', active: [14, 17], passive: [18, 22] },
        { motion: 'hip.externalRotation', active: [26, 27], passive: [30, 32] },
      ],
    },
    {
      daysAgo: 14,
      readings: [
        { motion: 'hip.flexion', active: [93, 98], passive: [106, 109], pain: { side: 'right', level: 3, where: 'front of the groin' } },
        { motion: 'hip.abduction', active: [24, 26], passive: [30, 31] },
        { motion: 'hip.adduction', active: [18, 17], passive: [21, 20] },
        { motion: 'hip.extension', active: [2, 5], passive: [6, 9] },
        { motion: 'hip.internalRotation', active: [21, 22], passive: [28, 25], faked: { side: 'left', by: 'pelvis-lifts' } },
        { motion: 'hip.externalRotation', active: [28, 29], passive: [33, 34] },
      ],
    },
  ],
};

const DANCE_TEACHER: DemoPatient = {
  givenName: 'Tamsin',
  familyName: 'Okonjo-Vale',
  age: 34,
  sex: 'female',
  occupation: 'Dance teacher',
  complaint: 'Right hip tires when the leg is held high',
  involvedSide: 'right',
  visits: [
    {
      daysAgo: 49,
      readings: [
        { motion: 'hip.flexion', active: [120, 108], passive: [142, 144] },
        { motion: 'hip.abduction', active: [50, 41], passive: [68, 70] },
        { motion: 'hip.adduction', active: [31, 29], passive: [37, 36] },
        { motion: 'hip.extension', active: [17, 9], passive: [27, 29], pain: { side: 'right', level: 2, where: 'buttock' } },
        { motion: 'hip.internalRotation', active: [42, 33], passive: [55, 57] },
        { motion: 'hip.externalRotation', active: [52, 44], passive: [67, 69] },
      ],
    },
    {
      daysAgo: 9,
      readings: [
        { motion: 'hip.flexion', active: [122, 119], passive: [143, 143] },
        { motion: 'hip.abduction', active: [51, 46], passive: [67, 69] },
        { motion: 'hip.adduction', active: [30, 30], passive: [36, 37] },
        { motion: 'hip.extension', active: [18, 14], passive: [28, 28] },
        { motion: 'hip.internalRotation', active: [43, 37], passive: [56, 57] },
        { motion: 'hip.externalRotation', active: [53, 54], passive: [68, 68] },
      ],
    },
  ],
};

/** Weeks since the operation: bending and what is lacking of straight, active and passive, on the left; the right knee hardly changes. */
const COURSE = [
  [1, 55, 62, 18, 14],
  [2, 66, 74, 15, 12],
  [3, 76, 83, 13, 10],
  [4, 84, 90, 11, 8],
  [6, 93, 98, 8, 6],
  [8, 100, 104, 6, 4],
  [10, 102, 106, 5, 3],
  [12, 103, 106, 5, 3],
] as const;

const FERRY_ENGINEER: DemoPatient = {
  givenName: 'Corin',
  familyName: 'Hathersage',
  age: 67,
  sex: 'male',
  occupation: 'Retired ferry engineer',
  complaint: 'Left knee replaced, bending comes back slowly',
  involvedSide: 'left',
  procedure: { id: 'knee-replacement', daysAgo: 12 * 7 + 4 },
  wanted: 'Ladders to the engine room of the museum ferry',
  visits: COURSE.map(([week, active, passive, lacksActive, lacksPassive]) => ({
    daysAgo: (12 - week) * 7 + 4,
    readings: [
      {
        motion: 'knee.extension',
        active: [-lacksActive, 0],
        passive: [-lacksPassive, 2],
      },
      {
        motion: 'knee.flexion',
        active: [active, 126],
        passive: [passive, 132],
        ...(week < 6 ? { pain: { side: 'left', level: 6 - Math.floor(week / 2), where: 'front of the knee' } as const } : {}),
      },
    ],
  })),
};

export const DEMO_PATIENTS: readonly DemoPatient[] = [GARDENER, DANCE_TEACHER, FERRY_ENGINEER];
