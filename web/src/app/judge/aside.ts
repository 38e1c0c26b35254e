import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { MeasurementView } from '@dial-gauge/contract';
import { describeEnd, endPosition, formatSize, motion, modedName, storedTrial } from '@dial-gauge/core';

const NOT_DONE = { 'left-out': 'left out', refused: 'refused', 'not-possible': 'not possible' } as const;

/** What stands beside the numbers: what was not done and why, notes, and limits that were passed. */
@Component({
  selector: 'dg-aside',
  template: `
    @if (lines().length) {
      <h2>Beside the numbers</h2>
      <ul>
        @for (line of lines(); track line.name + line.what) {
          <li>
            <strong>{{ line.name }}</strong> {{ line.what }}
          </li>
        }
      </ul>
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 0 20px 16px;
    }
    h2 {
      font-size: 17px;
    }
    li {
      padding: 3px 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Aside {
  readonly measurements = input.required<readonly MeasurementView[]>();

  protected readonly lines = computed(() =>
    this.measurements().flatMap((m) => {
      const about = motion(m.motion);
      const name = modedName(m.motion, m.side, m.mode, m.digit);
      const past = m.trials.flatMap((trial) => {
        if (!trial.pastLimit) return [];
        const value = describeEnd(about, endPosition(storedTrial(m.motion, trial)));
        const { limit, why } = trial.pastLimit;
        return [`${value}, past ${limit === null ? 'a precaution' : `the limit of ${formatSize(limit, about.unit)}`}: ${why}`];
      });
      const notDone = m.notDone ? [`${NOT_DONE[m.notDone]}${m.notDoneWhy ? `: ${m.notDoneWhy}` : ''}`] : [];
      return [...notDone, ...past, ...(m.note ? [m.note] : [])].map((what) => ({ name, what }));
    }),
  );
}
