import { ChangeDetectionStrategy, Component, inject, type Injector } from '@angular/core';
import { MatDialog, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatButtonModule } from '@angular/material/button';
import type { Observable } from 'rxjs';
import { Session } from '../data/session';
import { DoorForm } from './door-form';
import { ProofEntry, ProofFields } from './proof-entry';

/** After a rest somebody else may sit there: the password is asked for again before what wants it. */
@Component({
  selector: 'dg-prove',
  imports: [MatButtonModule, MatDialogModule, ProofFields],
  template: `
    <form novalidate (submit)="$event.preventDefault(); submit()">
      <h2 mat-dialog-title>Is it still you, {{ name }}?</h2>
      <mat-dialog-content>
        <p class="soft">You have rested for a while. Enter your password again; what you were about to do goes on.</p>
        <dg-proof-fields [entry]="proof" [form]="form" />
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
    dg-proof-fields {
      margin-top: 10px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProveDialog {
  private readonly session = inject(Session);
  private readonly dialog = inject<MatDialogRef<ProveDialog, boolean>>(MatDialogRef);
  protected readonly name = this.session.current()?.user.name ?? '';
  protected readonly proof = new ProofEntry();
  protected readonly form = new DoorForm(this.proof.wants);

  protected submit(): void {
    this.form.send(
      () => this.session.prove(this.proof.given()),
      () => this.dialog.close(true),
      (failure) => this.proof.isAsked(failure, this.form),
    );
  }
}

/** @returns whether it was proven, once the dialog closes */
export function openProve(injector: Injector): Observable<boolean | undefined> {
  return injector.get(MatDialog).open<ProveDialog, unknown, boolean>(ProveDialog, { width: '400px' }).afterClosed();
}
