import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { VisitView } from '@dial-gauge/contract';
import {
  amountWords,
  dayWords,
  faultWords,
  findScreen,
  itemName,
  painAdvice,
  type ItemBefore,
  type ItemPoint,
  type ItemSeries,
} from '@dial-gauge/core';

interface Cell {
  readonly visit: number;
  readonly quality: ItemPoint['quality'];
  readonly words: string;
  readonly hurts: string;
}

/** Items of screens over the visits: what each came to by what held on its day, and what changed by its own error. */
@Component({
  selector: 'dg-screen-series',
  template: `
    <div class="scroll" tabindex="0" role="region" aria-label="Screens over the visits">
      <table class="plain">
        <thead>
          <tr>
            <th scope="col">item</th>
            @for (visit of columns(); track visit.at) {
              <th scope="col">{{ visit.words }}</th>
            }
            <th scope="col">since the first</th>
            <th scope="col">since the last</th>
          </tr>
        </thead>
        @for (group of groups(); track group.id) {
          <tbody>
            <tr>
              <th class="group" scope="rowgroup" [attr.colspan]="columns().length + 3">{{ group.name }}</th>
            </tr>
            @for (row of group.rows; track row.key) {
              <tr>
                <th scope="row">{{ row.name }}</th>
                @for (cell of row.cells; track $index) {
                  <td>
                    @if (cell) {
                      <span [class]="cell.quality === 'short' ? 'short' : cell.quality === 'meets' ? 'meets' : 'silent'"
                        ><span class="shape" aria-hidden="true"></span>{{ cell.words }}</span
                      >
                      @if (cell.hurts) {
                        <span class="hurts"><span aria-hidden="true">⌇ </span>{{ cell.hurts }}</span>
                      }
                    } @else {
                      <span class="soft" aria-hidden="true">··</span><span class="visually-hidden">not done</span>
                    }
                  </td>
                }
                <td [class]="row.first.change">{{ row.first.words }}</td>
                <td [class]="row.last.change">{{ row.last.words }}</td>
              </tr>
            }
          </tbody>
        }
      </table>
    </div>
    <p class="soft">
      Each time by what held on its day; a change by what holds now, and by the item’s own error.
      @if (hurting()) {
        {{ advice }}.
      }
    </p>
  `,
  styles: `
    .scroll {
      overflow-x: auto;
    }
    .group {
      padding-top: 12px;
      text-align: left;
      font-size: 15px;
    }
    td {
      min-width: 84px;
      vertical-align: top;
    }
    td > span {
      display: block;
    }
    .short {
      color: var(--ochre);
      font-weight: 700;
    }
    .meets,
    .better {
      color: var(--petrol);
    }
    .better,
    .worse {
      font-weight: 700;
    }
    .silent {
      color: var(--slate);
    }
    .hurts,
    .worse {
      color: var(--plum);
    }
    .shape {
      display: inline-block;
      width: 8px;
      height: 8px;
      margin-right: 6px;
      border: 2px solid currentColor;
      border-radius: 50%;
    }
    .meets .shape {
      background: currentColor;
    }
    .short .shape {
      border-radius: 0;
      border-top-color: transparent;
    }
    .silent .shape {
      border-style: dotted;
    }
    p {
      padding-top: 6px;
      font-size: 13px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScreenSeries {
  readonly series = input.required<readonly ItemSeries[]>();
  readonly visits = input.required<readonly VisitView[]>();
  /** A day as the episode counts it. */
  readonly day = input<(on: string) => string>(dayWords);
  protected readonly advice = painAdvice();

  /** Visits at which something was screened. */
  protected readonly columns = computed(() => {
    const at = [...new Set(this.series().flatMap(({ points }) => points.map(({ visit }) => visit)))].sort((a, b) => a - b);
    return at.map((index) => ({ at: index, words: this.day()(this.visits()[index]!.assessedOn) }));
  });
  protected readonly hurting = computed(() => this.series().some(({ points }) => (points.at(-1)?.pain ?? 0) > 0));
  protected readonly groups = computed(() => {
    const ids = [...new Set(this.series().map(({ screen }) => screen))];
    return ids.map((id) => ({
      id,
      name: findScreen(id)?.name ?? 'The clinic’s own screen',
      rows: this.series()
        .filter(({ screen }) => screen === id)
        .map((one) => ({
          key: one.key,
          name: itemName(one),
          cells: this.columns().map(({ at }) => cellOf(one, at)),
          first: changeOf(one, one.sinceFirst),
          last: changeOf(one, one.sinceLast),
        })),
    }));
  });
}

function cellOf({ points, unit }: ItemSeries, visit: number): Cell | null {
  const point = points.find((one) => one.visit === visit);
  if (!point) return null;
  const figure = point.value !== null && unit !== null ? amountWords(point.value, unit) : '';
  return {
    visit,
    quality: point.quality,
    words: [point.quality, figure, ...point.faults.map(faultWords)].filter(Boolean).join(' · '),
    hurts: (point.pain ?? 0) > 0 ? `hurts ${point.pain} of 10` : '',
  };
}

const SAID: Readonly<Record<ItemBefore['change'], string>> = {
  better: 'better',
  worse: 'worse',
  same: 'the same',
  'not told': 'cannot be told',
};

function changeOf({ points, unit, isCurrent }: ItemSeries, since: ItemBefore | null): { words: string; change: string } {
  if (!since) return { words: '', change: '' };
  const now = points.at(-1)!;
  const figures =
    since.value !== null && now.value !== null && unit !== null
      ? `, ${amountWords(since.value, unit)} → ${amountWords(now.value, unit)}`
      : '';
  const when = isCurrent ? '' : ' at its last time';
  return { words: `${SAID[since.change]}${when}${figures}`, change: since.change.replace(' ', '-') };
}
