import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatBottomSheetRef } from '@angular/material/bottom-sheet';
import { RunSheet } from './run-sheet';

/** A swipe so far down closes. */
const DOWN = 50;

/** The run sheet over the dial, on a phone: one swipe up, one swipe down. */
@Component({
  selector: 'dg-run-sheet-sheet',
  imports: [MatButtonModule, RunSheet],
  template: `
    <div class="head" (touchstart)="from = $event.touches[0]!.clientY" (touchend)="ended($event)">
      <span class="grip" aria-hidden="true"></span>
      <button matButton type="button" (click)="sheet.dismiss()">Back to the dial</button>
    </div>
    <dg-run-sheet (chosen)="sheet.dismiss()" (add)="sheet.dismiss('add')" />
  `,
  styles: `
    .head {
      display: flex;
      align-items: center;
      justify-content: space-between;
      padding: 4px 8px 0 20px;
      touch-action: none;
    }
    .grip {
      width: 56px;
      height: 5px;
      border-radius: 3px;
      background: var(--line-strong);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RunSheetSheet {
  protected readonly sheet = inject(MatBottomSheetRef) as MatBottomSheetRef<RunSheetSheet, 'add'>;
  protected from = 0;

  protected ended({ changedTouches }: TouchEvent): void {
    if (changedTouches[0]!.clientY - this.from > DOWN) this.sheet.dismiss();
  }
}
