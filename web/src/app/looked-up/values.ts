import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  Injector,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { KeyValuePipe } from '@angular/common';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { NewValueCheck, ValueCheckView } from '@dial-gauge/contract';
import {
  checkOf,
  correctionProblems,
  FIGURE_WORDS,
  figuresWords,
  lookedUpWords,
  motion,
  suffixOf,
  VALUE_TABLES,
  valuesOf,
  type Figures,
  type PrintedValue,
  type Unit,
  type ValueKind,
} from '@dial-gauge/core';
import { ClinicNorms } from '../data/clinic-norms';
import { May } from '../data/may';
import { toFailure, type Failure } from '../data/problem';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { Said } from '../ui/said';

interface Row {
  readonly value: PrintedValue;
  readonly name: string;
  /** What the program holds. */
  readonly printed: string;
  readonly check: ValueCheckView | null;
  /** What the clinic found in its place. */
  readonly corrected: string;
  readonly found: string;
}

/** The values of a norm set, of the published errors or of a procedure, to be held against the source one by one. */
@Component({
  selector: 'dg-values',
  imports: [Frame, KeyValuePipe, MatButtonModule, MatCheckboxModule, MatFormFieldModule, MatInputModule, Pending, Said],
  templateUrl: './values.html',
  styleUrl: './values.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ValuesPage {
  private readonly norms = inject(ClinicNorms);
  private readonly may = inject(May);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly injector = inject(Injector);
  readonly kind = input.required<string>();
  readonly of = input.required<string>();

  protected readonly first = rxResource({ stream: () => this.norms.load() });
  protected readonly table = computed(() => VALUE_TABLES.find(({ kind, of }) => kind === this.kind() && of === this.of()));
  protected readonly mayCheck = computed(() => this.may.why('settle') === '');
  /** Where it stands, for the values that are ticked next. */
  protected readonly source = linkedSignal(() => this.table()?.cite ?? '');
  protected readonly edition = signal('');
  protected readonly page = signal('');
  protected readonly onlyOpen = signal(false);
  protected readonly correcting = signal<string | null>(null);
  protected readonly figures = signal<Readonly<Record<string, string>>>({});
  protected readonly done = signal('');
  protected readonly refusal = signal<Failure | null>(null);
  protected readonly busy = signal(false);
  protected readonly figureWords = FIGURE_WORDS;

  private readonly checks = computed(() => this.norms.current()?.valueChecks ?? []);
  protected readonly isLoaded = computed(() => this.norms.current() !== null);
  protected readonly rows = computed((): readonly Row[] =>
    (valuesOf(this.kind() as ValueKind, this.of()) ?? []).map((value) => {
      const check = checkOf(this.checks(), value) as ValueCheckView | null;
      return {
        value,
        name: motion(value.motion).name,
        printed: figuresWords(value.figures, value.allowed) || 'no figure',
        check,
        corrected: check?.corrected ? figuresWords(check.corrected, value.allowed) : '',
        // The source itself stands above, where it is the one of the table.
        found: check ? lookedUpWords(check.source === this.table()?.cite ? { ...check, source: '' } : check) : '',
      };
    }),
  );
  protected readonly shown = computed(() => (this.onlyOpen() ? this.rows().filter(({ check }) => !check) : this.rows()));
  protected readonly checked = computed(() => this.rows().filter(({ check }) => check).length);

  protected asPrinted(row: Row): void {
    this.send(row, null, `${row.name}: as the source prints it.`);
  }

  protected correct(row: Row): void {
    const from = row.check?.corrected ?? row.value.figures;
    this.figures.set(Object.fromEntries(Object.entries(from).map(([name, figure]) => [name, String(figure)])));
    this.correcting.set(row.value.key);
    this.focus(`[data-figure]`);
  }

  protected setFigure(name: string, text: string): void {
    this.figures.update((figures) => ({ ...figures, [name]: text }));
  }

  protected leave(row: Row): void {
    this.correcting.set(null);
    this.focus(`[data-key="${CSS.escape(row.value.key)}"] button`);
  }

  protected keepCorrection(row: Row): void {
    const typed = Object.entries(this.figures()).map(
      ([name, text]) => [name, Number(text.trim().replace(',', '.').replace('−', '-')), text] as const,
    );
    const unread = typed.find(([, figure, text]) => text.trim() === '' || Number.isNaN(figure));
    if (unread) return this.refuse(FIGURE_WORDS[unread[0]]!, `"${unread[2]}" is no number; allowed: as 12.5`);
    const corrected: Figures = Object.fromEntries(typed.map(([name, figure]) => [name, figure]));
    const [wrong] = correctionProblems(row.value, corrected);
    if (wrong) return this.refuse(FIGURE_WORDS[wrong.figure] ?? wrong.figure, wrong.message);
    this.send(row, corrected, `${row.name}: corrected. It is judged by from here on; what was signed before stays as it is.`);
  }

  protected takeBack(row: Row): void {
    if (!row.check) return;
    const { source, edition, page } = row.check;
    this.run(
      row,
      { ...this.about(row), corrected: row.check.corrected, source, edition, page, withdrawn: true },
      `${row.name}: not checked any more.`,
    );
  }

  protected unitOf(row: Row, name: string): string {
    const unit = row.value.allowed[name]?.unit;
    return unit === 'weeks' ? '' : suffixOf(unit as Unit).trim();
  }

  private about({ value: { kind, of, key } }: Row): Pick<NewValueCheck, 'id' | 'kind' | 'of' | 'key' | 'follows'> {
    // Also one that stands for another figure of the program, or was taken back, is what this one comes after.
    const stands = this.checks().find((one) => one.kind === kind && one.of === of && one.key === key);
    return { id: crypto.randomUUID(), kind, of, key, follows: stands?.id ?? null };
  }

  private send(row: Row, corrected: Figures | null, words: string): void {
    const [source, edition, page] = [this.source().trim(), this.edition().trim(), this.page().trim()];
    if (source === '') return this.refuse('Source', 'is empty; allowed: the work in which you looked');
    if (page === '') return this.refuse('Page or table', 'is empty; allowed: where in the source it stands, as “p. 41” or “table 2”');
    this.run(row, { ...this.about(row), corrected, source, edition, page }, words);
  }

  private run(row: Row, check: NewValueCheck, words: string): void {
    if (this.busy()) return;
    this.busy.set(true);
    this.refusal.set(null);
    const at = this.shown().indexOf(row);
    const next = this.shown().find(({ check: other }, index) => index > at && !other)?.value.key ?? row.value.key;
    this.norms.lookUp([check]).subscribe({
      next: () => {
        this.busy.set(false);
        this.correcting.set(null);
        this.done.set(words);
        this.focus(`[data-key="${CSS.escape(next)}"] button`);
      },
      error: (error: unknown) => {
        this.busy.set(false);
        this.refusal.set(toFailure(error));
      },
    });
  }

  private refuse(field: string, message: string): void {
    this.done.set('');
    this.refusal.set({ ...toFailure(null), message: 'This was not written.', fields: [{ path: field, message }] });
  }

  private focus(selector: string): void {
    afterNextRender(() => this.host.querySelector<HTMLElement>(selector)?.focus(), { injector: this.injector });
  }
}
