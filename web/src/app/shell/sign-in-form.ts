import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  afterNextRender,
  Injector,
} from '@angular/core';
import { Session } from '../data/session';
import { DoorField } from './door-field';
import { DoorForm, looksLikeAddress } from './door-form';

/**
 * E-mail and password, and the code of an authenticator where one is wanted;
 * stands on the sign-in page and in the dialog that follows an ended session.
 */
@Component({
  selector: 'dg-sign-in-form',
  imports: [DoorField],
  template: `
    <form novalidate (submit)="$event.preventDefault(); submit()">
      <dg-door-field label="E-mail" name="email" type="email" autocomplete="username" [(value)]="address" [wrong]="form.wrong('email')" />
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
          hint="The six digits it shows now, or one of your codes for when it is lost"
          [most]="40"
          [(value)]="code"
          [wrong]="form.wrong('code')"
        />
      }
      @if (form.problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <button type="submit" class="door" [disabled]="form.busy()">{{ form.busy() ? 'Signing in …' : 'Sign in' }}</button>
    </form>
  `,
  styleUrl: './door-form.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignInForm {
  private readonly session = inject(Session);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  /** Whose e-mail it starts with. */
  readonly email = input('');
  readonly signedIn = output();
  protected readonly address = linkedSignal(() => this.email());
  protected readonly password = signal('');
  protected readonly code = signal('');
  /** Set once the server has asked for it. */
  protected readonly wantsCode = signal(false);
  protected readonly form = new DoorForm({
    email: () => (looksLikeAddress(this.address()) ? '' : 'Type your e-mail address, as name@clinic.example'),
    password: () => (this.password() ? '' : 'Type your password'),
    code: () => (this.wantsCode() && this.code().trim().length < 6 ? 'Type the six digits, or a code for when it is lost' : ''),
  });

  /** Fills in and signs in: for the people of the demo. */
  use(email: string, password: string): void {
    this.address.set(email);
    this.password.set(password);
    this.submit();
  }

  protected submit(): void {
    const [email, password, code] = [this.address().trim(), this.password(), this.code().trim()];
    const sent = this.form.send(
      () => this.session.signIn({ email, password, ...(this.wantsCode() ? { code } : {}) }),
      () => this.signedIn.emit(),
      ({ kind }) => {
        if (kind !== 'second-factor') return false;
        this.wantsCode.set(true);
        this.form.tried.set(false);
        this.focusOn('code');
        return true;
      },
    );
    if (!sent) this.focusOn(['email', 'password', 'code'].find((field) => this.form.wrong(field)) ?? '');
  }

  private focusOn(field: string): void {
    afterNextRender(() => this.host.querySelector<HTMLInputElement>(`input[name="${field}"]`)?.focus(), { injector: this.injector });
  }
}
