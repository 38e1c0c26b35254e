import { ChangeDetectionStrategy, Component, inject, linkedSignal, signal } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { toFailure } from '../data/problem';
import { Session } from '../data/session';
import { DoorField } from './door-field';
import { DoorForm } from './door-form';
import { NewPassword, passwordWants } from './new-password';
import { SignInDial } from './sign-in-dial';

/** Whoever was invited chooses name and password; or another password, where the one before was forgotten. */
@Component({
  selector: 'dg-join',
  imports: [DoorField, NewPassword, RouterLink, SignInDial],
  template: `
    <main>
      <dg-sign-in-dial />
      <section>
        @if (link.hasValue()) {
          @let l = link.value();
          @if (l.kind === 'joining') {
            <h1>Join {{ l.clinic }}</h1>
            <p class="soft">You are invited as {{ l.role }}, with {{ l.email }}. Choose a password; the link works once.</p>
          } @else {
            <h1>Another password</h1>
            <p class="soft">For {{ l.name }}, {{ l.email }}, {{ l.clinic }}. Everywhere you are signed in ends; the link works once.</p>
          }
          <form novalidate (submit)="$event.preventDefault(); submit()">
            @if (l.kind === 'joining') {
              <dg-door-field
                label="Your name, as it stands below what you measure"
                name="name"
                autocomplete="name"
                [most]="120"
                [(value)]="name"
                [wrong]="form.wrong('name')"
              />
            }
            @if (l.needsFactor) {
              <dg-door-field
                label="Code of your authenticator"
                name="code"
                autocomplete="one-time-code"
                hint="Somebody else has seen this link. The six digits your authenticator shows now, or a recovery code, prove that it is you."
                [(value)]="code"
                [wrong]="form.wrong('code')"
              />
            }
            <dg-new-password [(value)]="password" [wrong]="form.wrong('password')" />
            @if (form.problem(); as text) {
              <p class="problem" role="alert">{{ text }}</p>
            }
            <button type="submit" class="door" [disabled]="form.busy()">
              {{ form.busy() ? 'Sending …' : l.kind === 'joining' ? 'Join' : 'Use this password' }}
            </button>
          </form>
        } @else if (link.error()) {
          <h1>This link opens nothing</h1>
          <p class="problem" role="alert">{{ why() }}</p>
          <p><a routerLink="/sign-in">Sign in</a></p>
        } @else {
          <p class="soft" role="status">Looking at the link …</p>
        }
      </section>
    </main>
  `,
  styleUrls: ['./sign-in.scss', './door-form.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JoinPage {
  private readonly session = inject(Session);
  private readonly router = inject(Router);
  /** Behind the number sign: it reaches no server before it is used, and no log. */
  private readonly token = inject(ActivatedRoute).snapshot.fragment ?? '';
  protected readonly link = rxResource({ stream: () => this.session.openLink(this.token) });
  protected readonly name = linkedSignal(() => (this.link.hasValue() ? this.link.value().name : ''));
  protected readonly password = signal('');
  protected readonly code = signal('');
  private readonly needsFactor = () => this.link.hasValue() && this.link.value().needsFactor;
  protected readonly form = new DoorForm({
    name: () => (this.name().trim() ? '' : 'Type your name'),
    code: () => (this.needsFactor() && this.code().trim().length < 6 ? 'Enter the six digits, or a recovery code' : ''),
    password: () => passwordWants(this.password()),
  });

  protected why(): string {
    // The error of a resource is wrapped.
    const error = this.link.error();
    return toFailure(error && 'cause' in error && error.cause ? error.cause : error).message;
  }

  protected submit(): void {
    this.form.send(
      () =>
        this.session.join({
          ...{ token: this.token, name: this.name().trim(), password: this.password() },
          ...(this.needsFactor() ? { code: this.code().trim() } : {}),
        }),
      (session) => void this.router.navigateByUrl(session ? '/caseload' : '/sign-in'),
    );
  }
}
