import type { Assessment, Measurement } from '../assessment.js';

const of = (motion: Measurement['motion'], end: number, over: Partial<Measurement> = {}): Measurement => ({
  motion,
  side: 'left',
  mode: 'passive',
  position: 'supine',
  instrument: 'goniometer',
  trials: [{ end }],
  ...over,
});
const both = (motion: Measurement['motion'], left: number, right: number, over: Partial<Measurement> = {}): Measurement[] => [
  of(motion, left, over),
  of(motion, right, { side: 'right', ...over }),
];

/** Visits that have every kind of finding between them. The people are made up. */
export const EVERY_KIND: readonly Assessment[] = [
  {
    person: { birthDate: '1964-05-02', sex: 'male' },
    assessedOn: '2026-11-20',
    involvedSide: 'left',
    procedure: { id: 'knee-replacement', on: '2026-09-20' },
    measurements: [
      of('knee.flexion', 62.5, { pain: 4, painWhere: 'front', trials: [{ end: 60 }, { end: 65 }] }),
      of('knee.flexion', 121, { side: 'right' }),
      of('knee.extension', -12, { endFeel: 'springy' }),
      ...both('hip.flexion', 88, 121, { mode: 'active' }),
      ...both('hip.flexion', 117, 121),
      of('hip.extension', 5, { mode: 'active', position: 'prone', pain: 3 }),
      of('hip.extension', 2, { position: 'prone', pain: 0 }),
      ...both('muscleLength.straightLegRaise', 41, 78),
      ...both('distance.heelToButtock', 21.5, 4, { position: 'prone', instrument: 'tape' }),
      ...both('girth.thigh', 44, 47.5, { instrument: 'tape' }),
      of('hip.internalRotation', 31, { position: 'prone' }),
      of('muscleLength.calfKneeStraight', 2),
      of('muscleLength.calfKneeBent', 18),
      of('fingerPip.flexion', 40, { digit: 3, position: 'sitting', substitutions: [] }),
    ],
    previous: {
      assessedOn: '2026-10-01',
      measurements: [
        of('knee.flexion', 90, { instrument: 'inclinometer' }),
        of('knee.extension', -11),
        of('hip.internalRotation', 30, { position: 'sitting' }),
      ],
    },
  },
  {
    person: { birthDate: '1990-01-02', sex: 'female' },
    assessedOn: '2026-11-20',
    involvedSide: 'left',
    complaintAt: 'shoulder',
    measurements: [
      ...both('shoulder.externalRotation', 22, 96),
      ...both('shoulder.internalRotation', 60, 70),
      ...both('shoulder.abduction', 62, 178),
      ...both('elbow.extension', 24, 3),
      of('elbow.flexion', 140, { mode: 'active', pain: 4 }),
      of('elbow.flexion', 141, { pain: 0 }),
      of('elbow.extension', 23, { mode: 'active', pain: 0, side: 'right' }),
      of('wrist.flexion', 80, { position: 'sitting', mode: 'active', substitutions: [] }),
      of('wrist.flexion', 60, { position: 'sitting', trials: [{ end: 50 }, { end: 70 }] }),
    ],
  },
  {
    person: { birthDate: '1984-05-02', sex: 'female' },
    assessedOn: '2026-11-20',
    involvedSide: 'both',
    screens: [
      {
        screen: 'floorPath',
        screenedOn: '2026-11-20',
        items: [{ item: 'backLeg', side: 'right', tries: [{ faults: ['trunkLeans', 'handsUsed'] }] }],
      },
      {
        screen: 'jointCircles',
        screenedOn: '2026-11-20',
        items: [{ item: 'hip', side: 'left', tries: [{ sector: { from: 5, to: 7 } }] }],
      },
    ],
    measurements: [
      of('hip.flexion', 80, { mode: 'active' }),
      of('hip.abduction', 22, { mode: 'active', substitutions: ['pelvis-hikes'] }),
      of('hip.abduction', 9, { endFeel: 'empty' }),
      of('hip.abduction', 48, { side: 'right' }),
      of('hip.extension', 31, { position: 'prone' }),
      of('elbow.flexion', 130, { mode: 'active', pain: 4, painWhere: 'front' }),
      of('elbow.flexion', 136, { pain: 0 }),
      of('elbow.extension', 0, { mode: 'active', pain: 0 }),
      of('elbow.extension', 2, { pain: 3 }),
      of('lumbar.flexion', 35, {
        side: 'midline',
        mode: 'active',
        position: 'standing',
        instrument: 'dualInclinometer',
        trials: [{ upper: { zero: 0, end: 60 }, lower: { zero: 0, end: 25 } }],
      }),
      of('lumbar.extension', 10, {
        side: 'midline',
        mode: 'active',
        position: 'standing',
        instrument: 'dualInclinometer',
        trials: [{ upper: { zero: 0, end: 20 }, lower: { zero: 0, end: 10 } }],
      }),
      of('muscleLength.straightLegRaise', 60),
      of('fingerMcp.flexion', 80, { digit: 1, position: 'sitting' }),
      ...both('fingerMcp.flexion', 60, 88, { digit: 2, position: 'sitting' }),
      of('cervical.lateralFlexion', 22, { mode: 'active', position: 'sitting', pain: 0 }),
      of('cervical.lateralFlexion', 44, { mode: 'active', side: 'right', position: 'sitting', pain: 2 }),
      of('balance.singleLegStanceEyesOpen', 0, {
        mode: 'active',
        position: 'standing',
        instrument: 'stopwatch',
        trials: [{ value: 9 }, { value: 12.5 }, { value: 10 }],
      }),
      ...both('strength.hipAbduction', 120, 210, { mode: 'active', position: 'sidelying', instrument: 'dynamometer' }).map((m, at) => ({
        ...m,
        trials: [{ value: at === 0 ? 27 : 210, ...(at === 0 ? { unit: 'lb' as const } : {}) }],
      })),
      of('check.armsOverhead', 0, { mode: 'active', instrument: 'visual', trials: [{ value: 0 }], pain: 7 }),
    ],
    previous: {
      assessedOn: '2026-10-20',
      measurements: [
        of('hip.flexion', 81, { mode: 'active', examiner: 'Rook' }),
        of('cervical.lateralFlexion', 40, { mode: 'active', position: 'sitting' }),
        of('hip.abduction', 30, { side: 'right' }),
      ],
    },
  },
  {
    person: { birthDate: '1950-05-02', sex: 'male' },
    assessedOn: '2026-11-20',
    involvedSide: 'right',
    procedure: { id: 'achilles-repair', on: '2026-06-20' },
    precautions: [{ motion: 'ankle.plantarflexion', side: 'right', limit: 20, until: null, source: 'the surgeon' }],
    measurements: [
      ...both('ankle.dorsiflexion', 10, 28),
      of('ankle.plantarflexion', 20, { side: 'right' }),
      ...both('hip.internalRotation', 44, 20, { position: 'prone' }),
      ...both('hip.externalRotation', 22, 44, { position: 'prone' }),
      of('girth.calf', 34, { side: 'right', instrument: 'tape', trials: [{ value: 34 }] }),
      of('knee.extension', 3, {
        instrument: 'inclinometer',
        trials: [{ tilt: { zero: 0, end: 3 }, sense: 1 }],
      }),
    ],
  },
];
