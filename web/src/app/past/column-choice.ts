import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  allowedSides,
  MODES,
  motion,
  MOTIONS,
  PAST_ROLES,
  type Mode,
  type MotionId,
  type PastColumn,
  type PastRole,
  type Side,
  type Told,
} from '@dial-gauge/core';

const ROLE_WORDS: Readonly<Record<PastRole, string>> = {
  ignore: 'left out',
  day: 'the day',
  motion: 'what was measured',
  side: 'left or right',
  mode: 'active or passive',
  position: 'position',
  instrument: 'instrument',
  value: 'the value',
  unit: 'unit of the value',
  pain: 'pain 0–10',
  reading: 'values of …',
};

/** What one column of a list holds; where it is values of one measurement, of which. */
@Component({
  selector: 'dg-column-choice',
  template: `
    <label>
      <span class="visually-hidden">Column {{ name() }} holds</span>
      <select [value]="column().role" (change)="setRole($any($event.target).value)">
        @for (role of roles; track role) {
          <option [value]="role" [selected]="column().role === role">{{ words[role] }}</option>
        }
      </select>
    </label>
    @if (column().role === 'reading') {
      <label>
        <span class="visually-hidden">Measurement of column {{ name() }}</span>
        <select (change)="setMotion($any($event.target).value)">
          <option value="" [selected]="!column().about?.motion">of what?</option>
          @for (one of motions; track one.id) {
            <option [value]="one.id" [selected]="column().about?.motion === one.id">{{ one.name }}</option>
          }
        </select>
      </label>
      <label>
        <span class="visually-hidden">Side of column {{ name() }}</span>
        <select (change)="set({ side: $any($event.target).value || undefined })">
          <option value="" [selected]="!column().about?.side">side as in the row</option>
          @for (side of sides(); track side) {
            <option [value]="side" [selected]="column().about?.side === side">{{ side }}</option>
          }
        </select>
      </label>
      <label>
        <span class="visually-hidden">Mode of column {{ name() }}</span>
        <select (change)="set({ mode: $any($event.target).value || undefined })">
          <option value="" [selected]="!column().about?.mode">mode as for all</option>
          @for (mode of modes; track mode) {
            <option [value]="mode" [selected]="column().about?.mode === mode">{{ mode }}</option>
          }
        </select>
      </label>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
    }
    select {
      width: 100%;
      min-width: 130px;
      min-height: 36px;
      border: 1px solid var(--line-strong);
      border-radius: 4px;
      background: var(--raised);
      color: var(--ink);
      font: inherit;
      font-size: 14px;
    }
    .visually-hidden {
      position: absolute;
      width: 1px;
      height: 1px;
      overflow: hidden;
      clip-path: inset(50%);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ColumnChoice {
  readonly column = input.required<PastColumn>();
  readonly name = input.required<string>();
  readonly changed = output<PastColumn>();
  protected readonly roles = PAST_ROLES;
  protected readonly words = ROLE_WORDS;
  protected readonly motions = MOTIONS;
  protected readonly modes = MODES;
  protected readonly sides = computed((): readonly Side[] => {
    const id = this.column().about?.motion;
    return id ? allowedSides(motion(id)) : ['left', 'right'];
  });

  protected setRole(role: PastRole): void {
    this.changed.emit(role === 'reading' ? { ...this.column(), role, about: this.column().about ?? {} } : { role });
  }

  protected setMotion(id: MotionId | ''): void {
    const { about = {}, ...rest } = this.column();
    const others = withoutMotion(about);
    this.changed.emit({ ...rest, about: id ? { ...others, motion: id } : others });
  }

  protected set(part: { readonly side?: Side; readonly mode?: Mode }): void {
    const about = Object.fromEntries(Object.entries({ ...this.column().about, ...part }).filter(([, value]) => value !== undefined));
    this.changed.emit({ ...this.column(), about });
  }
}

const withoutMotion = ({ motion: _motion, ...others }: Told): Told => others;
