import { HttpBackend, HttpClient } from '@angular/common/http';
import { computed, inject, Injectable, signal, type OnDestroy } from '@angular/core';
import { OwnPage, PATIENT_PAGES, type DayLog } from '@dial-gauge/contract';
import { firstValueFrom } from 'rxjs';
import { describeFailure, toFailure } from '../data/problem';

/** What a device keeps of a page: its key, what it showed last, and what waits to be sent. */
interface Kept {
  readonly key: string;
  readonly page: OwnPage | null;
  readonly waiting: readonly DayLog[];
}
const NOTHING: Kept = { key: '', page: null, waiting: [] };
const PREFIX = 'dial-gauge.own.';
/** How often what waits is tried again. */
const AGAIN_MS = 20_000;

/**
 * The person's own page on their own device. It shows what it showed last
 * before anything is asked, and keeps what is logged until the server has it:
 * every day carries an id, so that sending it twice logs it once.
 */
@Injectable()
export class OwnStore implements OnDestroy {
  // Past what asks somebody of the clinic to sign in again.
  private readonly http = new HttpClient(inject(HttpBackend));
  private token = '';
  private readonly kept = signal<Kept>(NOTHING);
  private sending: Promise<void> | null = null;
  readonly page = computed(() => this.kept().page);
  readonly isOpen = computed(() => this.kept().key !== '');
  readonly waiting = computed(() => this.kept().waiting.length);
  /** Why it could not be opened, shown or sent. */
  readonly problem = signal('');
  /** The page was closed, or its time is over. */
  readonly isClosed = signal(false);
  readonly lasts = signal(true);

  constructor() {
    const again = () => void this.sendAndLook();
    addEventListener('online', again);
    const timer = setInterval(() => this.waiting() > 0 && again(), AGAIN_MS);
    this.stop = () => {
      removeEventListener('online', again);
      clearInterval(timer);
    };
  }

  private readonly stop: () => void;

  ngOnDestroy(): void {
    this.stop();
  }

  /** What this device keeps for a link; then what the server says. */
  async use(token: string): Promise<void> {
    this.token = token;
    this.kept.set(this.read());
    if (!this.isOpen()) return;
    await this.send();
    await this.load();
  }

  async open(code: string): Promise<void> {
    this.problem.set('');
    try {
      const answer = await this.post(PATIENT_PAGES.openPage.path, { token: this.token, code });
      const { key } = PATIENT_PAGES.openPage.answer.parse(answer);
      this.keep({ ...this.kept(), key });
      this.isClosed.set(false);
      await this.load();
    } catch (error) {
      this.problem.set(describeFailure(toFailure(error)));
    }
  }

  /** Keeps a day and sends it as soon as can be. */
  async log(day: DayLog): Promise<void> {
    this.keep({ ...this.kept(), waiting: [...this.kept().waiting.filter(({ on }) => on !== day.on), day] });
    await this.sendAndLook();
  }

  /** Sends what waits; once the server has it, the page shows what follows from it. */
  private async sendAndLook(): Promise<void> {
    const before = this.waiting();
    await this.send();
    if (before > 0 && this.waiting() === 0) await this.load();
  }

  /** Forgets the page on this device. */
  forget(): void {
    localStorage.removeItem(PREFIX + this.token);
    this.kept.set(NOTHING);
  }

  /** One after the other; two tabs may send the same, and it is logged once. */
  private send(): Promise<void> {
    this.sending ??= this.sendAll().finally(() => (this.sending = null));
    return this.sending;
  }

  private async sendAll(): Promise<void> {
    for (let [day] = this.kept().waiting; day; [day] = this.kept().waiting) {
      const { id } = day;
      try {
        await this.post(PATIENT_PAGES.logDay.path, { key: this.kept().key, day });
        this.problem.set('');
      } catch (error) {
        const failure = toFailure(error);
        this.problem.set(failure.status === 0 ? '' : describeFailure(failure));
        if (failure.status === 401) this.isClosed.set(true);
        // What the server will never take does not keep the rest from being sent.
        if (failure.passing || failure.status === 0) return;
      }
      this.keep({ ...this.kept(), waiting: this.kept().waiting.filter((one) => one.id !== id) });
    }
  }

  private async load(): Promise<void> {
    try {
      const answer = await this.post(PATIENT_PAGES.ownPage.path, { key: this.kept().key, locale: navigator.language });
      this.keep({ ...this.kept(), page: OwnPage.parse(answer) });
      this.isClosed.set(false);
    } catch (error) {
      const failure = toFailure(error);
      if (failure.status === 401) this.isClosed.set(true);
      if (failure.status !== 0) this.problem.set(describeFailure(failure));
    }
  }

  private post(path: string, body: object): Promise<unknown> {
    return firstValueFrom(this.http.post(`/api${path}`, body));
  }

  private read(): Kept {
    try {
      const kept = JSON.parse(localStorage.getItem(PREFIX + this.token) ?? 'null') as Partial<Kept> | null;
      if (!kept || typeof kept.key !== 'string') return NOTHING;
      const page = OwnPage.safeParse(kept.page);
      return { key: kept.key, page: page.success ? page.data : null, waiting: Array.isArray(kept.waiting) ? kept.waiting : [] };
    } catch {
      return NOTHING;
    }
  }

  private keep(kept: Kept): void {
    this.kept.set(kept);
    try {
      localStorage.setItem(PREFIX + this.token, JSON.stringify({ ...kept, page: kept.page && withoutPictures(kept.page) }));
      this.lasts.set(true);
    } catch {
      this.lasts.set(false);
    }
  }
}

/** Photographs are not kept on the device: they are many times what a browser keeps, and come again with the page. */
const withoutPictures = (page: OwnPage): OwnPage => ({
  ...page,
  clips: page.clips.map((clip) => ({ ...clip, blocks: clip.blocks.filter(({ kind }) => kind !== 'picture') })),
});
