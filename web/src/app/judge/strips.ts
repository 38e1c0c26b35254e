import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { JudgementView } from '@dial-gauge/contract';
import {
  describeEnd,
  endFigure,
  formatWhole,
  measurementKey,
  motion,
  type JudgedMeasurement,
  type MotionId,
  type Position,
  type Side,
} from '@dial-gauge/core';
import { dayWords } from '../caseload/words';
import { ArcStrip, type StripModel } from '../ui/arc-strip/arc-strip';

interface StripRow {
  readonly motion: MotionId;
  readonly position: Position;
  readonly name: string;
  readonly left: StripModel;
  readonly right: StripModel;
}

/** One row for every motion: left and right, active and passive, norm and last visit side by side. */
@Component({
  selector: 'dg-strips',
  imports: [ArcStrip],
  templateUrl: './strips.html',
  styleUrl: './strips.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Strips {
  readonly view = input.required<JudgementView>();
  protected readonly dayWords = dayWords;

  protected readonly rows = computed((): StripRow[] => {
    const { measurements } = this.view().judgement;
    const seen = new Map(measurements.map((m) => [`${m.measurement.motion}/${m.measurement.position}`, m.measurement]));
    return [...seen.values()].map(({ motion: id, position }) => {
      const of = measurements.filter((m) => m.measurement.motion === id && m.measurement.position === position);
      const values = of.flatMap((m) => [m.value, this.lastValue(m) ?? 0, this.primary(m)?.expectedBand.high ?? 0]);
      const range = { from: Math.min(0, Math.floor(Math.min(...values) / 10) * 10), to: Math.ceil((Math.max(...values) + 4) / 10) * 10 };
      return { motion: id, position, name: motion(id).short, left: this.strip(of, 'left', range), right: this.strip(of, 'right', range) };
    });
  });

  private primary(m: JudgedMeasurement) {
    return m.norms.find((n) => n.set === this.view().judgement.normSet.id);
  }

  /** What the same measurement said at the visit before. */
  private lastValue(m: JudgedMeasurement): number | null {
    const change = this.view().judgement.findings.find((f) => ['changed', 'within-error'].includes(f.kind) && measurementKey(f) === m.key);
    return change?.expected ?? null;
  }

  private strip(of: readonly JudgedMeasurement[], side: Side, range: StripModel['range']): StripModel {
    const find = (mode: 'active' | 'passive') => of.find((m) => m.measurement.side === side && m.measurement.mode === mode);
    const [active, passive] = [find('active'), find('passive')];
    const main = passive ?? active;
    const norm = main && this.primary(main);
    const pain = Math.max(0, ...of.filter((m) => m.measurement.side === side).map((m) => m.measurement.pain ?? 0));
    const model = {
      side: side === 'left' ? ('left' as const) : ('right' as const),
      range,
      active: active?.value ?? null,
      passive: passive?.value ?? null,
      expected: norm?.expectedBand ?? null,
      gapTo: norm?.short ? norm.expectedBand.low : null,
      lastVisit: main ? this.lastValue(main) : null,
      pain,
      value: main ? endFigure(Math.round(main.value)) : '··',
    };
    return { ...model, text: describe(of[0]!.measurement.motion, model) };
  }
}

/** A strip in words, for those who do not see it. */
function describe(id: MotionId, { side, active, passive, expected, gapTo, lastVisit, pain }: Omit<StripModel, 'text'>): string {
  const say = (value: number) => describeEnd(motion(id), value);
  const parts = [
    active !== null && `active ${say(active)}`,
    passive !== null && `passive ${say(passive)}`,
    expected && `expected ${formatWhole(expected.low)} to ${formatWhole(expected.high)}`,
    gapTo !== null && 'short of normal',
    lastVisit !== null && `last visit ${endFigure(Math.round(lastVisit))}`,
    pain > 0 && `hurts ${pain} of 10`,
  ];
  return `${side}: ${parts.filter(Boolean).join(', ') || 'not measured'}`;
}
