import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, linkedSignal, signal } from '@angular/core';
import { rxResource, takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { RouterLink } from '@angular/router';
import { COHORT, type CohortView } from '@dial-gauge/contract';
import {
  findProcedure,
  formatSize,
  lower,
  motion,
  protocolName,
  protocolOfId,
  type CohortGroup,
  type CohortWay,
  type CourseBand,
  type GroupSpread,
} from '@dial-gauge/core';
import { filter, switchMap, timer, type Observable } from 'rxjs';
import { fullMoment } from '../caseload/words';
import { Api } from '../data/api';
import { toFailure, type Failure } from '../data/problem';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { IfMay } from '../ui/may.directive';
import { Said } from '../ui/said';
import { SpreadRule } from './spread-rule';

/** While a count is going on it is looked at so often, in milliseconds. */
const LOOK_MS = 4_000;
const GROWN = 20;
const SEX: Readonly<Record<CohortGroup['sex'], readonly [young: string, grown: string]>> = {
  female: ['girls and women', 'women'],
  male: ['boys and men', 'men'],
  any: ['everybody', 'everybody'],
};

/** What the clinic's own readings tell: its people as groups, what becomes of them, and how its examiners lie apart. */
@Component({
  selector: 'dg-cohort',
  imports: [Frame, IfMay, MatButtonModule, MatIconModule, Pending, RouterLink, Said, SpreadRule],
  templateUrl: './cohort.html',
  styleUrl: './cohort.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CohortPage {
  private readonly api = inject(Api);
  protected readonly loaded = rxResource({ stream: () => this.api.call(COHORT.cohort) });
  protected readonly view = linkedSignal<CohortView | null>(() => (this.loaded.hasValue() ? this.loaded.value() : null));
  protected readonly done = signal('');
  protected readonly refusal = signal<Failure | null>(null);
  protected readonly busy = signal(false);
  protected readonly moment = fullMoment;
  protected readonly lower = lower;
  /** Norms by way of measuring, each on a rule of its own. */
  protected readonly norms = computed(() =>
    (this.view()?.norms ?? []).map(({ way, groups }) => ({ way, groups, rule: ruleOf(groups.map(({ spread }) => spread)) })),
  );
  protected readonly outcomes = computed(() =>
    (this.view()?.outcomes ?? []).map((outcome) => ({
      ...outcome,
      name: findProcedure(outcome.procedure)?.name ?? outcome.procedure,
      rule: ruleOf(
        outcome.weeks.map(({ spread }) => spread),
        outcome.weeks.map(({ usual }) => usual),
      ),
    })),
  );

  constructor() {
    toObservable(this.view)
      .pipe(
        filter((view) => Boolean(view?.counting)),
        switchMap(() => timer(LOOK_MS)),
        switchMap(() => this.api.call(COHORT.cohort)),
        takeUntilDestroyed(inject(DestroyRef)),
      )
      .subscribe({ next: (view) => this.view.set(view), error: () => undefined });
  }

  protected count(): void {
    this.send(this.api.call(COHORT.countAnew, { body: { id: crypto.randomUUID() } }), (view) => this.view.set(view), '');
  }

  protected makeSet(): void {
    this.send(
      this.api.call(COHORT.makeNormSet, { body: {} }),
      () => undefined,
      'It is a norm set now, asked last. Under Norms and thresholds it can be moved up, written out or taken out of use.',
    );
  }

  private send<T>(asked: Observable<T>, then: (answer: T) => void, words: string): void {
    this.done.set('');
    this.refusal.set(null);
    this.busy.set(true);
    asked.subscribe({
      next: (answer) => {
        then(answer);
        this.done.set(words);
        this.busy.set(false);
      },
      error: (error: unknown) => {
        this.refusal.set(toFailure(error));
        this.busy.set(false);
      },
    });
  }

  /** "Knee flexion, supine, active" */
  protected wayWords({ motion: id, protocol, mode, digit }: CohortWay): string {
    const known = protocolOfId(protocol);
    const finger = digit ? `finger ${digit}` : '';
    return [known ? protocolName(known) : motion(id).name, finger, motion(id).unit === 'deg' ? mode : ''].filter(Boolean).join(', ');
  }

  protected groupWords({ sex, ages }: CohortGroup): string {
    return `${SEX[sex][ages.from < GROWN ? 0 : 1]}, ${ages.label}`;
  }

  protected figure(value: number, { motion: id }: CohortWay): string {
    return formatSize(value, motion(id).unit);
  }

  protected usualWords(usual: CourseBand, { motion: id }: CohortWay): string {
    const { unit } = motion(id);
    return usual.high === null
      ? `${formatSize(usual.low, unit)} or more`
      : `${formatSize(usual.low, unit)} to ${formatSize(usual.high, unit)}`;
  }

  /** "reads 3° less than the middle" */
  protected differenceWords(difference: number, { motion: id }: CohortWay): string {
    const { unit } = motion(id);
    if (Math.abs(difference) < 0.05) return 'reads as the middle of all';
    return `reads ${formatSize(Math.abs(difference), unit)} ${difference > 0 ? 'more' : 'less'} than the middle`;
  }
}

/** A rule that holds them all, from and to whole tens, or whole units where that would be too coarse. */
function ruleOf(
  spreads: readonly GroupSpread[],
  usual: readonly (CourseBand | null)[] = [],
): { readonly from: number; readonly to: number } {
  const values = [
    ...spreads.flatMap(({ p10, p90 }) => [p10, p90]),
    ...usual.flatMap((band) => (band ? [band.low, band.high ?? band.low] : [])),
  ];
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const step = high - low > 12 ? 10 : high - low > 2 ? 5 : 1;
  return { from: Math.floor((low - step / 4) / step) * step, to: Math.ceil((high + step / 4) / step) * step };
}
