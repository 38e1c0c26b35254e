import { ChangeDetectionStrategy, Component, effect, inject, input, output } from '@angular/core';
import { NonNullableFormBuilder, ReactiveFormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { explain, Thresholds } from '@dial-gauge/contract';
import { DEFAULT_THRESHOLDS, type Thresholds as CoreThresholds } from '@dial-gauge/core';

/** Fields as they are typed: shares as percentages. */
const FIELDS = {
  deg: { label: 'Degrees', group: 'side', path: 'sideDifference.deg' },
  cm: { label: 'cm', group: 'side', path: 'sideDifference.cm' },
  force: { label: 'Force, %', group: 'side', path: 'sideDifference.N' },
  seconds: { label: 'Seconds', group: 'side', path: 'sideDifference.s' },
  gap: { label: 'Degrees', group: 'gap', path: 'activeGap' },
  gapShare: { label: '% of passive', group: 'gap', path: 'activeGapShare' },
  mild: { label: 'Mild, %', group: 'percent', path: 'severityPercent' },
  moderate: { label: 'Moderate, %', group: 'percent', path: 'severityPercent' },
  marked: { label: 'Marked, %', group: 'percent', path: 'severityPercent' },
  mildTimes: { label: 'Mild, ×', group: 'times', path: 'severityTimes' },
  moderateTimes: { label: 'Moderate, ×', group: 'times', path: 'severityTimes' },
  markedTimes: { label: 'Marked, ×', group: 'times', path: 'severityTimes' },
} as const;
type Field = keyof typeof FIELDS;
type Typed = Record<Field, number>;

const GROUPS = [
  { id: 'side', title: 'Short of the other side, from', about: 'The larger of this and the measuring error of a difference counts.' },
  { id: 'gap', title: 'Active short of passive, from', about: 'The largest of these and the measuring error counts.' },
  { id: 'percent', title: 'How much a loss weighs, from', about: 'Loss in percent of the expected figure.' },
  {
    id: 'times',
    title: 'The same against error, from',
    about: 'Multiples of the measuring error. The lesser of the two counts; this alone where a percentage says nothing.',
  },
] as const;

const percent = (share: number): number => Math.round(share * 1000) / 10;

function toTyped({ sideDifference: side, activeGap, activeGapShare, severityPercent, severityTimes }: CoreThresholds): Typed {
  const [mild, moderate, marked] = severityPercent;
  const [mildTimes, moderateTimes, markedTimes] = severityTimes;
  return {
    deg: side.deg,
    cm: side.cm,
    force: percent(side.N),
    seconds: side.s,
    gap: activeGap,
    gapShare: percent(activeGapShare),
    mild,
    moderate,
    marked,
    mildTimes,
    moderateTimes,
    markedTimes,
  };
}

function fromTyped(typed: Typed): CoreThresholds {
  return {
    sideDifference: { deg: typed.deg, cm: typed.cm, N: typed.force / 100, s: typed.seconds },
    activeGap: typed.gap,
    activeGapShare: typed.gapShare / 100,
    severityPercent: [typed.mild, typed.moderate, typed.marked],
    severityTimes: [typed.mildTimes, typed.moderateTimes, typed.markedTimes],
  };
}

/** From which size on something is flagged. What is typed stays until it is saved or put back. */
@Component({
  selector: 'dg-thresholds',
  imports: [MatButtonModule, MatFormFieldModule, MatInputModule, ReactiveFormsModule],
  templateUrl: './thresholds.html',
  styles: `
    h2 {
      padding-top: 8px;
      font-size: 17px;
    }
    h3 {
      padding-top: 14px;
      font-size: 14px;
    }
    .soft {
      font-size: 13px;
    }
    .fields {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(132px, 1fr));
      gap: 8px;
      padding-top: 8px;
    }
    .do {
      display: flex;
      gap: 10px;
      padding-top: 16px;
    }
    .problem {
      margin-top: 12px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ThresholdsForm {
  readonly thresholds = input.required<CoreThresholds>();
  readonly busy = input(false);
  readonly save = output<Thresholds>();

  protected readonly groups = GROUPS;
  protected readonly form = inject(NonNullableFormBuilder).group(toTyped(DEFAULT_THRESHOLDS));
  protected problems: readonly string[] = [];

  constructor() {
    effect(() => this.form.reset(toTyped(this.thresholds())));
  }

  protected fieldsOf(group: string): Field[] {
    return (Object.keys(FIELDS) as Field[]).filter((field) => FIELDS[field].group === group);
  }
  protected readonly label = (field: Field) => FIELDS[field].label;

  protected submit(): void {
    const parsed = Thresholds.safeParse(fromTyped(this.form.getRawValue()));
    this.problems = parsed.success ? [] : explain(parsed.error).map(({ path, message }) => `${nameOf(path)}: ${message}`);
    if (parsed.success) this.save.emit(parsed.data);
  }

  protected defaults(): void {
    this.form.setValue(toTyped(DEFAULT_THRESHOLDS));
    this.form.markAsDirty();
  }
}

/** Group and label of the field that a refused path belongs to; of three steps, the group alone. */
function nameOf(path: string): string {
  const field = Object.values(FIELDS).find((f) => path.startsWith(f.path));
  const title = GROUPS.find((group) => group.id === field?.group)?.title ?? path;
  return field && !path.startsWith('severity') ? `${title}: ${field.label}` : title;
}
