import { HttpBackend, HttpClient } from '@angular/common/http';
import { computed, inject, Injectable, signal, type OnDestroy } from '@angular/core';
import { LIVE_CLOSED, PAIRINGS, ToDevice, type FromDevice, type Shows } from '@dial-gauge/contract';
import {
  follow,
  liveTilt,
  NOTHING_FELT,
  setZero,
  showsOf,
  type Following,
  type GravitySample,
  type Sense,
  type ZeroAt,
} from '@dial-gauge/core';
import { firstValueFrom, Subscription } from 'rxjs';
import { describeFailure, toFailure } from '../data/problem';
import { Lines, type Line } from '../live/line';

interface Paired {
  readonly key: string;
  readonly clinic: string;
}

/** Held here, and not answered yet: kept over a reload, sent until it is, but not for ever. */
interface Waiting {
  readonly at: number;
  readonly said: Extract<FromDevice, { k: 'held' }>;
}

const KEPT = 'dial-gauge.phone';
const AGAIN_MS = 1_000;
/** What was held longer ago is measured again: by then something else may be asked under the same name. */
const HOLD_LASTS = 120_000;
const STATE_MS = 5_000;
/** Longer between two samples, and the signal is poor. */
const POOR_MS = 150;

/** A phone that is an inclinometer: what it feels, what it shows, and what it is told. */
@Injectable()
export class PhoneStore implements OnDestroy {
  // Past what asks somebody of the clinic to sign in again.
  private readonly http = new HttpClient(inject(HttpBackend));
  private readonly lines = inject(Lines);
  private readonly paired = signal<Paired | null>(null);
  private readonly line = signal<Line<ToDevice> | null>(null);
  private readonly following = signal<Following>(NOTHING_FELT);
  private readonly asked = signal<{
    readonly for: string;
    readonly place: string;
    readonly words: string;
    readonly way: Sense | null;
  } | null>(null);
  private readonly waiting = signal<Waiting | null>(null);
  private hearing = new Subscription();
  private slowest = 0;
  private readonly timers = [setInterval(() => this.sendWaiting(), AGAIN_MS), setInterval(() => void this.tellState(), STATE_MS)];

  readonly clinic = computed(() => this.paired()?.clinic ?? '');
  readonly isPaired = computed(() => this.paired() !== null);
  readonly isConnected = computed(() => this.line()?.isOpen() ?? false);
  readonly problem = signal('');
  readonly words = computed(() => this.asked()?.words ?? '');
  readonly tilt = computed(() => liveTilt(this.following(), this.asked()?.way ?? undefined));
  /** Zero was set where another thing was measured: what is shown from there means nothing here. */
  readonly isZeroElsewhere = computed(() => {
    const { zero } = this.following();
    return zero?.at === 'start' && this.asked() !== null && zero.place !== this.asked()!.place;
  });
  /** What was held last, and what became of it. */
  readonly outcome = signal<{ readonly taken: boolean | null; readonly words: string; readonly of: string } | null>(null);

  constructor() {
    const kept = this.read();
    if (kept) this.begin(kept);
  }

  ngOnDestroy(): void {
    for (const timer of this.timers) clearInterval(timer);
    this.hearing.unsubscribe();
  }

  async pair(code: string): Promise<void> {
    this.problem.set('');
    try {
      const answer = PAIRINGS.redeem.answer.parse(await firstValueFrom(this.http.post('/api/phone-pairing', { code })));
      this.begin(answer);
    } catch (error) {
      const failure = toFailure(error);
      this.problem.set(failure.fields[0] ? `The code ${failure.fields[0].message}.` : describeFailure(failure));
    }
  }

  feel(sample: GravitySample): void {
    const last = this.following().recent.at(-1);
    if (last) this.slowest = Math.max(this.slowest, (sample.t - last.t) * 1000);
    this.following.update((before) => follow(before, sample));
    const shows = this.shows();
    if (shows) this.say({ k: 'shows', shows });
  }

