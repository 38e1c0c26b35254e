import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { measurementKey, SEVERITIES, stageOf, type Finding, type FindingKind, type FindingStage, type Severity } from '@dial-gauge/core';
import { EvidenceOpener } from './evidence-opener';

const SEVERITY_WORDS: Readonly<Record<Severity, string>> = { note: '', mild: 'mild', moderate: 'moderate', marked: 'marked' };

/** A shape for every kind, so that colour never has to tell. */
const SHAPES: Readonly<Record<FindingKind, string>> = {
  'short-of-normal': 'gap',
  'short-of-other-side': 'sides',
  'active-short-of-passive': 'inner',
  'behind-course': 'gap',
  'two-joint-limit': 'inner',
  'active-beyond-passive': 'again',
  'inconsistent-trials': 'again',
  substituted: 'again',
  'lumbar-slr-invalid': 'again',
  painful: 'pain',
  'opposite-direction-pain': 'pain',
  'capsular-pattern': 'steps',
  'beyond-normal': 'notch',
  'end-feel': 'pain',
  changed: 'change',
  'within-error': 'plain',
  'no-norm': 'plain',
};
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

  protected readonly first = computed(() => this.findings()[0]!);
  /** The heaviest, what else is said of the same reading, and of the other mode what is not said yet. */
  protected readonly shown = computed(() => {
    const seen = new Set<FindingKind>();
    const isOwn = (f: Finding) => f.subject === this.first().subject;
    const ownFirst = [...this.findings().filter(isOwn), ...this.findings().filter((f) => !isOwn(f))];
    return ownFirst.filter((f) => {
      const isNew = isOwn(f) || !seen.has(f.kind);
      seen.add(f.kind);
      return isNew;
    });
  });
  /** "passive 86° too", where the other mode is short as well. */
  protected readonly also = computed(() => {
    const rest = this.findings().filter((f) => !this.shown().includes(f));
    return [...new Set(rest.map((f) => f.mode))].map((mode) => `${mode} too`).join(', ');
  });
  protected readonly shape = computed(() => SHAPES[this.first().kind] ?? 'plain');
  protected readonly severity = computed(() => {
    const worst = [...this.findings()].sort((a, b) => SEVERITIES.indexOf(b.severity) - SEVERITIES.indexOf(a.severity))[0]!;
    return SEVERITY_WORDS[worst.severity];
  });
  /** "32 % · 1.8 × error" of the heaviest. */
  protected readonly weight = computed(() => {
    const { percentLoss, timesError, kind } = this.first();
    if (WITHOUT_SIZE.includes(stageOf(kind))) return '';
    const parts = [
      percentLoss !== null && percentLoss > 0 && `${Math.round(percentLoss)} %`,
      timesError !== null && timesError > 0 && `${timesError.toFixed(1)} × error`,
    ];
    return parts.filter(Boolean).join(' · ');
  });
  protected readonly agreement = computed(() => this.findings().find((f) => f.agreement?.of)?.agreement ?? null);
  protected readonly again = computed(() =>
    stageOf(this.first().kind) === 'again' && this.visitId() ? measurementKey(this.first()) : null,
  );
  protected readonly canOpen = this.opener !== null;

  protected open(): void {
    this.opener?.open(measurementKey(this.first()));
  }
}
