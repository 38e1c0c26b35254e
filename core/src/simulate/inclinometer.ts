import { showOn, type DeviceScale } from '../angle/scale.js';
import type { Gravity, GravitySample } from '../angle/gravity.js';
import { seededRandom } from '../error/bootstrap.js';
import type { Degrees } from '../terms.js';

/** An inclinometer that is not there: what it is fixed to, and what is wrong with it. */
export interface SimulatedDevice {
  readonly name: string;
  /** Tilt of the body's segment at rest, and at the end of the true range. */
  readonly from: Degrees;
  readonly to: Degrees;
  /** How it counts; null: from its zero. */
  readonly scale: DeviceScale | null;
  /** Steps in which its face shows. */
  readonly rounding: 0.1 | 0.5 | 1;
  /** Standard deviation of a sample. */
  readonly noise: Degrees;
  /** Per minute. */
  readonly drift: Degrees;
  /** How far it lies off the line of the segment. */
  readonly placement: Degrees;
  /** How far it is turned round the segment, out of the plane of the movement. */
  readonly turned: Degrees;
}

/** Where the limb is asked to go, and when: 0 is rest, 1 the end of the true range. */
export interface SimulatedMove {
  readonly at: number;
  readonly to: number;
}

/** A joint that is not there, and what is fixed to it. The same seed gives the same samples. */
export interface Simulation {
  readonly seed: number;
  /** Samples a second. */
  readonly rate: number;
  /** Degrees a second at the first device. */
  readonly speed: Degrees;
  /** Of the limb: how far it trembles to each side. */
  readonly tremor: Degrees;
  readonly devices: readonly SimulatedDevice[];
  readonly moves: readonly SimulatedMove[];
}

/** Trembling of a limb that is held, a second. @see common practice, no source */
const TREMBLES = 9;

/** How far the joint has come at a moment, as a share of its range: moved with one speed, from wherever it was. */
export function reachAt({ moves, speed, devices }: Simulation, t: number): number {
  const [first] = devices;
  const range = Math.abs((first?.to ?? 0) - (first?.from ?? 0));
  const perSecond = range === 0 ? Number.MAX_VALUE : speed / range;
  let [reach, target, since] = [0, 0, 0];
  const after = (seconds: number): number => {
    const way = target - reach;
    return Math.abs(way) <= perSecond * seconds ? target : reach + Math.sign(way) * perSecond * seconds;
  };
  for (const { at, to } of [...moves].sort((a, b) => a.at - b.at)) {
    if (at > t) break;
    reach = after(at - since);
    [target, since] = [to, at];
  }
  return after(t - since);
}

/** Tilt of the segment under a device, as it truly is: what is measured is scored against it. */
export function trueTilt(simulation: Simulation, device: SimulatedDevice, t: number): Degrees {
  return device.from + (device.to - device.from) * reachAt(simulation, t);
}

/** A number of a normal spread for each sample of each device, the same each time it is asked for. */
function normal(seed: number, device: number, n: number): number {
  const random = seededRandom(seed * 7919 + device * 104_729 + n * 15_485_863);
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

const toRadians = (degrees: Degrees): number => (degrees * Math.PI) / 180;

/** Sample number n of a device. */
export function sampleOf(simulation: Simulation, which: number, n: number): GravitySample {
  const device = simulation.devices[which]!;
  const t = n / simulation.rate;
  const moved = trueTilt(simulation, device, t) - device.from;
  const trembling = simulation.tremor * Math.sin(2 * Math.PI * TREMBLES * t);
  const tilt =
    device.from + moved + trembling + device.placement + (device.drift * t) / 60 + device.noise * normal(simulation.seed, which, n);
  return { t, g: feltAt(tilt, device.turned) };
}

/** What a device feels that is turned round the segment it lies on: in the plane the tilt itself, out of it ever less of it. */
export function feltAt(tilt: Degrees, turned: Degrees): Gravity {
  const [a, b] = [toRadians(tilt), toRadians(turned)];
  return [Math.cos(a), Math.sin(a) * Math.cos(b), Math.sin(a) * Math.sin(b)];
}

/** What stands on the face of a device that is tilted so: as it counts, in its steps. */
export function faceOf({ scale, rounding }: Pick<SimulatedDevice, 'scale' | 'rounding'>, tilt: Degrees, zero: Degrees): Degrees {
  const shown = scale === null ? tilt - zero : showOn(tilt, scale);
  const inSteps = Math.round(shown / rounding) * rounding;
  // A full turn is nothing, and steps of a tenth are no more than tenths.
  const round = scale === '360' && inSteps === 360 ? 0 : inSteps;
  return Math.round(round * 10) / 10 + 0;
}
