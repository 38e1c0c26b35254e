import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule } from '@angular/material/dialog';
import { KEY_MAP } from './key-map';

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
        @for (row of keys; track row.shown) {
          <tr>
            <th scope="row">
              @for (key of row.shown.split(' '); track $index) {
                @if (key === 'or') {
                  or
                } @else {
                  <kbd>{{ key }}</kbd>
                }
              }
            </th>
            <td>{{ row.words }}</td>
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
  protected readonly keys = KEY_MAP;
}
