import { ChangeDetectionStrategy, Component, inject, type Injector } from '@angular/core';
import { MatDialog, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import type { Observable } from 'rxjs';
import { Session } from '../data/session';
import { SignInForm } from './sign-in-form';

@Component({
  selector: 'dg-sign-in-again',
  imports: [MatDialogModule, SignInForm],
  template: `
    <h2 mat-dialog-title>Your session has ended</h2>
    <mat-dialog-content>
      <p class="soft">Sign in again. What you typed is still here.</p>
      <dg-sign-in-form [email]="email" (signedIn)="dialog.close(true)" />
    </mat-dialog-content>
  `,
  styles: `
    p {
      margin-bottom: 16px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignInAgainDialog {
  protected readonly dialog = inject<MatDialogRef<SignInAgainDialog, boolean>>(MatDialogRef);
  protected readonly email = inject(Session).current()?.user.email ?? '';
}

/** @returns whether somebody has signed in, once the dialog closes */
export function openSignInAgain(injector: Injector): Observable<boolean | undefined> {
  return injector
    .get(MatDialog)
    .open<SignInAgainDialog, unknown, boolean>(SignInAgainDialog, { disableClose: true, width: '380px' })
    .afterClosed();
}
