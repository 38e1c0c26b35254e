import { ChangeDetectionStrategy, Component, inject, signal, type Injector } from '@angular/core';
import { MatDialog, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatButtonModule } from '@angular/material/button';
import type { Observable } from 'rxjs';
import { Session } from '../data/session';
import { DoorField } from './door-field';
import { DoorForm } from './door-form';

/** After a rest somebody else may sit there: the password is asked for again before what wants it. */
@Component({
  selector: 'dg-prove',
  imports: [DoorField, MatButtonModule, MatDialogModule],
  template: `
    <form novalidate (submit)="$event.preventDefault(); submit()">
      <h2 mat-dialog-title>Is it still you, {{ name }}?</h2>
      <mat-dialog-content>
        <p class="soft">You have rested for a while. Enter your password again; what you were about to do goes on.</p>
        <dg-door-field
          label="Password"
          name="password"
          type="password"
          autocomplete="current-password"
          [(value)]="password"
          [wrong]="form.wrong('password')"
        />
        @if (wantsCode()) {
          <dg-door-field
            label="Code of your authenticator"
            name="code"
            autocomplete="one-time-code"
            [most]="40"
            [(value)]="code"
            [wrong]="form.wrong('code')"
          />
        }
        @if (form.problem(); as text) {
          <p class="problem" role="alert">{{ text }}</p>
        }
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button matButton type="button" mat-dialog-close>Not now</button>
        <button matButton="filled" type="submit" [disabled]="form.busy()">Go on</button>
      </mat-dialog-actions>
    </form>
  `,
  styles: `
    dg-door-field {
      margin-top: 10px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProveDialog {
  private readonly session = inject(Session);
  private readonly dialog = inject<MatDialogRef<ProveDialog, boolean>>(MatDialogRef);
  protected readonly name = this.session.current()?.user.name ?? '';
  protected readonly password = signal('');
  protected readonly code = signal('');
  protected readonly wantsCode = signal(false);
  protected readonly form = new DoorForm({
    password: () => (this.password() ? '' : 'Type your password'),
    code: () => (this.wantsCode() && this.code().trim().length < 6 ? 'Type the six digits, or a code for when it is lost' : ''),
  });

  protected submit(): void {
    const code = this.code().trim();
    this.form.send(
      () => this.session.prove({ password: this.password(), ...(this.wantsCode() ? { code } : {}) }),
      () => this.dialog.close(true),
      ({ kind }) => {
        if (kind !== 'second-factor') return false;
        this.wantsCode.set(true);
        this.form.tried.set(false);
        return true;
      },
    );
  }
}

/** @returns whether it was proven, once the dialog closes */
export function openProve(injector: Injector): Observable<boolean | undefined> {
  return injector.get(MatDialog).open<ProveDialog, unknown, boolean>(ProveDialog, { width: '400px' }).afterClosed();
}