  zero(at: ZeroAt = 'start'): void {
    this.following.update((before) => setZero(before, at, this.asked()?.place ?? ''));
    this.outcome.set(null);
  }

  /** Holds what is shown, for what is asked. */
  hold(): void {
    const shows = this.shows();
    if (!shows || shows.zero === null) return this.refuse('Set zero first, at the start of the movement.');
    if (!this.asked()) return this.refuse('Nobody reads this phone yet: open Measure.');
    const held = Math.round((shows.held ?? 0) * (this.asked()!.way ?? shows.way ?? 1)) + 0;
    this.waiting.set({ at: Date.now(), said: { k: 'held', id: crypto.randomUUID(), for: this.asked()!.for, shows } });
    this.keep();
    this.outcome.set({ taken: null, words: `${held}°`, of: this.words() });
    this.sendWaiting();
  }

  private refuse(words: string): void {
    this.outcome.set({ taken: false, words, of: '' });
  }

  /** This phone is no inclinometer any more. */
  letGo(why = ''): void {
    this.hearing.unsubscribe();
    this.line.set(null);
    this.paired.set(null);
    this.waiting.set(null);
    this.following.set(NOTHING_FELT);
    this.asked.set(null);
    this.problem.set(why);
    sessionStorage.removeItem(KEPT);
  }

  private begin(paired: Paired & { readonly waiting?: Waiting | null }): void {
    this.paired.set({ key: paired.key, clinic: paired.clinic });
    this.waiting.set(paired.waiting ?? null);
    this.keep();
    const line = this.lines.open(() => ({ as: 'phone', key: paired.key }), ToDevice);
    this.line.set(line);
    this.hearing.unsubscribe();
    this.hearing = line.heard.subscribe({ next: (said) => this.told(said), error: () => this.ended(line) });
  }

  private ended(line: Line<ToDevice>): void {
    const gone = line.refused() === LIVE_CLOSED.noSession;
    this.letGo(gone ? 'This phone was let go, or it was opened elsewhere. Use a new code.' : 'The server takes this phone no more.');
  }

  private told(said: ToDevice): void {
    if (said.k === 'letGo') return this.letGo('This phone was let go. Use a new code to go on.');
    if (said.k === 'zero') return this.zero(said.at);
    if (said.k === 'asks') {
      this.asked.set(said);
      return this.sendWaiting();
    }
    if (this.waiting()?.said.id !== said.id) return;
    this.waiting.set(null);
    this.keep();
    this.outcome.update((outcome) => ({ taken: said.taken, words: said.words, of: outcome?.of ?? '' }));
    navigator.vibrate?.(said.taken ? 60 : [40, 60, 40, 60, 40]);
  }

  private shows(): Shows | null {
    return showsOf(this.following());
  }

  private sendWaiting(): void {
    const waiting = this.waiting();
    if (!waiting) return;
    if (Date.now() - waiting.at < HOLD_LASTS) return this.say(waiting.said);
    this.waiting.set(null);
    this.keep();
    this.refuse('What was held reached nobody for too long: measure it again.');
  }

  private async tellState(): Promise<void> {
    const { getBattery } = navigator as { getBattery?: () => Promise<{ level: number }> };
    const battery = await getBattery?.call(navigator).then(
      ({ level }) => level,
      () => null,
    );
    this.say({ k: 'state', battery: battery ?? null, quality: this.slowest > POOR_MS ? 'poor' : 'good' });
    this.slowest = 0;
  }

  private say(said: FromDevice): void {
    this.line()?.say(said);
  }

  private keep(): void {
    sessionStorage.setItem(KEPT, JSON.stringify({ ...this.paired(), waiting: this.waiting() }));
  }

  private read(): (Paired & { waiting: Waiting | null }) | null {
    try {
      const kept = JSON.parse(sessionStorage.getItem(KEPT) ?? 'null') as (Paired & { waiting: Waiting | null }) | null;
      return typeof kept?.key === 'string' ? { ...kept, waiting: kept.waiting?.said ? kept.waiting : null } : null;
    } catch {
      return null;
    }
  }
}
