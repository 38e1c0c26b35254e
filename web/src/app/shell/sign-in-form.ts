import { ChangeDetectionStrategy, Component, inject, input, output, signal, type OnInit } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { toFailure } from '../data/problem';
import { Session } from '../data/session';

/** E-mail and password; stands on the sign-in page and in the dialog that follows an ended session. */
@Component({
  selector: 'dg-sign-in-form',
  imports: [MatButtonModule, MatFormFieldModule, MatInputModule, ReactiveFormsModule],
  template: `
    <form [formGroup]="form" (ngSubmit)="submit()">
      <mat-form-field appearance="outline">
        <mat-label>E-mail</mat-label>
        <input matInput type="email" formControlName="email" autocomplete="username" />
        <mat-error>Type your e-mail address, as name&#64;clinic.example</mat-error>
      </mat-form-field>
      <mat-form-field appearance="outline">
        <mat-label>Password</mat-label>
        <input matInput type="password" formControlName="password" autocomplete="current-password" />
        <mat-error>Type your password</mat-error>
      </mat-form-field>
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <button matButton="filled" type="submit" [disabled]="busy()">{{ busy() ? 'Signing in …' : 'Sign in' }}</button>
    </form>
  `,
  styles: `
    form {
      display: grid;
      gap: 10px;
    }
    button {
      height: 48px;
      font-size: 16px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignInForm implements OnInit {
  private readonly session = inject(Session);
  readonly email = input('');
  readonly signedIn = output<void>();
  protected readonly problem = signal('');
  protected readonly busy = signal(false);
  protected readonly form = new FormGroup({
    email: new FormControl('', { nonNullable: true, validators: [Validators.required, Validators.email] }),
    password: new FormControl('', { nonNullable: true, validators: [Validators.required] }),
  });

  ngOnInit(): void {
    this.form.controls.email.setValue(this.email());
  }

  /** Fills in and signs in: for the people of the demo. */
  use(email: string, password: string): void {
    this.form.setValue({ email, password });
    this.submit();
  }

  protected submit(): void {
    this.form.markAllAsTouched();
    if (this.form.invalid || this.busy()) return;
    this.busy.set(true);
    this.problem.set('');
    this.session.signIn(this.form.getRawValue()).subscribe({
      next: () => this.signedIn.emit(),
      error: (error: unknown) => {
        this.busy.set(false);
        this.problem.set(toFailure(error).message);
      },
    });
  }
}
