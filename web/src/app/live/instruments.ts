import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { LIVE_CLOSED, ToBench, type DeviceKind, type FromDevice, type Shows, type ToDevice } from '@dial-gauge/contract';
import { STALE_SECONDS } from '@dial-gauge/core';
import { interval, Subject, Subscription } from 'rxjs';
import { Lines, type Line } from './line';

/** An instrument as a screen sees it, whatever it is and however it is connected. */
export interface Instrument {
  readonly id: string;
  readonly kind: DeviceKind;
  readonly name: string;
  /** What it showed last; null before it said anything. */
  readonly shows: Shows | null;
  /** When that came, by this page's own clock, in milliseconds. */
  readonly at: number;
  readonly isStale: boolean;
  readonly battery: number | null;
  readonly quality: 'good' | 'poor' | null;
  /** Connected now; one that went away stays in sight, stale, until it comes back or is let go. */
  readonly isHere: boolean;
}

/** Held at an instrument's own button. */
export interface HeldThere {
  readonly device: string;
  readonly id: string;
  readonly for: string;
  readonly shows: Shows;
}

/** The adapter: what gives a stream of readings to a screen. One over the network; practice has one of its own. */
export abstract class InstrumentLine {
  abstract readonly instruments: () => readonly Instrument[];
  abstract readonly held: Subject<HeldThere>;
  /** Why nothing can come; empty while all is well. */
  abstract readonly trouble: () => string;
  abstract readonly isOn: () => boolean;
  abstract connect(visit: string): void;
  abstract disconnect(): void;
  /** Says something to one instrument, or to all. */
  abstract tell(device: string | null, said: ToDevice): void;
  /** Two instruments the other way round: what was the upper site is the lower. */
  abstract swap(): void;
  abstract forget(device: string): void;
}

const CHECK_MS = 200;
const TROUBLE: Readonly<Record<number, string>> = {
  [LIVE_CLOSED.noSession]: 'Your session has ended: sign in again, then connect the instruments again.',
  [LIVE_CLOSED.notAllowed]: 'Your role does not measure: the lead can change what somebody is.',
  [LIVE_CLOSED.notFound]: 'The server does not know this visit: open it from the caseload again.',
  [LIVE_CLOSED.refused]: 'The server takes no more instruments or screens for this visit. Close one, then connect again.',
};

/** Instruments that are connected to this visit over the server: simulated ones, and phones. */
@Injectable()
export class ServerInstruments extends InstrumentLine {
  private readonly lines = inject(Lines);
  private readonly line = signal<Line<ToBench> | null>(null);
  private readonly list = signal<readonly Instrument[]>([]);
  private readonly now = signal(performance.now());
  private readonly elsewhere = signal(false);
  private listening = new Subscription();

  override readonly held = new Subject<HeldThere>();
  override readonly isOn = computed(() => this.line() !== null);
  override readonly instruments = computed(() => {
    const now = this.now();
    return this.list().map((one) => ({ ...one, isStale: !one.isHere || now - one.at > STALE_SECONDS * 1000 }));
  });
  override readonly trouble = computed(() => {
    const line = this.line();
    if (!line) return '';
    const refused = line.refused();
    if (refused !== null) return TROUBLE[refused] ?? 'The server took no connection.';
    if (this.elsewhere()) return 'The instruments are read at another screen now. Connect again to read them here.';
    return line.isOpen() ? '' : 'No connection to the server: what instruments show is not known. Typed readings are kept.';
  });

  constructor() {
    super();
    interval(CHECK_MS)
      .pipe(takeUntilDestroyed())
      .subscribe(() => {
        if (this.isOn()) this.now.set(performance.now());
      });
    inject(DestroyRef).onDestroy(() => this.disconnect());
  }

  override connect(visit: string): void {
    this.disconnect();
    const line = this.lines.open(() => ({ as: 'bench', visit }), ToBench);
    this.line.set(line);
    this.listening = line.heard.subscribe({ next: (said) => this.hear(said), error: () => this.cut() });
  }

  override disconnect(): void {
    this.listening.unsubscribe();
    this.line.set(null);
    this.list.set([]);
    this.elsewhere.set(false);
  }

  override tell(device: string | null, said: ToDevice): void {
    this.line()?.say({ k: 'tell', device, said });
  }

  override swap(): void {
    this.list.update(([first, second, ...rest]) =>
      first && second ? [second, first, ...rest] : [first, second].flatMap((one) => one ?? []),
    );
  }

  override forget(device: string): void {
    this.list.update((list) => list.filter(({ id }) => id !== device));
  }

  private hear(said: ToBench): void {
    if (said.k === 'elsewhere') return this.elsewhere.set(true);
    if (said.k === 'gone') return this.change(said.device, { isHere: false });
    if (said.k === 'here') {
      const { device: id, kind, name } = said;
      if (this.list().some((one) => one.id === id)) return this.change(id, { isHere: true });
      const fresh = { id, kind, name, shows: null, at: 0, isStale: false, battery: null, quality: null, isHere: true };
      // One that went and came back as another takes the place of the one that is gone.
      return this.list.update((list) => [...list.filter(({ isHere }) => isHere), fresh]);
    }
    this.from(said.device, said.said);
  }

  private from(device: string, said: FromDevice): void {
    if (said.k === 'held') return this.held.next({ device, ...said });
    if (said.k === 'state') return this.change(device, { battery: said.battery, quality: said.quality });
    const now = performance.now();
    this.now.set(now);
    this.change(device, { shows: said.shows, at: now });
  }

  private change(device: string, change: Partial<Instrument>): void {
    this.list.update((list) => list.map((one) => (one.id === device ? { ...one, ...change } : one)));
  }

  private cut(): void {
    this.list.update((list) => list.map((one) => ({ ...one, isHere: false })));
  }
}
