import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { PAST, PATIENTS, type NewPast, type PastChoices } from '@dial-gauge/contract';
import {
  allowedSides,
  DATE_ORDERS,
  dayOrders,
  dayWords,
  guessColumns,
  INSTRUMENTS,
  instrumentWord,
  MOTIONS,
  PAST_ROLES,
  readPast,
  motion,
  type PastColumn,
  type PastOptions,
  type PastRole,
} from '@dial-gauge/core';
import { forkJoin } from 'rxjs';
import { episodeWords, fullName, personWords, today } from '../caseload/words';
import { Api } from '../data/api';
import { Drafts } from '../data/drafts';
import { describeFailure, toFailure } from '../data/problem';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { base64Of } from '../ui/hand-over';
import { ColumnChoice } from './column-choice';

/** What is being brought in, as it is kept over a reload. */
interface Work {
  readonly fileName: string;
  readonly rows: string[][];
  readonly choices: PastOptions;
}
const isWork = (value: unknown): value is Work =>
  typeof value === 'object' && value !== null && Array.isArray((value as Work).rows) && Array.isArray((value as Work).choices?.columns);

const ORDER_WORDS = {
  'day-month-year': 'day, month, year',
  'month-day-year': 'month, day, year',
  'year-month-day': 'year, month, day',
} as const;

/** Old readings from a list: columns matched by guess and by hand, every refused cell with its reason, all or nothing, undone as a whole. */
@Component({
  selector: 'dg-past',
  imports: [ColumnChoice, Frame, MatButtonModule, Pending, RouterLink],
  templateUrl: './past.html',
  styleUrl: './past.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PastPage {
  private readonly api = inject(Api);
  private readonly drafts = inject(Drafts);
  /** The patient. */
  readonly id = input.required<string>();
  readonly episodeId = input.required<string>();
  protected readonly words = { dayWords, episodeWords, fullName, instrumentWord, personWords };
  protected readonly roles = PAST_ROLES;
  protected readonly orders = DATE_ORDERS.map((id) => ({ id, words: ORDER_WORDS[id] }));
  protected readonly instruments = INSTRUMENTS.filter((one) => one !== 'dualInclinometer');
  protected readonly motions = MOTIONS;
  protected readonly sidesOf = (id: string) => allowedSides(motion(id as (typeof MOTIONS)[number]['id']));

  protected readonly loaded = rxResource({
    params: () => ({ id: this.id(), episodeId: this.episodeId() }),
    stream: ({ params: { id, episodeId } }) =>
      forkJoin({ record: this.api.call(PATIENTS.patient, { id }), past: this.api.call(PAST.past, { id: episodeId }) }),
  });
  protected readonly view = computed(() => (this.loaded.hasValue() ? this.loaded.value() : undefined));
  protected readonly episode = computed(() => this.view()?.record.episodes.find(({ id }) => id === this.episodeId()));
  protected readonly batches = linkedSignal(() => this.view()?.past.batches ?? []);

  protected readonly work = linkedSignal(() => this.drafts.read(this.draftName(), isWork));
  protected readonly busy = signal(false);
  protected readonly problem = signal('');
  protected readonly done = signal('');

  protected readonly reading = computed(() => {
    const work = this.work();
    const view = this.view();
    return work && view ? readPast(work.rows, work.choices, { birthDate: view.record.patient.birthDate, today: today() }) : null;
  });
  /** Orders that the days can have: more than one has to be said. */
  protected readonly fits = computed(() => {
    const work = this.work();
    return work ? dayOrders(work.rows, work.choices.columns) : [];
  });
  protected readonly hasMinus = computed(() => (this.reading()?.asksMinus ?? false) || (this.work()?.choices.minus ?? null) !== null);
  protected readonly refusedLines = computed(() =>
    [...new Set(this.reading()?.refused.map(({ line }) => line) ?? [])].filter((line) => line > 1),
  );
  protected readonly shown = computed(() => this.reading()?.refused.slice(0, 50) ?? []);
  protected readonly summary = computed(() =>
    (this.reading()?.sessions ?? []).map(({ assessedOn, measurements }) => ({
      on: assessedOn,
      count: measurements.reduce((sum, { trials }) => sum + trials.length, 0),
      motions: [...new Set(measurements.map((one) => motion(one.motion).name))].join(', '),
    })),
  );

  protected async choose(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    if (!file) return;
    const base64 = await base64Of(file);
    field.value = '';
    this.readSheet(file.name, base64);
  }

  /** A table copied out of a spreadsheet comes as text with tabs. */
  protected async paste(text: string): Promise<void> {
    if (text.trim() === '') return this.problem.set('Paste a table first: a row of headings, and rows of readings.');
    this.readSheet('pasted table', await base64Of(new Blob([text])));
  }

  private readSheet(fileName: string, base64: string): void {
    this.problem.set('');
    this.done.set('');
    this.busy.set(true);
    this.api.call(PAST.readSheet, { body: { fileName, base64 } }).subscribe({
      next: ({ rows }) => {
        const columns = guessColumns(rows);
        const [dateOrder = 'day-month-year'] = dayOrders(rows, columns);
        this.keep({ fileName, rows, choices: { columns, dateOrder, minus: null, mode: null, instrument: null, without: [] } });
      },
      error: (error: unknown) => this.fail(error),
      complete: () => this.busy.set(false),
    });
  }

  protected setColumn(at: number, column: PastColumn): void {
    const work = this.work()!;
    const one = (role: PastRole) => role !== 'reading' && role !== 'ignore';
    // There is one day, one side and so on: what held it before is let go.
    const columns = work.choices.columns.map((other, index) =>
      index === at ? column : one(column.role) && other.role === column.role ? { role: 'ignore' as const } : other,
    );
    this.set({ columns });
  }

  protected set(part: Partial<PastOptions>): void {
    const work = this.work()!;
    this.keep({ ...work, choices: { ...work.choices, ...part } });
  }

  protected leaveOut(lines: readonly number[]): void {
    this.set({ without: [...new Set([...this.work()!.choices.without, ...lines])].sort((a, b) => a - b) });
  }

  protected bringIn(): void {
    const { fileName, rows, choices } = this.work()!;
    const body: NewPast = { id: crypto.randomUUID(), fileName, rows, choices: choices as PastChoices };
    this.problem.set('');
    this.busy.set(true);
    this.api.call(PAST.bringIn, { id: this.episodeId(), body }).subscribe({
      next: ({ batches }) => {
        this.batches.set(batches);
        this.done.set(`${batches.at(-1)?.readings ?? 0} readings were brought in from ${fileName}.`);
        this.keep(null);
      },
      error: (error: unknown) => this.fail(error),
      complete: () => this.busy.set(false),
    });
  }

  protected undo(id: string): void {
    this.problem.set('');
    this.busy.set(true);
    this.api.call(PAST.undoPast, { id, body: {} }).subscribe({
      next: ({ batches }) => {
        this.batches.set(batches);
        this.done.set('All of it was undone.');
      },
      error: (error: unknown) => this.fail(error),
      complete: () => this.busy.set(false),
    });
  }

  protected keep(work: Work | null): void {
    this.work.set(work);
    if (work) this.drafts.keep(this.draftName(), work);
    else this.drafts.drop(this.draftName());
  }

  private draftName(): string {
    return `past.${this.episodeId()}`;
  }

  private fail(error: unknown): void {
    this.problem.set(describeFailure(toFailure(error)));
    this.busy.set(false);
  }
}
