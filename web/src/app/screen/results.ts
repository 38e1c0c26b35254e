import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  amountWords,
  breakdownOf,
  faultWords,
  itemName,
  itemReasonWords,
  MODIFICATION_WORDS,
  modedName,
  protocolOfId,
  screenSummary,
  sidesOf,
  VIEW_WORDS,
  wayOfItem,
  type MeasureNext,
  type ItemOutcome,
  type Side,
} from '@dial-gauge/core';
import { BodyMap } from '../ui/body-map/body-map';
import { itemMarks } from '../ui/body-map/item-marks';

interface Cell {
  readonly quality: ItemOutcome['quality'];
  readonly words: string;
  readonly hurts: string;
  readonly change: string;
  readonly because: string;
}

interface Row {
  readonly key: string;
  readonly name: string;
  readonly left: Cell | null;
  readonly middle: Cell | null;
  readonly right: Cell | null;
  readonly sides: string;
}

const CHANGE: Readonly<Record<'better' | 'worse' | 'same' | 'not told', string>> = {
  better: 'better than last time',
  worse: 'worse than last time',
  same: 'as last time',
  'not told': '',
};

/** What screens came to: a figure of the whole body with what is short, one-sided and painful; and a table by item and side. */
@Component({
  selector: 'dg-screen-results',
  imports: [BodyMap, RouterLink],
  template: `
    @if (outcomes().length === 0) {
      <p class="soft">Nothing was screened yet.</p>
    } @else {
      <div class="split">
        <div>
          <p class="sums">{{ sums() }}</p>
          <table class="plain">
            <thead>
              <tr>
                <th scope="col">item</th>
                <th scope="col">left</th>
                <th scope="col">both, middle</th>
                <th scope="col">right</th>
                <th scope="col">sides</th>
              </tr>
            </thead>
            <tbody>
              @for (row of rows(); track row.key) {
                <tr>
                  <th scope="row">{{ row.name }}</th>
                  @for (cell of [row.left, row.middle, row.right]; track $index) {
                    <td>
                      @if (cell) {
                        <span
                          [class]="cell.quality === 'short' ? 'short' : cell.quality === 'meets' ? 'meets' : 'silent'"
                          [title]="cell.because"
                          ><span class="shape" aria-hidden="true"></span>{{ cell.words }}</span
                        >
                        @if (cell.hurts) {
                          <span class="hurts"><span class="zigzag" aria-hidden="true">⌇</span>{{ cell.hurts }}</span>
                        }
                        @if (cell.change) {
                          <span class="soft">{{ cell.change }}</span>
                        }
                      }
                    </td>
                  }
                  <td class="soft">{{ row.sides }}</td>
                </tr>
              }
            </tbody>
          </table>
          @if (words().length) {
            <h3>In words</h3>
            <ul class="words">
              @for (line of words(); track $index) {
                <li>{{ line }}</li>
              }
            </ul>
          }
        </div>
        <div class="map">
          @if (showsMap()) {
            <dg-body-map [marks]="marks()" />
          }
          @if (opens().length) {
            <h3>What could limit it</h3>
            <ul>
              @for (open of opens(); track open.key) {
                <li>
                  <a [routerLink]="['/visits', visitId(), 'limits']" [queryParams]="{ pattern: open.pattern, side: open.side }">{{
                    open.name
                  }}</a>
                </li>
              }
            </ul>
          }
          @if (measure().length) {
            <h3>Measure this next</h3>
            <ul>
              @for (one of measure(); track one.key) {
                <li>
                  <a [routerLink]="['/visits', visitId(), 'measure']" [queryParams]="one.address">{{ one.name }}</a>
                  <span class="soft">for: {{ one.because }}</span>
                </li>
              }
            </ul>
          }
        </div>
      </div>
    }
  `,
  styles: `
    .split {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 220px;
      gap: 24px;
    }
    .sums {
      margin-bottom: 8px;
    }
    td > span,
    .hurts {
      display: block;
    }
    .short {
      color: var(--ochre);
      font-weight: 700;
    }
    .meets {
      color: var(--petrol);
    }
    .silent {
      color: var(--slate);
    }
    .hurts {
      color: var(--plum);
    }
    .zigzag {
      margin-right: 4px;
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
    h3 {
      margin: 12px 0 4px;
      font-size: 15px;
    }
    .words {
      max-width: 75ch;
      font-size: 14px;
    }
    li {
      padding: 4px 0;
    }
    @media (max-width: 900px) {
      .split {
        grid-template-columns: minmax(0, 1fr);
      }
      table {
        font-size: 13px;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScreenResults {
  readonly outcomes = input.required<readonly ItemOutcome[]>();
  readonly visitId = input.required<string>();
  /** The figure of the body; left out where another one stands beside it. */
  readonly showsMap = input(true);
  /** What puts a number to what is short. */
  readonly next = input<readonly MeasureNext[]>([]);

  protected readonly sums = computed(() => {
    const all = this.outcomes();
    const count = (quality: ItemOutcome['quality']) => all.filter((one) => one.quality === quality).length;
    const hurting = all.filter(({ pain }) => (pain ?? 0) > 0).length;
    return `${count('meets')} meet, ${count('short')} short, ${count('not judged')} not judged${hurting ? `; ${hurting} hurt: to be looked at before they are worked on` : ''}.`;
  });

  protected readonly rows = computed((): readonly Row[] => {
    const rows = new Map<string, ItemOutcome[]>();
    for (const one of this.outcomes()) {
      const key = wayOfItem(one);
      rows.set(key, [...(rows.get(key) ?? []), one]);
    }
    return [...rows].map(([key, own]) => {
      const on = (side: Side) => own.find((one) => one.side === side);
      const [left, right] = [on('left'), on('right')];
      const { name, view, with: changes } = own[0]!;
      return {
        key,
        name: [name, view ? VIEW_WORDS[view] : '', ...changes.map((change) => MODIFICATION_WORDS[change])].filter(Boolean).join(', '),
        left: cellOf(left),
        middle: cellOf(on('midline')),
        right: cellOf(right),
        sides: left && right ? sideWords(left, right) : '',
      };
    });
  });

  protected readonly marks = computed(() => itemMarks(this.outcomes()));
  /** What the items came to in sentences, front and back of the body apart. */
  protected readonly words = computed(() => screenSummary(this.outcomes()));

  /** Measurements that put a number to what is short: each leads to the run sheet. */
  protected readonly measure = computed(() =>
    this.next().map(({ protocol: id, side, mode, because }) => {
      const protocol = protocolOfId(id)!;
      return {
        key: `${id}|${mode}|${side}`,
        name: `${modedName(protocol.motion, side, mode)}, ${protocol.label}`,
        because: itemName(because),
        address: { add: id, side, mode },
      };
    }),
  );

  protected readonly opens = computed(() => {
    const seen = new Map<string, { key: string; pattern: string; side: Side; name: string }>();
    for (const { opens, side } of this.outcomes())
      for (const pattern of opens) {
        const key = `${pattern}|${side}`;
        seen.set(key, { key, pattern, side, name: `${breakdownOf(pattern).name}${side === 'midline' ? '' : `, ${side}`}` });
      }
    return [...seen.values()];
  });
}

function cellOf(one: ItemOutcome | undefined): Cell | null {
  if (!one) return null;
  const figure = one.value !== null && one.unit !== null ? amountWords(one.value, one.unit).replace(' ', '\u00a0') : '';
  const faults = one.faults.map(faultWords).join(', ');
  const { before } = one;
  return {
    quality: one.quality,
    words: [one.quality, figure, faults].filter(Boolean).join(': ').replace(': ', ' · '),
    hurts: (one.pain ?? 0) > 0 ? `hurts ${one.pain} of 10${one.painWhere ? `, ${one.painWhere}` : ''}` : '',
    change: before
      ? [CHANGE[before.change], before.value !== null && one.unit !== null ? `(${amountWords(before.value, one.unit)})` : '']
          .filter(Boolean)
          .join(' ')
      : '',
    because: one.reasons.map(itemReasonWords).join('; '),
  };
}

function sideWords(left: ItemOutcome, right: ItemOutcome): string {
  const sides = sidesOf(left, right);
  if (sides && left.unit !== null) {
    const size = amountWords(Math.round(Math.abs(sides.difference) * 10) / 10, left.unit);
    return sides.real ? `${size} apart, more than the error` : `${size} apart, within error`;
  }
  if (left.quality === 'not judged' || right.quality === 'not judged') return '';
  if (left.quality === right.quality) return 'alike';
  return `${left.quality === 'short' ? 'left' : 'right'} side alone is short`;
}
