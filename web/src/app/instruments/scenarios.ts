import { SimulationSetup } from '@dial-gauge/contract';

type Device = SimulationSetup['devices'][number];

const DEVICE: Device = {
  ...{ name: 'Inclinometer', from: 0, to: 120, scale: null, rounding: 1, noise: 0.2, drift: 0, placement: 0, turned: 0 },
};
const SETUP: SimulationSetup = {
  ...{ format: 'dial-gauge/instruments', version: 1, seed: 1, rate: 40, speed: 60, tremor: 0.2, devices: [DEVICE], moves: [] },
};

export interface Scenario {
  readonly id: string;
  readonly name: string;
  readonly setup: SimulationSetup;
}

/** Ready ones; invented, but for the figures of the low back, which are a worked example of the two-inclinometer method. */
export const SCENARIOS: readonly Scenario[] = [
  { id: 'one', name: 'One inclinometer, 120° of a limb', setup: SETUP },
  {
    id: 'two',
    name: 'Two inclinometers on the low back: 96 and 41',
    setup: {
      ...SETUP,
      devices: [
        { ...DEVICE, name: 'Inclinometer A', to: 96 },
        { ...DEVICE, name: 'Inclinometer B', to: 41 },
      ],
    },
  },
  {
    id: 'old',
    name: 'An old one: coarse, drifting, put on askew',
    setup: { ...SETUP, tremor: 0.6, devices: [{ ...DEVICE, scale: '360', noise: 0.8, drift: 4, placement: 6, turned: 12 }] },
  },
];

/** A scenario out of a file: what is wrong with it and what is allowed, or the setup. */
export function readScenario(text: string): SimulationSetup | string {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return 'The file is not JSON; allowed: a scenario as “Save as a file” writes it.';
  }
  const found = SimulationSetup.safeParse(value);
  if (found.success) return found.data;
  const [issue] = found.error.issues;
  return `${issue?.path.join('.') || 'the file'}: ${issue?.message ?? 'does not fit'}`;
}
