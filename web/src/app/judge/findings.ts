import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { JudgementView } from '@dial-gauge/contract';
import { needWords, sidedName, type Finding, type FindingKind } from '@dial-gauge/core';
import { dayWords } from '../caseload/words';
import { FindingLine } from './finding-line';

/** Findings as sentences, worst first, each opening its evidence. */
@Component({
  selector: 'dg-findings',
  imports: [FindingLine],
  templateUrl: './findings.html',
  styleUrl: './findings.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Findings {
  readonly view = input.required<JudgementView>();

  private readonly all = computed(() => this.view().judgement.findings);
  protected readonly matter = computed(() => this.all().filter((f) => !['changed', 'within-error', 'no-norm'].includes(f.kind)));
  protected readonly groups = computed(() =>
    [
      { title: `Really changed since ${this.previous()}`, items: this.of('changed'), open: true },
      { title: `Within measuring error since ${this.previous()}`, items: this.of('within-error'), open: false },
      { title: `No norm in ${this.view().judgement.normSet.short}`, items: this.of('no-norm'), open: false },
    ].filter((group) => group.items.length > 0),
  );

  /** What each motion is enough for, in one line a side and mode. */
  protected readonly tasks = computed(() =>
    this.view().judgement.measurements.flatMap(({ measurement: m, needs, key }) => {
      const words = needWords(needs);
      return words ? [{ key, name: `${sidedName(m.motion, m.side, m.digit)}, ${m.mode}`, words }] : [];
    }),
  );

  /** Readings that look alike but were taken another way. */
  protected readonly notCompared = computed(() =>
    this.view().judgement.measurements.flatMap(({ measurement: m, notCompared, key }) =>
      notCompared.map((words) => ({ key, name: `${sidedName(m.motion, m.side, m.digit)}, ${m.mode}`, words })),
    ),
  );

  private previous(): string {
    const on = this.view().previousOn;
    return on ? dayWords(on) : 'last visit';
  }

  private of(kind: FindingKind): Finding[] {
    return this.all().filter((f) => f.kind === kind);
  }
}
