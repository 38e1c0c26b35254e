import { arms, defineMotion, turn, type ProtocolSpec } from './define.js';
import type { MotionName } from '../terms.js';
import type { Motion } from './types.js';

const BY = ['goniometer', 'picture', 'visual'] as const;
const common = {
  at: 'sitting',
  by: BY,
  swing: 'horizontal',
  start: 'Sitting, forearm and little-finger side of the hand on the table, wrist neutral.',
} as const;
const MCP = arms('back of the knuckle', 'back of the metacarpal', 'back of the first phalanx');
const PIP = arms('back of the middle joint', 'back of the first phalanx', 'back of the middle phalanx');
const DIP = arms('back of the end joint', 'back of the middle phalanx', 'back of the end phalanx');
const EXTRINSIC_FLEXORS = 'Long finger flexors: keep the wrist neutral, the other joints relaxed.';
const spread = {
  ...common,
  start: 'Sitting, palm flat on the table.',
  put: MCP,
  hold: 'metacarpal',
  fakes: ['knuckle straightens', 'wrist deviates'],
} as const;

const finger = (
  joint: 'fingerMcp' | 'fingerPip' | 'fingerDip',
  name: MotionName,
  words: string,
  limits: readonly [number, number],
  opposite: MotionName,
  spec: ProtocolSpec,
  plane: 'S' | 'F' = 'S',
): Motion =>
  defineMotion(`${joint}.${name}`, {
    name: `Finger ${words}`,
    short: `${name.charAt(0).toUpperCase()}${name.slice(1)}`,
    plane,
    opposite,
    limits,
    perDigit: true,
    zeroIs: plane === 'S' ? 'straight' : 'neutral',
    hyper: name === 'extension',
    protocols: [spec],
  });

export const FINGERS: readonly Motion[] = [
  finger('fingerMcp', 'flexion', 'knuckle (MCP) flexion', [-60, 120], 'extension', {
    ...common,
    put: MCP,
    hold: 'metacarpal',
    fakes: ['wrist bends'],
    feel: ['hard', 'firm'],
    twoJoint: 'Long finger extensors: wrist neutral, the other joints relaxed.',
    dial: [270, -1, 110, 60],
    figure: turn('fingerSide', 'mcp', ['pip', 'dip', 'tip'], 'wrist', 80),
  }),
  finger('fingerMcp', 'extension', 'knuckle (MCP) extension', [-100, 100], 'flexion', {
    ...common,
    put: MCP,
    hold: 'metacarpal',
    fakes: ['wrist moves'],
    twoJoint: EXTRINSIC_FLEXORS,
    dial: [270, 1, 70, 100],
    figure: turn('fingerSide', 'mcp', ['pip', 'dip', 'tip'], 'wrist', 25),
  }),
  finger(
    'fingerMcp',
    'abduction',
    'knuckle (MCP) abduction',
    [-40, 60],
    'adduction',
    { ...spread, dial: [0, 1, 50, 40], figure: turn('handTop', 'indexMcp', ['index'], 180, 20) },
    'F',
  ),
  finger(
    'fingerMcp',
    'adduction',
    'knuckle (MCP) adduction',
    [-50, 40],
    'abduction',
    { ...spread, dial: [0, -1, 40, 50], figure: turn('handTop', 'indexMcp', ['index'], 180, 10) },
    'F',
  ),
  finger('fingerPip', 'flexion', 'middle joint (PIP) flexion', [-40, 140], 'extension', {
    ...common,
    put: PIP,
    hold: 'first phalanx',
    fakes: ['knuckle bends'],
    feel: ['hard', 'soft', 'firm'],
    twoJoint: 'Intrinsic and long-extensor tightness differ: look with the knuckle straight and bent.',
    dial: [270, -1, 130, 40],
    figure: turn('fingerSide', 'pip', ['dip', 'tip'], 'mcp', 90),
  }),
  finger('fingerPip', 'extension', 'middle joint (PIP) extension', [-120, 40], 'flexion', {
    ...common,
    put: PIP,
    hold: 'first phalanx',
    fakes: ['knuckle moves'],
    twoJoint: EXTRINSIC_FLEXORS,
    dial: [270, 1, 40, 120],
    figure: turn('fingerSide', 'pip', ['dip', 'tip'], 'mcp', 0),
  }),
  finger('fingerDip', 'flexion', 'end joint (DIP) flexion', [-40, 120], 'extension', {
    ...common,
    put: DIP,
    hold: 'middle phalanx, its joint bent 70–90°',
    fakes: ['middle joint moves'],
    twoJoint: 'Oblique retinacular ligament: keep the middle joint bent.',
    dial: [180, -1, 110, 40],
    figure: turn('fingerHooked', 'dip', ['tip'], 'pip', 60),
  }),
  finger('fingerDip', 'extension', 'end joint (DIP) extension', [-110, 40], 'flexion', {
    ...common,
    put: DIP,
    hold: 'middle phalanx',
    fakes: ['middle joint moves'],
    twoJoint: 'Deep finger flexor: wrist and middle joint bent.',
    dial: [180, 1, 40, 110],
    figure: turn('fingerHooked', 'dip', ['tip'], 'pip', 0),
  }),
];
