import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { DIGITS, motion, protocolName, type Digit, type Protocol, type SheetItem } from '@dial-gauge/core';
import { searchProtocols } from './search';

const MOST = 40;
const FINGERS: readonly Digit[] = DIGITS.filter((digit) => digit !== 1);
const FINGER_WORDS: Readonly<Record<Digit, string>> = { 1: 'thumb', 2: 'index', 3: 'middle', 4: 'ring', 5: 'little' };

interface Choice {
  readonly name: string;
  readonly on: boolean;
  readonly item: SheetItem;
}

/** Any way of measuring, searched for and put on the run sheet of the visit. */
@Component({
  selector: 'dg-add',
  imports: [FormsModule, MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule],
  template: `
    <h2 mat-dialog-title>Add to the run sheet</h2>
    <mat-dialog-content>
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <mat-label>Search the library</mat-label>
        <input
          matInput
          type="search"
          autocomplete="off"
          cdkFocusInitial
          [ngModel]="words()"
          (ngModelChange)="words.set($event)"
          (keydown.enter)="addFirst($event)"
        />
      </mat-form-field>
      <p class="soft" role="status">{{ count() }}</p>
      <ul>
        @for (choice of choices(); track choice.name) {
          <li>
            <button type="button" [disabled]="choice.on" (click)="add(choice.item)">
              {{ choice.name }}
              @if (choice.on) {
                <span class="soft">on the sheet</span>
              }
            </button>
          </li>
        }
      </ul>
    </mat-dialog-content>
    <mat-dialog-actions align="end"><button matButton mat-dialog-close>Back to the dial</button></mat-dialog-actions>
  `,
  styles: `
    mat-form-field {
      width: 100%;
      padding-top: 6px;
    }
    ul {
      min-height: 300px;
    }
    li button {
      width: 100%;
      padding: 8px 4px;
      border: 0;
      border-top: 1px solid var(--line);
      background: none;
      color: var(--ink);
      font: inherit;
      text-align: left;
      cursor: pointer;
    }
    li button:hover:not(:disabled) {
      background: var(--raised);
    }
    li button:disabled {
      color: var(--ink-soft);
      cursor: default;
    }
    .soft {
      font-size: 13px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AddDialog {
  private readonly dialog = inject<MatDialogRef<AddDialog, SheetItem>>(MatDialogRef);
  private readonly sheet = inject<readonly SheetItem[]>(MAT_DIALOG_DATA);
  protected readonly words = signal('');

  private readonly found = computed(() => searchProtocols(this.words()));
  protected readonly choices = computed((): Choice[] =>
    this.found()
      .flatMap((protocol) => this.choicesOf(protocol))
      .slice(0, MOST),
  );
  protected readonly count = computed(() => {
    const found = this.found().length;
    return found === 0 ? 'Nothing holds all of these words.' : `${found} ways of measuring; Enter adds the first.`;
  });

  protected add(item: SheetItem): void {
    this.dialog.close(item);
  }

  protected addFirst(event: Event): void {
    event.preventDefault();
    const first = this.choices().find((choice) => !choice.on);
    if (first) this.add(first.item);
  }

  /** A finger's joint is offered for every finger. */
  private choicesOf(protocol: Protocol): Choice[] {
    const digits = motion(protocol.motion).perDigit ? FINGERS : [undefined];
    return digits.map((digit) => ({
      name: [protocolName(protocol), digit && `${FINGER_WORDS[digit]} finger`].filter(Boolean).join(', '),
      on: this.sheet.some((item) => item.protocol === protocol.id && item.digit === digit),
      item: { protocol: protocol.id, ...(digit ? { digit } : {}) },
    }));
  }
}
