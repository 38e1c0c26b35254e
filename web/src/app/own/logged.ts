import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { PATIENT_PAGES, type LoggedDayView, type StepView } from '@dial-gauge/contract';
import { dayWords } from '@dial-gauge/core';
import { Api } from '../data/api';
import { toFailure } from '../data/problem';

const SHOWN = 7;

/** What came from the person's own page: their last days, and where their drills stand by it. Nothing where nothing came. */
@Component({
  selector: 'dg-logged',
  template: `
    @if (view(); as v) {
      @if (v.logged.length) {
        <section aria-labelledby="logged-heading">
          <h2 id="logged-heading">From their own page</h2>
          @for (step of v.steps; track step.given + step.side) {
            @if (step.rests || step.drill !== step.given) {
              <p [class.rests]="step.rests">{{ stepWords(step) }}</p>
            }
          }
          <table>
            <caption class="visually-hidden">
              The last days as they were logged
            </caption>
            <thead>
              <tr>
                <th scope="col">day</th>
                <th scope="col">done</th>
                <th scope="col">pain</th>
                <th scope="col">swelling</th>
                <th scope="col">said</th>
              </tr>
            </thead>
            <tbody>
              @for (day of days(); track day.on) {
                <tr>
                  <th scope="row">{{ dayWords(day.on) }}</th>
                  <td>{{ day.done.length }} of {{ v.steps.length || day.done.length }}</td>
                  <td>{{ day.pain ?? 'not said' }}</td>
                  <td [class.more]="day.swelling">{{ day.swelling === null ? 'not said' : day.swelling ? 'more' : 'no more' }}</td>
                  <td class="said">{{ said(day) }}</td>
                </tr>
              }
            </tbody>
          </table>
          @if (v.logged.length > days().length) {
            <p class="soft">and {{ v.logged.length - days().length }} days before</p>
          }
        </section>
      }
    }
    @if (failure(); as text) {
      <p class="problem" role="alert">What was logged at home could not be read: {{ text }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
    }
    h2 {
      margin: 16px 0 4px;
      font-size: 15px;
    }
    table {
      width: 100%;
      border-collapse: collapse;
      font-size: 14px;
    }
    th,
    td {
      padding: 3px 10px 3px 0;
      border-bottom: 1px solid var(--line);
      text-align: left;
      vertical-align: top;
    }
    thead th {
      color: var(--ink-soft);
      font-weight: 400;
    }
    .rests,
    .more {
      color: var(--plum);
      font-weight: 700;
    }
    .said {
      overflow-wrap: anywhere;
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
export class Logged {
  private readonly api = inject(Api);
  readonly episodeId = input.required<string>();
  private readonly loaded = rxResource({
    params: () => this.episodeId(),
    stream: ({ params }) => this.api.call(PATIENT_PAGES.patientPages, { id: params }),
  });
  protected readonly view = computed(() => (this.loaded.hasValue() ? this.loaded.value() : undefined));
  protected readonly failure = computed(() => (this.loaded.error() ? toFailure(this.loaded.error()).message : ''));
  protected readonly days = computed(() => this.view()?.logged.slice(0, SHOWN) ?? []);
  protected readonly dayWords = dayWords;

  protected stepWords({ givenName, drillName, words, rests, on }: StepView): string {
    const since = on ? `, since ${dayWords(on)}` : '';
    if (rests) return `${drillName} is left out on their page${since}: ${words}.`;
    return `${givenName} is now ${drillName} on their page${since}: ${words}.`;
  }

  protected said({ easy, worse, note }: LoggedDayView): string {
    return [easy === null ? '' : easy ? 'easy' : 'not easy', worse ? 'worse than before' : '', note].filter(Boolean).join('; ');
  }
}
