import { ChangeDetectionStrategy, Component, computed, DestroyRef, effect, inject, input, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { LIVE_CLOSED, SimulationSetup, ToFace, type FromFace } from '@dial-gauge/contract';
import { formatNumber, planeVerdict } from '@dial-gauge/core';
import { Subscription } from 'rxjs';
import { Drafts } from '../data/drafts';
import { Lines, type Line } from '../live/line';
import { Frame } from '../shell/frame';
import { handOver } from '../ui/hand-over';
import { readScenario, SCENARIOS } from './scenarios';

type Device = SimulationSetup['devices'][number];
type Face = Extract<ToFace, { k: 'face' }>;

/** What can be set of an instrument, with its bounds as the contract has them. */
const FIELDS: readonly {
  readonly of: keyof Device & ('from' | 'to' | 'noise' | 'drift' | 'placement');
  readonly label: string;
  readonly unit: string;
}[] = [
  { of: 'from', label: 'Tilt at rest', unit: '°' },
  { of: 'to', label: 'Tilt at the end of range', unit: '°' },
  { of: 'noise', label: 'Noise, standard deviation', unit: '°' },
  { of: 'drift', label: 'Drift a minute', unit: '°' },
  { of: 'placement', label: 'Put on askew by', unit: '°' },
];
const SCALES: readonly { readonly value: Device['scale']; readonly words: string }[] = [
  { value: null, words: 'from its zero' },
  { value: '360', words: '0–360' },
  { value: '180', words: '−180 to 180' },
  { value: 'quadrant', words: '0–90 in every quarter' },
];
const ROUNDINGS: readonly Device['rounding'][] = [0.1, 0.5, 1];
const isSetup = (value: unknown): value is SimulationSetup => SimulationSetup.safeParse(value).success;

/** A tick every ten degrees, longer every thirty. */
const TICKS = Array.from({ length: 19 }, (_, n) => {
  const angle = ((n - 9) * 10 * Math.PI) / 180;
  const [from, to] = [n % 3 === 0 ? 86 : 93, 100];
  const at = (radius: number) => ({
    x: Math.round(radius * Math.sin(angle) * 100) / 100,
    y: Math.round(-radius * Math.cos(angle) * 100) / 100,
  });
  return { angle: n, x1: at(from).x, y1: at(from).y, x2: at(to).x, y2: at(to).y };
});

/** Inclinometers that are not there, on a joint that is not there: their faces and buttons, and what is wrong with them. */
@Component({
  selector: 'dg-simulated',
  imports: [Frame, MatButtonModule, RouterLink],
  templateUrl: './simulated.html',
  styleUrl: './simulated.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SimulatedPage {
  private readonly lines = inject(Lines);
  private readonly drafts = inject(Drafts);
  readonly id = input.required<string>();

  protected readonly scenarios = SCENARIOS;
  protected readonly fields = FIELDS;
  protected readonly scales = SCALES;
  protected readonly roundings = ROUNDINGS;
  protected readonly setup = signal<SimulationSetup>(SCENARIOS[0]!.setup);
  private readonly line = signal<Line<ToFace> | null>(null);
  private readonly faces = signal<readonly (Face | undefined)[]>([]);
  /** What each is asked, and what became of its last hold. */
  private readonly told = signal<readonly { readonly asked?: string; readonly last?: string }[]>([]);
  protected readonly reach = signal(0);
  protected readonly problem = signal('');
  private hearing = new Subscription();

  protected readonly trouble = computed(() => {
    const line = this.line();
    const refused = line?.refused();
    if (refused === LIVE_CLOSED.noSession) return 'Your session has ended: sign in again, then load this page again.';
    if (refused === LIVE_CLOSED.notAllowed) return 'Your role does not measure: the lead can change what somebody is.';
    if (refused === LIVE_CLOSED.notFound) return 'The server does not know this visit: open it from the caseload again.';
    if (refused !== null && refused !== undefined)
      return 'The server took no connection: too many are open for this visit. Close another and load this page again.';
    return line?.isOpen() ? '' : 'Connecting …';
  });
  protected readonly devices = computed(() =>
    this.setup().devices.map((device, at) => {
      const face = this.faces()[at];
      return {
        device,
        face,
        verdict: face ? planeVerdict(face.shows.outOfPlane) : 'good',
        told: [this.told()[at]?.asked, this.told()[at]?.last].filter(Boolean).join(' · '),
      };
    }),
  );

  constructor() {
    effect(() => {
      const kept = this.drafts.read(`instruments.${this.id()}`, isSetup);
      untracked(() => this.use(kept ?? this.setup(), false));
    });
    inject(DestroyRef).onDestroy(() => this.hearing.unsubscribe());
  }

  /** Another joint or other instruments: the old ones are gone, these are new. */
  protected use(setup: SimulationSetup, keep = true): void {
    this.hearing.unsubscribe();
    this.setup.set(setup);
    this.faces.set([]);
    this.told.set([]);
    this.reach.set(0);
    if (keep) this.drafts.keep(`instruments.${this.id()}`, setup);
    const line = this.lines.open(() => ({ as: 'simulation', visit: this.id(), setup: this.setup() }), ToFace);
    this.line.set(line);
    this.hearing = line.heard.subscribe({ next: (said) => this.hear(said), error: () => this.faces.set([]) });
  }

  protected do(done: FromFace): void {
    this.line()?.say(done);
  }

  protected move(event: Event): void {
    this.do({ k: 'move', to: Number((event.target as HTMLInputElement).value) / 100 });
  }

  /** Kept for the next connection too, so that it is there after a reload. */
  protected turn(device: number, event: Event): void {
    const turned = Number((event.target as HTMLInputElement).value);
    this.do({ k: 'turn', device, turned });
    this.setup.update((setup) => ({ ...setup, devices: setup.devices.map((one, at) => (at === device ? { ...one, turned } : one)) }));
    this.drafts.keep(`instruments.${this.id()}`, this.setup());
  }

  protected number(device: number, of: (typeof FIELDS)[number]['of'], event: Event): void {
    this.change(device, { [of]: Number((event.target as HTMLInputElement).value.replace(',', '.').replace('−', '-')) });
  }

  protected scale(device: number, event: Event): void {
    this.change(device, { scale: SCALES[Number((event.target as HTMLSelectElement).value)]!.value });
  }

  protected rounding(device: number, event: Event): void {
    this.change(device, { rounding: ROUNDINGS[Number((event.target as HTMLSelectElement).value)]! });
  }

  protected joint(of: 'seed' | 'speed' | 'tremor', event: Event): void {
    this.try({ ...this.setup(), [of]: Number((event.target as HTMLInputElement).value.replace(',', '.')) });
  }

  private change(device: number, change: Partial<Device>): void {
    const { devices } = this.setup();
    this.try({ ...this.setup(), devices: devices.map((one, at) => (at === device ? { ...one, ...change } : one)) });
  }

  /** Nothing of what was there is lost by a figure that does not fit. */
  private try(setup: unknown): void {
    const read = readScenario(JSON.stringify(setup));
    this.problem.set(typeof read === 'string' ? read : '');
    if (typeof read !== 'string') this.use(read);
  }

  protected async load(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    if (!file) return;
    const read = readScenario(await file.text());
    field.value = '';
    this.problem.set(typeof read === 'string' ? read : '');
    if (typeof read !== 'string') this.use(read);
  }

  protected save(): void {
    handOver('instruments.json', JSON.stringify(this.setup(), null, 2), 'application/json');
  }

  private hear(said: ToFace): void {
    if (said.k === 'face') {
      this.reach.set(said.reach);
      return this.faces.update((faces) => {
        const next = [...faces];
        next[said.device] = said;
        return next;
      });
    }
    const { said: order } = said;
    const change =
      order.k === 'asks'
        ? { asked: order.words }
        : { last: order.k === 'answer' ? `${order.taken ? 'held ' : ''}${order.words}` : order.k === 'zero' ? 'zero set' : 'let go' };
    this.told.update((told) => {
      const next = [...told];
      next[said.device] = { ...next[said.device], ...change };
      return next;
    });
  }

  protected figure(face: Face | undefined): string {
    return face ? formatNumber(face.shown) : '–';
  }

  /** The needle stands where the face says, on half a turn to either side of plumb. */
  protected needle({ shown }: Face): string {
    return `rotate(${Math.max(-90, Math.min(90, shown > 180 ? shown - 360 : shown))})`;
  }

  protected readonly ticks = TICKS;
  protected readonly percent = (share: number): number => Math.round(share * 100);
  protected readonly round = Math.round;
}
