import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  inject,
  input,
  linkedSignal,
  output,
  afterNextRender,
  Injector,
} from '@angular/core';
import { Session } from '../data/session';
import { DoorField } from './door-field';
import { DoorForm, looksLikeAddress } from './door-form';
import { ProofEntry, ProofFields } from './proof-entry';

/**
 * E-mail and password, and the code of an authenticator where one is wanted;
 * stands on the sign-in page and in the dialog that follows an ended session.
 */
@Component({
  selector: 'dg-sign-in-form',
  imports: [DoorField, ProofFields],
  template: `
    <form novalidate (submit)="$event.preventDefault(); submit()">
      <dg-door-field label="E-mail" name="email" type="email" autocomplete="username" [(value)]="address" [wrong]="form.wrong('email')" />
      <dg-proof-fields [entry]="proof" [form]="form" codeHint="The six digits it shows now, or one of your codes for when it is lost" />
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
  protected readonly proof = new ProofEntry();
  protected readonly form = new DoorForm({
    email: () => (looksLikeAddress(this.address()) ? '' : 'Type your e-mail address, as name@clinic.example'),
    ...this.proof.wants,
  });

  /** Fills in and signs in: for the people of the demo. */
  use(email: string, password: string): void {
    this.address.set(email);
    this.proof.password.set(password);
    this.submit();
  }

  protected submit(): void {
    const sent = this.form.send(
      () => this.session.signIn({ email: this.address().trim(), ...this.proof.given() }),
      () => this.signedIn.emit(),
      (failure) => {
        const isAsked = this.proof.isAsked(failure, this.form);
        if (isAsked) this.focusOn('code');
        return isAsked;
      },
    );
    if (!sent) this.focusOn(['email', 'password', 'code'].find((field) => this.form.wrong(field)) ?? '');
  }

  private focusOn(field: string): void {
    afterNextRender(() => this.host.querySelector<HTMLInputElement>(`input[name="${field}"]`)?.focus(), { injector: this.injector });
  }
}
