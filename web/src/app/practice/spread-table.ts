import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router } from '@angular/router';
import { PRACTICE, type PracticeRoundView } from '@dial-gauge/contract';
import {
  formatFixed,
  formatNumber,
  formatSigned,
  LEAST_RATERS,
  motion,
  protocolName,
  PROTOCOLS,
  type Mode,
  type Spread,
} from '@dial-gauge/core';
import { Api } from '../data/api';
import { toFailure, type Failure } from '../data/problem';
import { Said } from '../ui/said';

/** How all who did a round lie apart, and what it can be made into. */
@Component({
  selector: 'dg-spread-table',
  imports: [MatButtonModule, Said],
  template: `
    <h3>How the class lies apart</h3>
    @if (spread().people.length < 2) {
      <p class="soft">You are the only one who has finished it so far.</p>
    }
    <div class="scroll">
      <table class="plain">
        <caption class="visually-hidden">
          Each person beside the truth
        </caption>
        <thead>
          <tr>
            <th scope="col">Who</th>
            <th scope="col">reads, on average</th>
            <th scope="col">scatter</th>
            <th scope="col">tasks read</th>
          </tr>
        </thead>
        <tbody>
          @for (one of spread().people; track $index) {
            <tr>
              <th scope="row">{{ one.who }}</th>
              <td class="figure">{{ one.bias === null ? '—' : signed(one.bias) + '° beside the truth' }}</td>
              <td class="figure">{{ one.scatter === null ? '—' : '± ' + fixed(one.scatter) + '°' }}</td>
              <td class="figure">{{ one.read }}</td>
            </tr>
          }
        </tbody>
      </table>
    </div>
    <div class="scroll">
      <table class="plain">
        <caption class="visually-hidden">
          Each task: truth, mean and standard deviation between people
        </caption>
        <thead>
          <tr>
            <th scope="col">Task</th>
            @for (task of spread().tasks; track $index) {
              <th scope="col" class="figure">{{ $index + 1 }}</th>
            }
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">truth</th>
            @for (task of spread().tasks; track $index) {
              <td class="figure">{{ task.truth === null ? '—' : figure(task.truth) + '°' }}</td>
            }
          </tr>
          <tr>
            <th scope="row">mean</th>
            @for (task of spread().tasks; track $index) {
              <td class="figure">{{ task.mean === null ? '—' : fixed(task.mean) + '°' }}</td>
            }
          </tr>
          <tr>
            <th scope="row">apart by</th>
            @for (task of spread().tasks; track $index) {
              <td class="figure">{{ task.sd === null ? '—' : '± ' + fixed(task.sd) + '°' }}</td>
            }
          </tr>
        </tbody>
      </table>
    </div>
    @if (spread().people.length >= least) {
      <h3>Make a study of it</h3>
      <p class="soft">
        Its numbers go to Steadiness as a study of several examiners. It stays marked as practice: no patient is ever judged by it.
      </p>
      <dg-said done="" [refusal]="refusal()" />
      <div class="row">
        <label
          >As
          <select #way aria-label="As which measurement">
            <option value="">choose the measurement</option>
            @for (one of ways(); track one.id) {
              <option [value]="one.id">{{ one.name }}</option>
            }
          </select></label
        >
        <button matButton="outlined" type="button" [disabled]="busy()" (click)="make(way.value)">Make the study</button>
      </div>
    }
  `,
  styles: `
    h3 {
      margin: 16px 0 4px;
      font-size: 15px;
    }
    .scroll {
      overflow-x: auto;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 12px;
      align-items: center;
    }
    select {
      max-width: 100%;
      min-height: 40px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SpreadTable {
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  readonly round = input.required<PracticeRoundView>();
  readonly spread = input.required<Spread>();
  protected readonly least = LEAST_RATERS;
  protected readonly busy = signal(false);
  protected readonly refusal = signal<Failure | null>(null);
  protected readonly fixed = (value: number): string => formatFixed(value, 1);
  protected readonly figure = formatNumber;
  protected readonly signed = formatSigned;

  /** Whatever is read so, in degrees that hold all that was read. */
  protected readonly ways = computed(() => {
    const instrument = this.round().exercise === 'plane' ? 'inclinometer' : 'goniometer';
    const read = this.spread().tasks.flatMap(({ truth, mean }) => [truth ?? 0, mean ?? 0]);
    return PROTOCOLS.filter(({ motion: id, instruments }) => {
      const { unit, limits, perDigit } = motion(id);
      return (
        unit === 'deg' &&
        !perDigit &&
        instruments.includes(instrument) &&
        Math.max(...read) <= limits.max &&
        Math.min(...read) >= limits.min
      );
    }).map((protocol) => ({ id: protocol.id, name: protocolName(protocol), mode: protocol.modes.at(-1)! }));
  });

  protected make(protocol: string): void {
    const way = this.ways().find(({ id }) => id === protocol);
    if (!way) {
      const message = 'What the figures stand for is missing; allowed: a measurement of the list.';
      return this.refusal.set({ status: 0, message, fields: [], passing: false });
    }
    this.busy.set(true);
    const mode: Mode = way.mode;
    const name = `Practice: ${this.round().name}`.slice(0, 80);
    this.api.call(PRACTICE.studyOfRound, { id: this.round().id, body: { id: crypto.randomUUID(), name, protocol, mode } }).subscribe({
      next: ({ id }) => void this.router.navigate(['/steadiness'], { queryParams: { study: id } }),
      error: (error: unknown) => {
        this.busy.set(false);
        this.refusal.set(toFailure(error));
      },
    });
  }
}
