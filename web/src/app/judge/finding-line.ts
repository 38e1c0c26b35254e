import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Finding, FindingKind, Severity } from '@dial-gauge/core';

const SEVERITY_WORDS: Readonly<Record<Severity, string>> = { note: '', mild: 'mild', moderate: 'moderate', marked: 'marked' };

/** A shape for every kind, so that colour never has to tell. */
const SHAPES: Readonly<Partial<Record<FindingKind, string>>> = {
  'short-of-normal': 'gap',
  'short-of-other-side': 'sides',
  'active-short-of-passive': 'inner',
  'active-beyond-passive': 'again',
  'inconsistent-trials': 'again',
  painful: 'pain',
  changed: 'change',
};

/** One finding as a sentence that opens its evidence. */
@Component({
  selector: 'dg-finding-line',
  templateUrl: './finding-line.html',
  styleUrl: './finding-line.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FindingLine {
  readonly finding = input.required<Finding>();
  protected readonly shape = computed(() => SHAPES[this.finding().kind] ?? 'plain');
  protected readonly severity = computed(() => SEVERITY_WORDS[this.finding().severity]);
}
