import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  formatFixed,
  kindOf,
  measurementKey,
  saidOf,
  SEVERITIES,
  stageOf,
  type Finding,
  type FindingStage,
  type Severity,
} from '@dial-gauge/core';
import { EvidenceOpener } from './evidence-opener';

const SEVERITY_WORDS: Readonly<Record<Severity, string>> = { note: '', mild: 'mild', moderate: 'moderate', marked: 'marked' };

/** What is no matter of size. */
const WITHOUT_SIZE: readonly FindingStage[] = ['pain', 'error', 'silence'];

/** What one reading has to say as a sentence that opens its evidence. */
@Component({
  selector: 'dg-finding-line',
  imports: [RouterLink],
  templateUrl: './finding-line.html',
  styleUrl: './finding-line.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FindingLine {
  private readonly opener = inject(EvidenceOpener, { optional: true });
  /** The heaviest first. */
  readonly findings = input.required<readonly Finding[]>();
  /** Place in the order; none where it stands outside of it. */
  readonly number = input<number>();
  /** Set where a suspect reading can be taken again. */
  readonly visitId = input<string>();

  /** Each with its words. */
  protected readonly told = computed(() => this.findings().map((of) => ({ of, said: saidOf(of) })));
  protected readonly first = computed(() => this.told()[0]!);
  /** The heaviest, what else is said of the same reading, and of the other mode what is not said yet. */
  protected readonly shown = computed(() => {
    const seen = new Set<string>();
    const { mode } = this.first().of;
    const isOwn = ({ of }: { of: Finding }) => of.mode === mode;
    const ownFirst = [...this.told().filter(isOwn), ...this.told().filter((t) => !isOwn(t))];
    return ownFirst.filter((t) => {
      const isNew = isOwn(t) || !seen.has(t.of.kind);
      seen.add(t.of.kind);
      return isNew;
    });
  });
  /** "passive 86° too", where the other mode is short as well. */
  protected readonly also = computed(() => {
    const rest = this.told().filter((t) => !this.shown().includes(t));
    return [...new Set(rest.map((t) => t.of.mode))].map((mode) => `${mode} too`).join(', ');
  });
  /** A shape for every kind, so that colour never has to tell. */
  protected readonly mark = computed(() => kindOf(this.first().of.kind)?.mark ?? 'plain');
  protected readonly severity = computed(() => {
    const worst = [...this.findings()].sort((a, b) => SEVERITIES.indexOf(b.severity) - SEVERITIES.indexOf(a.severity))[0]!;
    return SEVERITY_WORDS[worst.severity];
  });
  /** "32 % · 1.8 × error" of the heaviest. */
  protected readonly weight = computed(() => {
    const { percentLoss, timesError, kind } = this.first().of;
    if (WITHOUT_SIZE.includes(stageOf(kind))) return '';
    const parts = [
      percentLoss !== null && percentLoss > 0 && `${Math.round(percentLoss)} %`,
      timesError !== null && timesError > 0 && `${formatFixed(timesError, 1)} × error`,
    ];
    return parts.filter(Boolean).join(' · ');
  });
  protected readonly agreement = computed(() => this.findings().find((f) => f.agreement?.of)?.agreement ?? null);
  protected readonly again = computed(() =>
    stageOf(this.first().of.kind) === 'again' && this.visitId() ? measurementKey(this.first().of) : null,
  );
  protected readonly canOpen = this.opener !== null;

  protected open(): void {
    this.opener?.open(measurementKey(this.first().of));
  }
}
