import { randomUUID } from 'node:crypto';
import type { FromFace, Shows, SimulationSetup, ToDevice, ToFace } from '@dial-gauge/contract';
import {
  faceOf,
  follow,
  NOTHING_FELT,
  pathOf,
  reachAt,
  sampleOf,
  setZero,
  showsOf,
  type Following,
  type Simulation,
  type SimulatedMove,
} from '@dial-gauge/core';

/** An instrument as the hub sees it. */
export interface Simulated {
  readonly id: string;
  readonly name: string;
  following: Following;
  asked: string;
  place: string;
  waiting: { readonly id: string; readonly for: string; readonly shows: Shows } | null;
}

interface Hears {
  /** What an instrument says to whoever reads it. */
  readonly says: (device: Simulated, said: object) => void;
  /** What is seen on its face. */
  readonly shows: (face: ToFace) => void;
}

/** How often a face is drawn, in samples. */
const FACE_EVERY = 2;
const STATE_EVERY_MS = 5_000;
/** A hold that nobody answers is sent again. */
const AGAIN_MS = 1_000;
const MOST_MOVES = 400;
/** Of a full battery, a second. */
const BATTERY_LASTS = 6 * 3_600;

/** A joint that moves as it is told, with its instruments: sample after sample, in step with the clock. */
export class RunningSimulation {
  readonly devices: readonly Simulated[];
  private simulation: Simulation;
  private readonly moves: SimulatedMove[];
  private readonly begun = performance.now();
  private next = 0;
  private readonly timers: NodeJS.Timeout[];

  constructor(
    setup: SimulationSetup,
    private readonly hears: Hears,
  ) {
    this.moves = [...setup.moves];
    this.simulation = { ...setup, moves: this.moves };
    this.devices = setup.devices.map(({ name }) => ({
      ...{ id: randomUUID(), name, following: NOTHING_FELT, asked: '', place: '', waiting: null },
    }));
    this.timers = [
      setInterval(() => this.step(), 1000 / setup.rate),
      setInterval(() => this.tellState(), STATE_EVERY_MS),
      setInterval(() => this.sendAgain(), AGAIN_MS),
    ];
    for (const timer of this.timers) timer.unref();
  }

  stop(): void {
    for (const timer of this.timers) clearInterval(timer);
  }

  private get seconds(): number {
    return (performance.now() - this.begun) / 1000;
  }

  /** Every sample that is due by now: late timers leave none out. */
  private step(): void {
    const due = Math.floor(this.seconds * this.simulation.rate);
    for (; this.next <= due; this.next += 1) for (const which of this.devices.keys()) this.feel(which, this.next);
  }

  private feel(which: number, n: number): void {
    const device = this.devices[which]!;
    const sample = sampleOf(this.simulation, which, n);
    device.following = follow(device.following, sample);
    const shows = showsOf(device.following);
    if (!shows) return;
    this.hears.says(device, { k: 'shows', shows });
    if (n % FACE_EVERY > 0) return;
    const shown = faceOf(this.simulation.devices[which]!, pathOf(device.following), device.following.zero?.path ?? 0);
    this.hears.shows({ k: 'face', device: which, shown, reach: reachAt(this.simulation, sample.t), shows });
  }

  tellState(): void {
    const battery = Math.max(0, Math.round((1 - this.seconds / BATTERY_LASTS) * 100) / 100);
    for (const device of this.devices) this.hears.says(device, { k: 'state', battery, quality: 'good' });
  }

  private sendAgain(): void {
    for (const device of this.devices) if (device.waiting) this.hears.says(device, { k: 'held', ...device.waiting });
  }

  /** What is done at the face. */
  touched(done: FromFace): void {
    if (done.k === 'move') {
      this.moves.push({ at: this.seconds, to: done.to });
      return this.forget();
    }
    const device = this.devices[done.device];
    if (!device) return;
    if (done.k === 'turn') {
      const devices = this.simulation.devices.map((one, at) => (at === done.device ? { ...one, turned: done.turned } : one));
      this.simulation = { ...this.simulation, devices };
      return;
    }
    if (done.button === 'zero') return this.zero(device, 'start');
    const shows = showsOf(device.following);
    if (!shows) return;
    device.waiting = { id: randomUUID(), for: device.asked, shows };
    this.hears.says(device, { k: 'held', ...device.waiting });
  }

  /** A limb that is moved up and down all day: of what lies far behind, how far it had come is enough. */
  private forget(): void {
    if (this.moves.length <= MOST_MOVES) return;
    const [first] = this.moves.slice(-MOST_MOVES / 2);
    const come = { at: 0, to: reachAt(this.simulation, first!.at) };
    this.moves.splice(0, this.moves.length - MOST_MOVES / 2, come);
  }

  private zero(device: Simulated, at: 'start' | 'level' | 'plumb'): void {
    device.following = setZero(device.following, at, device.place);
  }

  /** What the screen that reads them says. */
  told(device: Simulated, said: ToDevice): void {
    if (said.k === 'zero') this.zero(device, said.at);
    if (said.k === 'asks') [device.asked, device.place] = [said.for, said.place];
    if (said.k === 'answer' && device.waiting?.id === said.id) device.waiting = null;
    this.hears.shows({ k: 'told', device: this.devices.indexOf(device), said });
  }
}
