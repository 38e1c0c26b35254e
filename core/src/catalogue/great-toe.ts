import { arms, defineMotion, turn } from './define.js';
import type { Motion } from './types.js';

const BY = ['goniometer', 'picture', 'visual'] as const;
const MTP = arms('inner side of the ball of the great toe', 'mid-line of the first metatarsal', 'mid-line of the first phalanx');
const IP = arms('top of the toe’s middle joint', 'top of the first phalanx', 'top of the end phalanx');
const LYING = {
  supine: 'Face up, ankle at 0°, the other toes free.',
  sitting: 'Sitting, foot supported, ankle at 0°, the other toes free.',
} as const;
const ends = <T>(make: (at: 'supine' | 'sitting') => T): T[] => [make('supine'), make('sitting')];

export const GREAT_TOE: readonly Motion[] = [
  defineMotion('greatToeMtp.flexion', {
    name: 'Great toe (MTP) flexion',
    short: 'Flexion',
    plane: 'S',
    opposite: 'extension',
    limits: [-40, 90],
    protocols: ends((at) => ({
      at,
      by: BY,
      swing: 'horizontal' as const,
      start: LYING[at],
      put: arms('top of the ball of the great toe', 'top of the first metatarsal', 'top of the first phalanx'),
      hold: 'first metatarsal',
      fakes: ['ankle points', 'toe tip curls'],
      twoJoint: 'Long toe extensor: ankle at 0° or up.',
      dial: [270, -1, 60, 100] as const,
      figure: turn('bigToeUp', 'mtp', ['ip', 'toe'], 'met', 35),
    })),
  }),
  defineMotion('greatToeMtp.extension', {
    name: 'Great toe (MTP) extension',
    short: 'Extension',
    plane: 'S',
    opposite: 'flexion',
    limits: [-50, 120],
    protocols: [
      ...ends((at) => ({
        at,
        by: BY,
        swing: 'horizontal' as const,
        start: LYING[at],
        put: MTP,
        hold: 'first metatarsal',
        fakes: ['ankle points', 'first ray drops'],
        twoJoint: 'Long toe flexor: let the foot point a little, the toe tip relaxed.',
        dial: [270, 1, 110, 60] as const,
        figure: turn('bigToeUp', 'mtp', ['ip', 'toe'], 'met', 60),
      })),
      {
        at: 'standing',
        variant: 'loaded',
        variantLabel: 'weight-bearing',
        modes: ['passive'],
        by: BY,
        swing: 'vertical',
        start: 'Standing, weight on the foot; the examiner lifts the toe.',
        put: MTP,
        hold: 'ball of the toe on the floor',
        fakes: ['arch lifts', 'ankle moves'],
        not: 'Body weight stiffens the arch: never compare with lying.',
        dial: [270, 1, 110, 60],
        figure: turn('bigToeUp', 'mtp', ['ip', 'toe'], 'met', 50),
      },
    ],
  }),
  defineMotion('greatToeIp.flexion', {
    name: 'Great toe (IP) flexion',
    short: 'Flexion',
    plane: 'S',
    opposite: 'extension',
    limits: [-30, 110],
    protocols: ends((at) => ({
      at,
      by: BY,
      swing: 'horizontal' as const,
      start: LYING[at],
      put: IP,
      hold: 'first phalanx',
      fakes: ['ball of the toe moves'],
      feel: ['soft', 'firm'] as const,
      twoJoint: 'Long toe extensor: ankle at 0° or up.',
      dial: [270, -1, 100, 40] as const,
      figure: turn('bigToeUp', 'ip', ['toe'], 'mtp', 60),
    })),
  }),
  defineMotion('greatToeIp.extension', {
    name: 'Great toe (IP) extension',
    short: 'Extension',
    plane: 'S',
    opposite: 'flexion',
    limits: [-90, 40],
    zeroIs: 'straight',
    hyper: true,
    protocols: ends((at) => ({
      at,
      by: BY,
      swing: 'horizontal' as const,
      start: LYING[at],
      put: IP,
      hold: 'first phalanx',
      fakes: ['ball of the toe moves'],
      twoJoint: 'Long toe flexor: let the foot point a little.',
      dial: [270, 1, 40, 90] as const,
      figure: turn('bigToeUp', 'ip', ['toe'], 'mtp', 0),
    })),
  }),
];
