import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import type { DayLog } from '@dial-gauge/contract';
import { dayWords } from '@dial-gauge/core';
import { PageBlocks } from '../ui/page-blocks';
import { PoseFigure } from '../ui/pose-figure';
import { OwnStore } from './own-store';

/** A day as it is being filled in. What is null was not said. */
type Form = Omit<DayLog, 'id' | 'on'>;
const EMPTY: Form = { done: [], easy: null, pain: null, swelling: null, worse: null, note: '' };

const QUESTIONS: readonly { readonly field: 'easy' | 'swelling' | 'worse'; readonly asks: string }[] = [
  { field: 'easy', asks: 'Was it easy?' },
  { field: 'swelling', asks: 'Is it more swollen than the day before?' },
  { field: 'worse', asks: 'Is it worse than before?' },
];

/** The person's own page: today's drills to tick, three questions, and what is better. Made for a thumb. */
@Component({
  selector: 'dg-own-page',
  imports: [PageBlocks, PoseFigure],
  templateUrl: './own-page.html',
  styleUrl: './own-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [OwnStore],
})
export class OwnPagePage {
  protected readonly store = inject(OwnStore);
  /** What the link carries. */
  readonly token = input.required<string>();
  protected readonly questions = QUESTIONS;
  protected readonly tenths = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];
  protected readonly dayWords = dayWords;
  protected readonly today = signal(dayOf(new Date()));
  protected readonly weekday = computed(() =>
    new Intl.DateTimeFormat(navigator.language, { weekday: 'long' }).format(new Date(`${this.today()}T12:00:00`)),
  );
  protected readonly busy = signal(false);

  /** As it was logged, or as it was left; nothing typed is lost by a reload. */
  protected readonly form = linkedSignal<string, Form>({
    source: () => `${this.token()} ${this.today()}`,
    computation: () => this.unsaved() ?? untracked(() => this.logged()) ?? EMPTY,
  });
  protected readonly logged = computed(() => this.store.page()?.logged.find(({ on }) => on === this.today()));
  protected readonly before = computed(() => this.store.page()?.logged.filter(({ on }) => on !== this.today()) ?? []);
  protected readonly isChanged = signal(false);
  protected readonly state = computed(() => {
    if (this.store.waiting() > 0)
      return this.store.isClosed() ? 'kept on this device' : 'kept on this device, sent when there is a network';
    if (this.isChanged()) return '';
    return this.logged() ? 'saved' : '';
  });

  constructor() {
    effect(() => {
      const token = this.token();
      untracked(() => void this.store.use(token).then(() => this.takeLogged()));
    });
    const look = () => this.today.set(dayOf(new Date()));
    document.addEventListener('visibilitychange', look);
    inject(DestroyRef).onDestroy(() => document.removeEventListener('visibilitychange', look));
    void keepAtHand();
  }

  protected async open(code: string): Promise<void> {
    this.busy.set(true);
    await this.store.open(code);
    this.takeLogged();
    this.busy.set(false);
  }

  protected isDone(given: string): boolean {
    return this.form().done.includes(given);
  }

  protected tick(given: string): void {
    const { done } = this.form();
    this.change({ done: done.includes(given) ? done.filter((one) => one !== given) : [...done, given] });
  }

  /** The same answer again takes it back. */
  protected answer(field: 'easy' | 'swelling' | 'worse', value: boolean): void {
    this.change({ [field]: this.form()[field] === value ? null : value });
  }

  protected hurts(pain: number): void {
    this.change({ pain: this.form().pain === pain ? null : pain });
  }

  protected change(part: Partial<Form>): void {
    this.form.update((form) => ({ ...form, ...part }));
    this.isChanged.set(true);
    try {
      localStorage.setItem(this.draftKey(), JSON.stringify(this.form()));
    } catch {
      this.store.lasts.set(false);
    }
  }

  protected async save(): Promise<void> {
    this.busy.set(true);
    await this.store.log({ id: crypto.randomUUID(), on: this.today(), ...this.form() });
    localStorage.removeItem(this.draftKey());
    this.isChanged.set(false);
    this.busy.set(false);
  }

  protected forget(): void {
    localStorage.removeItem(this.draftKey());
    this.store.forget();
  }

  protected said({ done, easy, pain, swelling, worse, note }: DayLog): string {
    return [
      done.length === 0 ? 'none done' : `${done.length} done`,
      easy === null ? '' : easy ? 'easy' : 'not easy',
      pain === null ? '' : `pain ${pain}`,
      swelling === null ? '' : swelling ? 'more swollen' : 'no more swelling',
      worse ? 'worse' : '',
      note,
    ]
      .filter(Boolean)
      .join(', ');
  }

  /** What the server knows of today is shown where nothing else was begun. */
  private takeLogged(): void {
    const logged = this.logged();
    if (!logged || this.unsaved()) return;
    const { done, easy, pain, swelling, worse, note } = logged;
    this.form.set({ done, easy, pain, swelling, worse, note });
  }

  private draftKey(): string {
    return `dial-gauge.own-day.${this.token()}.${this.today()}`;
  }

  private unsaved(): Form | null {
    try {
      const kept = JSON.parse(localStorage.getItem(this.draftKey()) ?? 'null') as Partial<Form> | null;
      if (!kept || !Array.isArray(kept.done)) return null;
      return { ...EMPTY, ...kept };
    } catch {
      return null;
    }
  }
}

const dayOf = (date: Date): string =>
  [date.getFullYear(), String(date.getMonth() + 1).padStart(2, '0'), String(date.getDate()).padStart(2, '0')].join('-');

/** Once opened, the page opens without a network: its files are kept by a worker that sees this page alone. */
async function keepAtHand(): Promise<void> {
  if (!('serviceWorker' in navigator) || !location.pathname.startsWith('/p/')) return;
  try {
    const registration = await navigator.serviceWorker.register('/page-worker.js', { scope: '/p/' });
    await navigator.serviceWorker.ready;
    const files = performance
      .getEntriesByType('resource')
      .map(({ name }) => new URL(name))
      .filter(({ origin, pathname }) => origin === location.origin && !pathname.startsWith('/api/'))
      .map(({ pathname }) => pathname);
    registration.active?.postMessage({ files: [...new Set(files)] });
  } catch {
    // Without it the page works as long as there is a network.
  }
}
