import type { DemoPatient } from './person.js';

export const GARDENER: DemoPatient = {
  givenName: 'Odalys',
  familyName: 'Brandt',
  dueInDays: -1,
  age: 58,
  sex: 'female',
  occupation: 'Gardener',
  complaint: 'Both hips stiff, worse after kneeling',
  complaintAt: 'hip',
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
      retest: {
        protocol: 'hip.flexion/supine',
        side: 'left',
        rounds: [
          ['', 106],
          ['Hands-and-knees rock back', 116],
          ['Long hold, knee to chest', 115],
        ],
      },
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

export const DANCE_TEACHER: DemoPatient = {
  givenName: 'Tamsin',
  familyName: 'Okonjo-Vale',
  age: 34,
  sex: 'female',
  occupation: 'Dance teacher',
  complaint: 'Turns to the right feel short, and the arms stop before they are overhead',
  complaintAt: 'hip',
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
        { motion: 'thoracolumbar.rotation', active: [51, 49] },
      ],
      screened: [
        { screen: 'loadingReadiness', item: 'turn', side: 'left', seen: { value: 60, faults: [], pain: 0 } },
        { screen: 'loadingReadiness', item: 'turn', side: 'right', seen: { value: 35, faults: ['trunkLeans'], pain: 0 } },
        { screen: 'loadingReadiness', item: 'wallArms', seen: { value: 150, faults: ['ribsFlare'], pain: 0 } },
        { screen: 'jointCircles', item: 'hip', side: 'left', seen: { sector: null, pain: 0 } },
        { screen: 'jointCircles', item: 'hip', side: 'right', seen: { sector: { from: 4, to: 6 }, faults: ['lowBackArches'], pain: 0 } },
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

export const FERRY_ENGINEER: DemoPatient = {
  givenName: 'Corin',
  familyName: 'Hathersage',
  dueInDays: 9,
  age: 67,
  sex: 'male',
  occupation: 'Retired ferry engineer',
  complaint: 'Left knee replaced, bending comes back slowly',
  complaintAt: 'knee',
  involvedSide: 'left',
  procedure: { id: 'knee-replacement', daysAgo: 12 * 7 + 4 },
  wanted: 'Ladders to the engine room of the museum ferry',
  limit: { motion: 'knee.flexion', mode: 'passive', limit: 90, forDays: 21, source: 'surgeon, discharge letter' },
  goals: (['active', 'passive'] as const).flatMap((mode) => [
    { protocol: 'knee.flexion/supine', side: 'left', mode, goal: { source: 'hand', value: 116, note: 'agreed with the surgeon' } },
    { protocol: 'knee.extension/supine', side: 'left', mode, goal: { source: 'hand', value: 0, note: 'agreed with the surgeon' } },
  ]),
  visits: COURSE.map(([week, active, passive, lacksActive, lacksPassive]) => ({
    daysAgo: (12 - week) * 7 + 4,
    byColleague: week === 3,
    ...(week < 9
      ? {}
      : {
          program: {
            drills: [
              ['heel-slide-strap', 'left'],
              ['knee-press', 'left'],
              ['step-up', 'left'],
            ] as const,
            equipment: ['strap', 'step', 'towel'] as const,
            recheckInDays: 13,
          },
        }),
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

export const FENCER: DemoPatient = {
  givenName: 'Ottoline',
  familyName: 'Reeve',
  age: 29,
  sex: 'female',
  occupation: 'Fencing coach',
  complaint: 'Left ankle stiff in the lunge after a fracture',
  complaintAt: 'ankle',
  involvedSide: 'left',
  procedure: { id: 'ankle-fixation', daysAgo: 11 * 7 },
  wanted: 'Lunge without the heel lifting',
  visits: [
    {
      daysAgo: 5,
      readings: [
        { motion: 'ankle.dorsiflexion', active: [2, 11], passive: [5, 15] },
        { motion: 'ankle.plantarflexion', active: [38, 54], passive: [42, 58] },
        { motion: 'muscleLength.calfKneeStraight', passive: [1, 10] },
        { motion: 'muscleLength.calfKneeBent', passive: [13, 16] },
        { motion: 'distance.kneeToWall', active: [4.5, 11], instrument: 'tape' },
      ],
      screened: [
        { screen: 'squatCheck', item: 'squat', view: 'front', side: 'left', seen: { faults: ['kneeRollsIn'], pain: 0 } },
        { screen: 'squatCheck', item: 'squat', view: 'side', side: 'left', seen: { faults: ['heelLifts'], pain: 0 } },
        {
          screen: 'squatCheck',
          item: 'squat',
          view: 'side',
          side: 'left',
          seen: { faults: ['heelLifts'], pain: 0, lines: { shin: 24, trunk: 46 } },
        },
        { screen: 'squatCheck', item: 'squat', view: 'side', side: 'left', with: ['heelsRaised'], seen: { faults: [], pain: 0 } },
        { screen: 'squatCheck', item: 'squat', view: 'behind', seen: { faults: [], pain: 0 } },
        { screen: 'patterns', item: 'chinToChest', seen: { value: 0, pain: 0 } },
        { screen: 'patterns', item: 'lookUp', seen: { value: 5, pain: 0 } },
        { screen: 'patterns', item: 'lookOver', side: 'left', seen: { meets: true, pain: 0 } },
        { screen: 'patterns', item: 'lookOver', side: 'right', seen: { meets: true, pain: 0 } },
        { screen: 'patterns', item: 'toeTouch', seen: { value: 0, pain: 0 } },
        { screen: 'patterns', item: 'turn', side: 'left', seen: { value: 52, pain: 2, painWhere: 'left ankle' } },
        { screen: 'patterns', item: 'turn', side: 'right', seen: { value: 55, pain: 0 } },
      ],
    },
  ],
};
