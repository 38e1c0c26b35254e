import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { JudgementView } from '@dial-gauge/contract';
import type { Finding, FindingKind } from '@dial-gauge/core';
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

  private previous(): string {
    const on = this.view().previousOn;
    return on ? dayWords(on) : 'last visit';
  }

  private of(kind: FindingKind): Finding[] {
    return this.all().filter((f) => f.kind === kind);
  }
}
