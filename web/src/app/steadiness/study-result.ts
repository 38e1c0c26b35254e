import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, input, linkedSignal, output, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { MatRadioModule } from '@angular/material/radio';
import type { Adoption, StudyView } from '@dial-gauge/contract';
import {
  type BootstrapResult,
  dayWords,
  errorOf,
  errorSourceWords,
  formatFixed,
  formatNumber,
  ICC_FORMS,
  ICC_WORDS,
  iccWord,
  limitsOfAgreement,
  mdc95,
  motion,
  type OwnError,
  reliability,
  type Reliability,
  StudyError,
  suffixOf,
} from '@dial-gauge/core';
import type { Subscription } from 'rxjs';

import { AgreementPlot, withInterval, type PlotModel } from './agreement-plot';
import { Bootstrapping } from './bootstrapping';
import { raterWords, studyWay } from './words';
import { IfMay } from '../ui/may.directive';

/** How often the people are drawn anew, and from which seed, so that the result can be had again. */
const RESAMPLES = 10_000;
const SEED = 1979;
/** Below so many the interval says more than the figure. @see common practice, no source */
const FEW = 30;
const two = (value: number): string => formatFixed(value, 2);

/** What a study comes to: six coefficients, the error of one reading, limits of agreement; and whether the clinic judges by it. */
@Component({
  selector: 'dg-study-result',
  imports: [AgreementPlot, FormsModule, MatButtonModule, MatProgressBarModule, MatRadioModule, IfMay],
  templateUrl: './study-result.html',
  styleUrl: './study-result.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StudyResult {
  private readonly bootstrapping = inject(Bootstrapping);
  private readonly gone = inject(DestroyRef);
  readonly study = input.required<StudyView>();
  /** Errors of the clinic that are in use. */
  readonly ownErrors = input.required<readonly OwnError[]>();
  readonly adopt = output<Adoption['basis']>();
  readonly leave = output();
  private readonly studyId = computed(() => this.study().id);
  protected readonly few = FEW;
  protected readonly resamples = RESAMPLES;
  protected readonly day = dayWords;
  protected readonly basis = linkedSignal<StudyView, Adoption['basis']>({
    source: this.study,
    computation: (study) => study.adopted?.basis ?? 'agreement',
  });

  private readonly table = computed(() => this.study().table ?? []);
  protected readonly counted = computed((): { readonly is: Reliability } | { readonly why: string } => {
    try {
      return { is: reliability(this.table()) };
    } catch (error) {
      if (error instanceof StudyError) return { why: error.message };
      throw error;
    }
  });
  protected readonly result = computed(() => {
    const counted = this.counted();
    return 'is' in counted ? counted.is : null;
  });
  protected readonly why = computed(() => {
    const counted = this.counted();
    return 'why' in counted ? counted.why : '';
  });

  private readonly unit = computed(() => motion(this.study().motion).unit);
  protected readonly suffix = computed(() => suffixOf(this.unit()));
  protected readonly way = computed(() => studyWay(this.study()));
  /** To a tenth: finer than one reading, as a mean over many is. */
  protected readonly size = (value: number): string => `${formatNumber(value)}${this.suffix()}`;
  protected readonly forms = computed(() => {
    const result = this.result();
    const drawn = this.drawn();
    if (!result) return [];
    return ICC_FORMS.map((form) => {
      const icc = result.icc[form];
      return {
        form,
        words: ICC_WORDS[form],
        value: two(icc.value),
        interval: `${two(icc.low)} to ${two(icc.high)}`,
        word: iccWord(icc),
        drawn: drawn ? `${two(drawn.intervals[form].low)} to ${two(drawn.intervals[form].high)}` : '',
      };
    });
  });
  /** What a change counts from now, and what it would count from. */
  protected readonly inUse = computed(() => {
    const { motion: id, instrument, protocol, kind } = this.study();
    const all = this.table().flat();
    const value = all.reduce((sum, reading) => sum + reading, 0) / Math.max(1, all.length);
    const error = errorOf({ motion: id, instrument, protocol, value }, kind === 'repeats', { own: this.ownErrors() });
    return `${errorSourceWords(error.source)}: SEM ${this.size(error.sem)}, a change counts from ${this.size(mdc95(error.sem))}`;
  });

  /** Two columns of the table; the first two by themselves. */
  protected readonly pair = linkedSignal<string, string>({ source: this.studyId, computation: () => '0 1' });
  protected readonly pairs = computed(() => {
    const { raters, kind } = this.study();
    return Array.from({ length: raters }, (_, a) => a).flatMap((a) =>
      Array.from({ length: raters - a - 1 }, (_, step) => {
        const b = a + step + 1;
        return { id: `${a} ${b}`, words: `${raterWords(kind, a)} and ${raterWords(kind, b)}` };
      }),
    );
  });
  protected readonly plot = computed((): PlotModel | null => {
    if (!this.result()) return null;
    const [a, b] = this.pair().split(' ').map(Number) as [number, number];
    const column = (at: number) => this.table().map((row) => row[at]!);
    const { kind } = this.study();
    return {
      limits: limitsOfAgreement(column(a), column(b)),
      first: raterWords(kind, a),
      second: raterWords(kind, b),
      suffix: this.suffix(),
    };
  });
  protected readonly plotWords = computed(() => {
    const plot = this.plot();
    if (!plot) return [];
    const { bias, lower, upper } = plot.limits;
    return [
      { name: 'bias', words: withInterval(bias, this.suffix()) },
      { name: 'lower limit', words: withInterval(lower, this.suffix()) },
      { name: 'upper limit', words: withInterval(upper, this.suffix()) },
    ];
  });

  /** The bootstrap: how far it is, and what it came to. */
  protected readonly drawn = linkedSignal<string, BootstrapResult | null>({ source: this.studyId, computation: () => null });
  protected readonly done = signal<number | null>(null);
  protected readonly problem = signal('');
  private running: Subscription | undefined;

  protected drawAnew(): void {
    this.done.set(0);
    this.problem.set('');
    this.running = this.bootstrapping
      .run({ table: this.table(), resamples: RESAMPLES, seed: SEED })
      .pipe(takeUntilDestroyed(this.gone))
      .subscribe({
        next: (message) => {
          if ('done' in message) return this.done.set(message.done);
          if ('result' in message) this.drawn.set(message.result);
          else this.problem.set(`The study could not be resampled: ${message.problem}.`);
        },
        error: (error: Error) => {
          this.done.set(null);
          this.problem.set(`The study could not be resampled: ${error.message}.`);
        },
        complete: () => this.done.set(null),
      });
  }

  protected cancel(): void {
    this.running?.unsubscribe();
    this.done.set(null);
  }

  protected drawnError(basis: Adoption['basis']): string {
    const interval = this.drawn()?.intervals[basis];
    return interval ? `${formatNumber(interval.low)} to ${formatNumber(interval.high)}` : '';
  }
}
