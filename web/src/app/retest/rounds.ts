import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { endFigure, formatSigned, motion, rounded, type RetestVerdict, markerWords } from '@dial-gauge/core';
import type { Judged, Place } from './retesting';

interface Cell {
  readonly value: string;
  readonly verdict: RetestVerdict | null;
  /** "+9, better": what changed since the round before. */
  readonly change: string;
  readonly words: string;
  readonly place: Place;
  readonly isHere: boolean;
}

/** Markers down, rounds across: what each drill did, by the error of the marker. */
@Component({
  selector: 'dg-rounds',
  template: `
    <div class="scroll" tabindex="0" role="region" [attr.aria-label]="label()">
      <table class="plain">
        <thead>
          <tr>
            <th scope="col"><span class="visually-hidden">Marker</span></th>
            @for (round of rounds(); track round.number) {
              <th scope="col">{{ round.title }}</th>
            }
          </tr>
        </thead>
        <tbody>
          @for (row of rows(); track $index) {
            <tr>
              <th scope="row">{{ row.name }}</th>
              @for (cell of row.cells; track $index) {
                <td [class.here]="cell.isHere">
                  @if (cell.value && !isDone()) {
                    <button
                      type="button"
                      class="figure"
                      [attr.aria-label]="'Put right: ' + row.name + ', ' + cell.words"
                      (click)="correct.emit(cell.place)"
                    >
                      {{ cell.value }}
                    </button>
                  } @else {
                    <strong class="figure">{{ cell.value || '··' }}</strong>
                  }
                  <span [class]="'change ' + (cell.verdict ?? '')">{{ cell.change }}</span>
                </td>
              }
            </tr>
          }
          <tr class="sum">
            <th scope="row">together</th>
            @for (round of rounds(); track round.number) {
              <td>
                @if (round.verdict; as verdict) {
                  <span [class]="'verdict ' + verdict">
                    <svg viewBox="0 0 22 14" aria-hidden="true">
                      @switch (verdict) {
                        @case ('better') {
                          <path d="M1 11H9V3H21" />
                        }
                        @case ('worse') {
                          <path d="M1 3H9V11H21" />
                        }
                        @default {
                          <path d="M1 7H21" />
                        }
                      }</svg
                    >{{ verdict }}
                  </span>
                  @if (round.overall) {
                    <span class="change">since the baseline: {{ round.overall }}</span>
                  }
                }
              </td>
            }
          </tr>
        </tbody>
      </table>
    </div>
  `,
  styleUrl: './rounds.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Rounds {
  readonly retest = input.required<Judged>();
  readonly place = input.required<Place | null>();
  /** Names the table among the others of the page. */
  readonly label = input.required<string>();
  readonly correct = output<Place>();
  protected readonly isDone = computed(() => this.retest().view.finishedAt !== null);

  protected readonly rounds = computed(() =>
    this.retest().rounds.map(({ drill, verdict, overall }, number) => ({
      number,
      title: number === 0 ? 'baseline' : drill,
      verdict,
      // After the first drill both say the same.
      overall: number > 1 ? overall : null,
    })),
  );

  protected readonly rows = computed(() => {
    const { markers, names, rounds } = this.retest();
    const here = this.place();
    return markers.map((marker, index) => {
      const about = motion(marker.motion);
      const cells = rounds.map((round, at): Cell => {
        const value = round.values[index] ?? null;
        const change = round.sinceBefore[index] ?? null;
        return {
          value: value === null ? '' : endFigure(rounded(value, about.unit), about),
          verdict: change?.verdict ?? null,
          change: change ? `${formatSigned(rounded(change.change, about.unit))}, ${change.verdict}` : '',
          words: change ? markerWords(change, marker.motion) : at === 0 ? 'baseline' : round.drill,
          place: { round: at, marker: index },
          isHere: here?.round === at && here.marker === index,
        };
      });
      return { name: names[index]!, cells };
    });
  });
}
