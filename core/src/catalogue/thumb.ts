import { arms, defineMotion, turn } from './define.js';
import type { Motion } from './types.js';

const BY = ['goniometer', 'picture', 'visual'] as const;
const REST = 'Zero is not agreed between books: record the resting angle as the start.';
const PALM_UP = 'Sitting, forearm on the table, palm up, wrist neutral, thumb relaxed beside the hand.';
const cmcPalm = {
  at: 'sitting',
  by: BY,
  swing: 'horizontal',
  start: PALM_UP,
  put: arms('palm side, over the base of the thumb', 'palm-side mid-line of the radius', 'palm side of the first metacarpal'),
  hold: 'wrist bones',
  not: REST,
} as const;
const cmcSide = {
  at: 'sitting',
  by: BY,
  swing: 'horizontal',
  start: 'Sitting, forearm on its little-finger side, thumb resting against the hand.',
  put: arms(
    'thumb side, between the radial styloid and the base of the thumb',
    'outer mid-line of the second metacarpal',
    'outer mid-line of the first metacarpal',
  ),
  hold: 'second metacarpal',
  not: REST,
} as const;
const THUMB = ['mcp', 'ip', 'tip'];

const hinge = (joint: 'thumbMcp' | 'thumbIp', bend: boolean) => {
  const mcp = joint === 'thumbMcp';
  return {
    at: 'sitting' as const,
    by: BY,
    swing: 'horizontal' as const,
    start: mcp
      ? 'Sitting, forearm on the table, base of the thumb neutral, tip joint relaxed.'
      : 'Sitting, forearm on the table, thumb straight at its base joints.',
    put: mcp
      ? arms('back of the knuckle joint', 'back of the first metacarpal', 'back of the first phalanx')
      : arms('back of the tip joint', 'back of the first phalanx', 'back of the end phalanx'),
    hold: mcp ? 'first metacarpal' : 'first phalanx',
    fakes: [mcp ? 'base of the thumb moves' : 'knuckle moves'],
    feel: mcp && bend ? (['hard', 'firm'] as const) : (['firm'] as const),
    twoJoint: bend
      ? 'Long thumb extensor: wrist neutral, the other thumb joint relaxed.'
      : 'Long thumb flexor: wrist neutral, the other thumb joint relaxed.',
    dial: [mcp ? 315 : 315, bend ? 1 : -1, bend ? 100 : 60, bend ? 50 : 80] as const,
    figure: turn('palm', mcp ? 'mcp' : 'ip', mcp ? ['ip', 'tip'] : ['tip'], mcp ? 'cmc' : 'mcp', bend ? 55 : 15),
  };
};

export const THUMB_MOTIONS: readonly Motion[] = [
  defineMotion('thumbCmc.flexion', {
    name: 'Thumb base flexion',
    short: 'Flexion',
    plane: 'S',
    opposite: 'extension',
    limits: [-40, 60],
    protocols: [
      {
        ...cmcPalm,
        fakes: ['wrist moves', 'knuckle bends'],
        feel: ['soft', 'firm'],
        dial: [315, 1, 50, 50],
        figure: turn('palm', 'cmc', THUMB, 'forearm', 15),
      },
    ],
  }),
  defineMotion('thumbCmc.extension', {
    name: 'Thumb base extension',
    short: 'Extension',
    plane: 'S',
    opposite: 'flexion',
    limits: [-40, 90],
    protocols: [
      {
        ...cmcPalm,
        fakes: ['wrist moves sideways', 'knuckle straightens'],
        twoJoint: 'Long thumb flexor: let the thumb relax.',
        dial: [315, -1, 60, 40],
        figure: turn('palm', 'cmc', THUMB, 'forearm', 20),
      },
    ],
  }),
  defineMotion('thumbCmc.abduction', {
    name: 'Thumb base abduction',
    short: 'Abduction',
    plane: 'F',
    opposite: 'adduction',
    limits: [-20, 100],
    protocols: [
      {
        ...cmcSide,
        fakes: ['wrist moves', 'knuckle moves'],
        dial: [0, -1, 90, 30],
        figure: turn('web', 'cmc', ['mcp', 'tip'], 'index', 55),
      },
    ],
  }),
  defineMotion('thumbCmc.adduction', {
    name: 'Thumb base adduction',
    short: 'Adduction',
    plane: 'F',
    opposite: 'abduction',
    limits: [-80, 40],
    protocols: [
      {
        ...cmcSide,
        fakes: ['wrist moves', 'knuckle moves'],
        feel: ['soft', 'firm'],
        dial: [0, 1, 40, 80],
        figure: turn('web', 'cmc', ['mcp', 'tip'], 'index', 0),
      },
    ],
  }),
  defineMotion('thumbMcp.flexion', {
    name: 'Thumb knuckle (MCP) flexion',
    short: 'Flexion',
    plane: 'S',
    opposite: 'extension',
    limits: [-40, 110],
    zeroIs: 'straight',
    protocols: [hinge('thumbMcp', true)],
  }),
  defineMotion('thumbMcp.extension', {
    name: 'Thumb knuckle (MCP) extension',
    short: 'Extension',
    plane: 'S',
    opposite: 'flexion',
    limits: [-90, 70],
    zeroIs: 'straight',
    hyper: true,
    protocols: [hinge('thumbMcp', false)],
  }),
  defineMotion('thumbIp.flexion', {
    name: 'Thumb tip joint (IP) flexion',
    short: 'Flexion',
    plane: 'S',
    opposite: 'extension',
    limits: [-50, 120],
    zeroIs: 'straight',
    protocols: [hinge('thumbIp', true)],
  }),
  defineMotion('thumbIp.extension', {
    name: 'Thumb tip joint (IP) extension',
    short: 'Extension',
    plane: 'S',
    opposite: 'flexion',
    limits: [-100, 90],
    zeroIs: 'straight',
    hyper: true,
    protocols: [hinge('thumbIp', false)],
  }),
];
