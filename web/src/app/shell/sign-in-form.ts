import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, linkedSignal, output, signal } from '@angular/core';
import { toFailure } from '../data/problem';
import { Session } from '../data/session';

/** Something, an at, something: whether there is such an address only the server knows. */
const ADDRESS = /^\S+@\S+$/;

/**
 * E-mail and password; stands on the sign-in page and in the dialog that
 * follows an ended session. Plain fields: the door is the first thing that is
 * fetched, and carries nothing it does not need.
 */
@Component({
  selector: 'dg-sign-in-form',
  template: `
    <form novalidate (submit)="$event.preventDefault(); submit()">
      <label>
        <span>E-mail</span>
        <input
          type="email"
          name="email"
          autocomplete="username"
          maxlength="200"
          required
          [value]="address()"
          (input)="address.set($any($event.target).value)"
          [attr.aria-invalid]="tried() && !hasAddress()"
          [attr.aria-describedby]="tried() && !hasAddress() ? 'email-wrong' : null"
        />
      </label>
      @if (tried() && !hasAddress()) {
        <p class="wrong" id="email-wrong">Type your e-mail address, as name&#64;clinic.example</p>
      }
      <label>
        <span>Password</span>
        <input
          type="password"
          name="password"
          autocomplete="current-password"
          maxlength="200"
          required
          [value]="password()"
          (input)="password.set($any($event.target).value)"
          [attr.aria-invalid]="tried() && !password()"
          [attr.aria-describedby]="tried() && !password() ? 'password-wrong' : null"
        />
      </label>
      @if (tried() && !password()) {
        <p class="wrong" id="password-wrong">Type your password</p>
      }
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <button type="submit" [disabled]="busy()">{{ busy() ? 'Signing in …' : 'Sign in' }}</button>
    </form>
  `,
  styles: `
    form {
      display: grid;
      gap: 10px;
    }
    label {
      display: grid;
      gap: 4px;
    }
    input {
      box-sizing: border-box;
      width: 100%;
      height: 48px;
      padding: 0 14px;
      border: 1px solid var(--line-strong);
      border-radius: 6px;
      background: var(--raised);
      color: var(--ink);
      font: inherit;
      font-size: 16px;
    }
    input[aria-invalid='true'] {
      border: 2px solid var(--plum);
    }
    .wrong {
      color: var(--plum);
      font-size: 13px;
    }
    button {
      height: 48px;
      margin-top: 6px;
      border: 0;
      border-radius: 6px;
      background: var(--mat-sys-primary);
      color: var(--mat-sys-on-primary);
      font: inherit;
      font-size: 16px;
      cursor: pointer;
    }
    button:hover {
      filter: brightness(1.12);
    }
    button:disabled {
      opacity: 0.6;
      cursor: default;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignInForm {
  private readonly session = inject(Session);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly email = input('');
  readonly signedIn = output<void>();
  protected readonly address = linkedSignal(() => this.email());
  protected readonly password = signal('');
  protected readonly problem = signal('');
  protected readonly busy = signal(false);
  /** Sent once: from then on what is missing is named. */
  protected readonly tried = signal(false);
  protected readonly hasAddress = computed(() => ADDRESS.test(this.address().trim()));

  /** Fills in and signs in: for the people of the demo. */
  use(email: string, password: string): void {
    this.address.set(email);
    this.password.set(password);
    this.submit();
  }

  protected submit(): void {
    this.tried.set(true);
    if (this.busy()) return;
    if (!this.hasAddress() || !this.password()) {
      this.host.querySelector<HTMLInputElement>(this.hasAddress() ? 'input[type=password]' : 'input[type=email]')?.focus();
      return;
    }
    this.busy.set(true);
    this.problem.set('');
    this.session.signIn({ email: this.address().trim(), password: this.password() }).subscribe({
      next: () => this.signedIn.emit(),
      error: (error: unknown) => {
        this.busy.set(false);
        this.problem.set(toFailure(error).message);
      },
    });
  }
}
