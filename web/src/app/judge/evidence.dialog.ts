import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import type { JudgementView } from '@dial-gauge/contract';
import {
  agreement,
  arcWords,
  describeEnd,
  errorSourceWords,
  flagWords,
  formatNumber,
  measurementKey,
  modedName,
  motion,
  needWords,
  protocolName,
  protocolOf,
  rounded,
  saidOf,
  suffixOf,
  type JudgedMeasurement,
} from '@dial-gauge/core';

export interface EvidenceOf {
  readonly view: JudgementView;
  readonly judged: JudgedMeasurement;
}

/** Everything a number rests on: readings, error, what every norm set says, the other side, the last visit. */
@Component({
  selector: 'dg-evidence',
  imports: [MatButtonModule, MatDialogModule],
  templateUrl: './evidence.dialog.html',
  styleUrl: './evidence.dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EvidenceDialog {
  protected readonly of = inject<EvidenceOf>(MAT_DIALOG_DATA);
  private readonly m = this.of.judged.measurement;
  protected readonly about = motion(this.m.motion);
  protected readonly name = modedName(this.m.motion, this.m.side, this.m.mode, this.m.digit);
  protected readonly value = describeEnd(this.about, rounded(this.of.judged.value, this.about.unit));
  protected readonly protocol = protocolName(protocolOf(this.m));
  protected readonly readings = this.of.judged.ends.map((end) => describeEnd(this.about, end));
  protected readonly votes = agreement(this.of.judged.norms);
  protected readonly needs = needWords(this.of.judged.needs);
  private readonly size = (value: number): string => `${formatNumber(value)}${suffixOf(this.about.unit)}`;
  protected readonly error = `SEM ${this.size(this.of.judged.sem)}, MDC95 ${this.size(this.of.judged.mdc95)}: ${errorSourceWords(this.of.judged.errorSource)}`;

  protected readonly norms = this.of.judged.norms.map((norm) => ({
    set: norm.setName,
    chosen: norm.set === this.of.judged.judgedBy,
    expected: describeEnd(this.about, norm.expected),
    band:
      norm.expectedBand.low < norm.expectedBand.high
        ? `${formatNumber(norm.expectedBand.low)} to ${formatNumber(norm.expectedBand.high)}`
        : 'no spread',
    z: norm.z === null ? '' : `z ${formatNumber(norm.z)}, ${formatNumber(norm.percentile ?? 0)} %`,
    verdict: norm.short ? 'short' : 'not short',
    counts: norm.comparable,
    notes: [...flagWords(norm.flags), norm.band, `confidence ${norm.confidence}`].join('; '),
    source: norm.source,
  }));

  /** Every sentence about this reading, with its reasons. */
  protected readonly findings = this.of.view.judgement.findings
    .filter((f) => measurementKey(f) === this.of.judged.key)
    .map((f) => ({ kind: f.kind, ...saidOf(f) }));
  protected readonly arcs = this.of.view.judgement.arcs
    .filter((arc) => arc.motions.includes(this.m.motion) && arc.mode === this.m.mode)
    .map((arc) => ({ how: arc.how, words: arcWords(arc) }));
}
