import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { liveInstrument, readLive, type LiveSite, type ReadAtDial, type Sense, type ZeroAt } from '@dial-gauge/core';
import { Subject } from 'rxjs';
import { Drafts } from '../../data/drafts';
import { InstrumentLine, type HeldThere, type Instrument } from '../../live/instruments';
import { ExamRecord } from '../record/exam-record';
import { valueOf, type ReadingSource } from './source';

/** What is chosen for live readings: kept for the visit on this device, so that it is there after a reload. */
interface LiveChoices {
  readonly on: boolean;
  /** A hold by itself once it is still for so many seconds; 0: by hand. */
  readonly holdAfter: number;
  readonly peak: boolean;
}

export const HOLD_AFTER = [0, 1, 2, 3] as const;
const USUAL: LiveChoices = { on: false, holdAfter: 0, peak: false };
const isChoices = (value: unknown): value is LiveChoices => typeof value === 'object' && value !== null && 'holdAfter' in value;
/** A limb that has not left its start is not held by itself. */
const MOVED = 5;

/** Instruments that are connected: the needle moves with the limb, and a hold takes where it stands. */
@Injectable()
export class LiveSource implements ReadingSource {
  private readonly record = inject(ExamRecord);
  private readonly line = inject(InstrumentLine);
  private readonly drafts = inject(Drafts);

  readonly choices = signal<LiveChoices>(USUAL);
  /** Held at an instrument: what it showed then counts, not what it shows when that arrives. */
  private readonly pinned = signal<HeldThere | null>(null);
  private readonly senses = signal<ReadonlyMap<string, Sense>>(new Map());
  private readonly place = computed(() => `${this.record.row().protocol}|${this.record.place().side}`);
  /** Ready for the next hold by itself: it has moved since the last. */
  private armed = false;
  /** A hold that came from an instrument, or by itself: the exam takes it. */
  readonly asks = new Subject<HeldThere | null>();

  readonly isOn = this.line.isOn;
  readonly instruments = this.line.instruments;
  readonly trouble = this.line.trouble;
  /** Who is there: what they show changes many times a second, and this does not. */
  private readonly present = computed(() =>
    this.instruments()
      .filter(({ isHere }) => isHere)
      .map(({ id }) => id)
      .join(),
  );
  /** Both, where the measurement is read at two sites. */
  readonly used = computed((): readonly Instrument[] => {
    const found = liveInstrument(this.record.protocol(), this.sites());
    return this.instruments().slice(0, found === 'dualInclinometer' ? 2 : 1);
  });
  private readonly sites = computed((): readonly LiveSite[] =>
    this.instruments().map(({ id, name, kind, shows, isStale }) => {
      const pinned = this.pinned();
      return pinned?.device === id ? { name, kind, shows: pinned.shows, isStale: false } : { name, kind, shows, isStale };
    }),
  );

  readonly told = computed(() => this.senses().get(this.place()) ?? null);
  readonly offer = computed((): ReadAtDial => {
    const trouble = this.trouble();
    if (trouble && !this.pinned()) return { ok: false, message: trouble };
    return readLive(this.record.protocol(), this.sites(), { told: this.told(), peak: this.choices().peak, place: this.place() });
  });
  readonly value = computed(() => valueOf(this.offer(), this.record.protocol()));
  readonly instrument = computed(() => {
    const found = liveInstrument(this.record.protocol(), this.sites());
    return typeof found === 'string' ? found : null;
  });
  /** Whether this measurement can be read by what is connected. */
  readonly suits = computed(() => this.instrument() !== null);
  readonly id = computed(() => this.pinned()?.id ?? null);

  constructor() {
    this.line.held.subscribe((held) => this.asks.next(held));
    effect(() => {
      // Whatever the exam comes to is asked for, so that a hold says for what it was.
      const visit = this.record.visit();
      if (!visit || !this.isOn() || this.present() === '') return;
      const words = this.record.nameOf(this.record.row(), this.record.place().side);
      this.line.tell(null, { k: 'asks', for: this.record.key(), place: this.place(), words, way: this.told() });
    });
    effect(() => {
      const { holdAfter } = this.choices();
      if (holdAfter === 0 || !this.record.visit()) return;
      const [first] = this.used();
      const value = this.value();
      if (!first?.shows) return;
      untracked(() => this.byItself(first.shows!.still, value, holdAfter));
    });
  }

  /** As it was left on this device. */
  open(visit: string): void {
    this.choices.set(this.drafts.read(`live.${visit}`, isChoices) ?? USUAL);
    if (this.choices().on) this.line.connect(visit);
    else this.line.disconnect();
  }

  connect(): void {
    this.change({ on: true });
    this.line.connect(this.record.visit()!.visit.id);
  }

  disconnect(): void {
    this.change({ on: false });
    this.line.disconnect();
  }

  change(change: Partial<LiveChoices>): void {
    this.choices.update((choices) => ({ ...choices, ...change }));
    this.drafts.keep(`live.${this.record.visit()!.visit.id}`, this.choices());
  }

  /** Sets zero at every instrument that reads this measurement. */
  zero(at: ZeroAt): void {
    for (const { id } of this.used()) this.line.tell(id, { k: 'zero', at });
    this.armed = false;
  }

  /** The other way round than it went, or than it was told. */
  flip(): void {
    const way = this.told() ?? this.used()[0]?.shows?.way ?? 1;
    this.senses.update((senses) => new Map(senses).set(this.place(), way === 1 ? -1 : 1));
  }

  swap(): void {
    this.line.swap();
  }

  letGo(device: string): void {
    this.line.tell(device, { k: 'letGo' });
    this.line.forget(device);
  }

  held(): void {
    this.armed = false;
  }

  /** What became of a hold that an instrument asked for. */
  answer(held: HeldThere, taken: boolean, words: string): void {
    this.line.tell(held.device, { k: 'answer', id: held.id, taken, words: words.slice(0, 200) });
  }

  /** Offers what an instrument showed when it was held there, while it is being taken. */
  pin<T>(held: HeldThere | null, take: () => T): T {
    this.pinned.set(held);
    try {
      return take();
    } finally {
      this.pinned.set(null);
    }
  }

  private byItself(still: number, value: number | null, after: number): void {
    if (still < 0.3) this.armed = true;
    if (!this.armed || value === null || Math.abs(value) < MOVED || still < after) return;
    this.armed = false;
    this.asks.next(null);
  }
}
