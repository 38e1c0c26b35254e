import { inject, Injectable } from '@angular/core';
import { MatDialog, type MatDialogConfig } from '@angular/material/dialog';
import type { ComponentType } from '@angular/cdk/portal';
import { EMPTY, finalize, from, switchMap, type Observable } from 'rxjs';
import { Parts } from './parts';

/** A dialog that grows takes the focus when it has grown, and what is typed meanwhile lands in its first field. */
const AT_ONCE = { enterAnimationDuration: '0ms' } as const;

/**
 * Dialogs that are fetched when they are wanted, one at a time: a second press
 * while one is on its way opens nothing.
 */
@Injectable({ providedIn: 'root' })
export class LazyDialog {
  private readonly dialog = inject(MatDialog);
  private readonly parts = inject(Parts);
  private isOpen = false;

  /**
   * @param fetch imports the component
   * @returns what the dialog is closed with; nothing where another one is open or it cannot be fetched. Subscribing opens it.
   */
  open<R>(fetch: () => Promise<ComponentType<unknown>>, config: MatDialogConfig): Observable<R | undefined> {
    if (this.isOpen) return EMPTY;
    this.isOpen = true;
    return from(this.parts.fetch(fetch)).pipe(
      switchMap((component) =>
        component ? this.dialog.open<unknown, unknown, R>(component, { ...AT_ONCE, ...config }).afterClosed() : EMPTY,
      ),
      finalize(() => (this.isOpen = false)),
    );
  }
}
