import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule } from '@angular/material/dialog';

const KEYS = [
  ['0–9 Enter', 'hold a reading'],
  ['10/45 Enter', 'start and end, when the start was not zero; zero and end of a device that was not set'],
  ['-15 Enter', 'a lack: zero was not reached'],
  ['104/49 Enter', 'two sites, in the order of the hands; Enter after a figure goes to the next'],
  ['l45 or 45r', 'with the side said: one that disagrees with the drawing is caught'],
  ['S:0-15-120 Enter', 'an arc: fills both directions'],
  ['47lb or 1f2', 'another unit; one fist and two fingers'],
  ['y or n', 'an answer, where one is asked'],
  ['o', 'other side'],
  ['m', 'active / passive of the same motion'],
  ['↓ or n', 'next on the run sheet'],
  ['↑ or b', 'back on the run sheet'],
  ['Enter', 'the patient is turned, where a turn is asked (Esc: not yet)'],
  ['u or Ctrl z', 'undo: withdraw the reading held last'],
  ['z', 'correct the last reading of this motion; the old value stays on record'],
  ['e', 'end feel (arrows, Space; Esc returns)'],
  ['p', 'pain, 0 to 10 (Enter returns)'],
  ['x', 'what faked the range (arrows, Space; Esc returns)'],
  ['k', 'not done: left out, refused, not possible'],
  ['c', 'a note'],
  ['g', 'instrument, device scale, units'],
  ['v', 'where you stand: foot or head of the table'],
  ['a', 'add any way of measuring to the run sheet'],
  ['i', 'library: figure, norms of all sets, measuring error'],
  ['Esc', 'clear what is typed'],
  ['?', 'this list'],
] as const;

@Component({
  selector: 'dg-keys',
  imports: [MatButtonModule, MatDialogModule],
  template: `
    <h2 mat-dialog-title>Keys at the dial</h2>
    <mat-dialog-content tabindex="0">
      <p class="soft">
        They work while the big figure has the focus; a letter that may belong to a figure being typed (a unit, a side) is text then. Tab
        moves on as everywhere.
      </p>
      <table>
        @for (row of keys; track row[0]) {
          <tr>
            <th scope="row">
              @for (key of row[0].split(' '); track $index) {
                @if (key === 'or') {
                  or
                } @else {
                  <kbd>{{ key }}</kbd>
                }
              }
            </th>
            <td>{{ row[1] }}</td>
          </tr>
        }
      </table>
    </mat-dialog-content>
    <mat-dialog-actions align="end"><button matButton mat-dialog-close>Back to the dial</button></mat-dialog-actions>
  `,
  styles: `
    th {
      padding: 3px 18px 3px 0;
      font-weight: 400;
      text-align: left;
      white-space: nowrap;
    }
    p {
      margin-bottom: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeysDialog {
  protected readonly keys = KEYS;
}
