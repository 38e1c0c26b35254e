import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule } from '@angular/material/dialog';

const KEYS = [
  ['0–9 Enter', 'hold a reading'],
  ['10/45 Enter', 'hold start and end, when the start was not zero'],
  ['-15 Enter', 'hold a lack: zero was not reached'],
  ['o', 'other side'],
  ['m', 'active / passive of the same motion'],
  ['↓ or n', 'next on the run sheet'],
  ['↑ or b', 'back on the run sheet'],
  ['u or Ctrl z', 'undo: withdraw the reading held last'],
  ['e', 'end feel (arrows, Space; Esc returns)'],
  ['p', 'pain, 0 to 10 (Enter returns)'],
  ['a', 'add any way of measuring to the run sheet'],
  ['104/49 Enter', 'two inclinometers: upper and lower site, both set to zero before'],
  ['l', 'library: figure, norms of all sets, measuring error'],
  ['x', 'what faked the range (arrows, Space; Esc returns)'],
  ['Esc', 'clear what is typed'],
  ['?', 'this list'],
] as const;

@Component({
  selector: 'dg-keys',
  imports: [MatButtonModule, MatDialogModule],
  template: `
    <h2 mat-dialog-title>Keys at the dial</h2>
    <mat-dialog-content tabindex="0">
      <p class="soft">They work while the big figure has the focus. Tab moves on as everywhere.</p>
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
