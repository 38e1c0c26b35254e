import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { JudgementView } from '@dial-gauge/contract';
import {
  arcVerdict,
  arcWords,
  digitWord,
  describeEnd,
  endFigure,
  formatNumber,
  formatWhole,
  measurementKey,
  motion,
  protocolOf,
  regionName,
  rounded,
  stageOf,
  suffixOf,
  type FindingStage,
  type JudgedMeasurement,
  type Mode,
  type Motion,
  type MotionId,
  type Position,
  type Side,
} from '@dial-gauge/core';
import { ArcStrip, type StripModel } from '../ui/arc-strip/arc-strip';
import { EvidenceOpener } from './evidence-opener';

interface StripRow {
  readonly key: string;
  readonly name: string;
  readonly how: string;
  /** Keys of the readings behind the two figures. */
  readonly leftKey: string | null;
  readonly rightKey: string | null;
  /** null where the motion has no side. */
  readonly left: StripModel | null;
  /** Where there is no side, the only one: it stands in the middle. */
  readonly right: StripModel;
  /** Which set judged, where it is not the one that is asked first; or that none did. */
  readonly by: string;
}

interface Section {
  readonly region: string;
  readonly rows: readonly StripRow[];
  /** Two opposite ends as one arc, beside the ends. */
  readonly arcs: readonly ArcRow[];
}

interface ArcRow {
  readonly key: string;
  readonly mode: string;
  /** Keys of the first ends, whose evidence tells the arc as well. */
  readonly leftKey: string | null;
  readonly rightKey: string | null;
  readonly left: string;
  readonly right: string;
  /** "91 + 67" */
  readonly leftSum: string;
  readonly rightSum: string;
  readonly verdict: string;
  readonly words: string;
}

/** What tells a reading from the one before it. */
const IN_TIME: readonly FindingStage[] = ['change', 'error'];

/** From so many rows on they are drawn closer, so that the whole exam stays on one screen. */
const MANY = 7;

/** One row for every motion: left and right, active and passive, norm and last visit side by side. */
@Component({
  selector: 'dg-strips',
  imports: [ArcStrip],
  templateUrl: './strips.html',
  styleUrl: './strips.scss',
  host: { '[class.dense]': 'isDense()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Strips {
  readonly view = input.required<JudgementView>();
  private readonly opener = inject(EvidenceOpener, { optional: true });
  protected readonly isDense = computed(() => this.sections().reduce((sum, s) => sum + s.rows.length + s.arcs.length, 0) > MANY);

  protected readonly sections = computed((): Section[] => {
    const rows = new Map<string, JudgedMeasurement[]>();
    for (const judged of this.view().judgement.measurements) {
      const { digit } = judged.measurement;
      const key = `${protocolOf(judged.measurement).id} ${digit ?? ''}`;
      rows.set(key, [...(rows.get(key) ?? []), judged]);
    }
    const sections = new Map<string, StripRow[]>();
    for (const [key, of] of rows) {
      const region = regionName(motion(of[0]!.measurement.motion).joint);
      sections.set(region, [...(sections.get(region) ?? []), this.row(key, of)]);
    }
    return [...sections].map(([region, own]) => ({ region, rows: own, arcs: this.arcsOf(region) }));
  });

  protected open(key: string | null): void {
    if (key) this.opener?.open(key);
  }

  private arcsOf(region: string): ArcRow[] {
    return this.view()
      .judgement.arcs.filter((arc) => regionName(arc.joint) === region)
      .map((arc) => ({ ...arc, verdict: arcVerdict(arc), words: arcWords(arc) }))
      .map(({ motions, mode, position, how, left, right, verdict, words }) => ({
        key: `${motions.join()} ${how} ${mode}`,
        mode,
        leftKey: left && this.endOf(motions[0], mode, position, how, 'left'),
        rightKey: right && this.endOf(motions[0], mode, position, how, 'right'),
        left: left ? formatWhole(left.value) : '··',
        right: right ? formatWhole(right.value) : '··',
        leftSum: left ? `${formatWhole(left.first)} + ${formatWhole(left.last)}` : '',
        rightSum: right ? `${formatWhole(right.first)} + ${formatWhole(right.last)}` : '',
        verdict,
        words,
      }));
  }

  private endOf(id: MotionId, mode: Mode, position: Position, how: string, side: Side): string | null {
    const end = this.view().judgement.measurements.find(
      ({ measurement: m }) =>
        m.motion === id && m.mode === mode && m.position === position && m.side === side && protocolOf(m).label === how,
    );
    return end?.key ?? null;
  }

  private row(key: string, of: readonly JudgedMeasurement[]): StripRow {
    const { measurement } = of[0]!;
    const about = motion(measurement.motion);
    const values = of.flatMap((m) => [m.value, this.lastValue(m) ?? 0, this.primary(m)?.expectedBand.high ?? 0]);
    const [least, most] = [Math.min(0, ...values), Math.max(...values)];
    // Room to the right for the last mark; whole steps of the scale.
    const step = about.unit === 'deg' ? 10 : most > 100 ? 50 : 5;
    const range = { from: Math.floor(least / step) * step, to: Math.ceil((most + step * 0.4) / step) * step };
    const strip = (side: Side) => this.strip(of, about, side, range);
    const finger = measurement.digit ? digitWord(measurement.digit) : '';
    return {
      key,
      name: [about.short, finger].filter(Boolean).join(', '),
      how: [protocolOf(measurement).label, about.unit === 'deg' ? '' : suffixOf(about.unit).trim()].filter(Boolean).join(' · '),
      by: this.judgeOf(of),
      leftKey: about.sides === 'midline' ? null : (this.mainOf(of, 'left')?.key ?? null),
      rightKey: this.mainOf(of, about.sides === 'midline' ? 'midline' : 'right')?.key ?? null,
      left: about.sides === 'midline' ? null : strip('left'),
      right: strip(about.sides === 'midline' ? 'midline' : 'right'),
    };
  }

  /** The reading whose figure is printed: passive, where there is one. */
  private mainOf(of: readonly JudgedMeasurement[], side: Side): JudgedMeasurement | undefined {
    const own = of.filter((m) => m.measurement.side === side);
    return own.find((m) => m.measurement.mode === 'passive') ?? own[0];
  }

  /** "by AAOS 1965" where another set than the first one judged, "not judged" where none could. */
  private judgeOf(of: readonly JudgedMeasurement[]): string {
    const { notJudged, normSet } = this.view().judgement;
    const silent = of.filter((m) => notJudged.some((other) => other.key === m.key)).length;
    const sets = new Set(of.flatMap((m) => this.primary(m) ?? []).map((norm) => norm.set));
    const others = [...sets].filter((id) => id !== normSet.id);
    const names = others.map((id) => of.flatMap((m) => m.norms).find((norm) => norm.set === id)?.setName ?? id);
    return [
      names.length ? `by ${names.join(', ')}` : '',
      silent === 0 ? '' : silent === of.length ? 'not judged' : `${silent} of ${of.length} not judged`,
    ]
      .filter(Boolean)
      .join(' · ');
  }

  private primary(m: JudgedMeasurement) {
    return m.norms.find((n) => n.set === m.judgedBy);
  }

  /** What the same measurement said at the visit before. */
  private lastValue(m: JudgedMeasurement): number | null {
    const change = this.view().judgement.findings.find((f) => IN_TIME.includes(stageOf(f.kind)) && measurementKey(f) === m.key);
    return change?.expected ?? null;
  }

  private strip(of: readonly JudgedMeasurement[], about: Motion, side: Side, range: StripModel['range']): StripModel {
    const find = (mode: 'active' | 'passive') => of.find((m) => m.measurement.side === side && m.measurement.mode === mode);
    const [active, passive] = [find('active'), find('passive')];
    const main = passive ?? active;
    const norm = main && this.primary(main);
    const pain = Math.max(0, ...of.filter((m) => m.measurement.side === side).map((m) => m.measurement.pain ?? 0));
    const model = {
      side: side === 'left' ? ('left' as const) : ('right' as const),
      range,
      label: (value: number) => endFigure(value, about),
      active: active?.value ?? null,
      passive: passive?.value ?? null,
      expected: norm?.expectedBand ?? null,
      gapTo: norm?.short ? (about.better === 'less' ? norm.expectedBand.high : norm.expectedBand.low) : null,
      lastVisit: main ? this.lastValue(main) : null,
      pain,
      value: main ? endFigure(rounded(main.value, about.unit), about) : '··',
    };
    return { ...model, text: describe(about, side, model) };
  }
}

/** A strip in words, for those who do not see it. */
function describe(about: Motion, side: Side, { active, passive, expected, gapTo, lastVisit, pain }: Omit<StripModel, 'text'>): string {
  const say = (value: number) => describeEnd(about, value);
  const plain = (value: number) => formatNumber(rounded(value, about.unit));
  const parts = [
    active !== null && (about.unit === 'deg' ? `active ${say(active)}` : say(active)),
    passive !== null && (about.unit === 'deg' ? `passive ${say(passive)}` : say(passive)),
    expected && `expected ${plain(expected.low)} to ${plain(expected.high)}`,
    gapTo !== null && 'short of normal',
    lastVisit !== null && `last visit ${endFigure(rounded(lastVisit, about.unit), about)}`,
    pain > 0 && `hurts ${pain} of 10`,
  ];
  const name = side === 'midline' ? about.name : side;
  return `${name}: ${parts.filter(Boolean).join(', ') || 'not measured'}`;
}
