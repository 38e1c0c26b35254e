import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Session } from '../data/session';
import { DoorField } from './door-field';
import { DoorForm, looksLikeAddress } from './door-form';
import { NewPassword, passwordWants } from './new-password';
import { SignInDial } from './sign-in-dial';

/** The first visitor of an empty program founds the clinic, with the code that the server printed. */
@Component({
  selector: 'dg-found',
  imports: [DoorField, NewPassword, RouterLink, SignInDial],
  template: `
    <main>
      <dg-sign-in-dial />
      <section>
        <h1>Found your clinic</h1>
        <p class="soft">
          There is no clinic here yet. Whoever has the code that the server printed when it started founds it, once, and is its lead: who
          invites the others, and decides on norms and thresholds.
        </p>
        <form novalidate (submit)="$event.preventDefault(); submit()">
          <dg-door-field label="Code that the server printed" name="code" [most]="100" [(value)]="code" [wrong]="form.wrong('code')" />
          <dg-door-field
            label="Name of the clinic"
            name="clinicName"
            autocomplete="organization"
            [most]="120"
            [(value)]="clinicName"
            [wrong]="form.wrong('clinicName')"
          />
          <dg-door-field label="Your name" name="name" autocomplete="name" [most]="120" [(value)]="name" [wrong]="form.wrong('name')" />
          <dg-door-field
            label="Your e-mail"
            name="email"
            type="email"
            autocomplete="username"
            [(value)]="email"
            [wrong]="form.wrong('email')"
          />
          <dg-new-password [(value)]="password" [wrong]="form.wrong('password')" />
          @if (form.problem(); as text) {
            <p class="problem" role="alert">{{ text }}</p>
          }
          <button type="submit" class="door" [disabled]="form.busy()">{{ form.busy() ? 'Founding …' : 'Found the clinic' }}</button>
        </form>
        <p class="soft small"><a routerLink="/sign-in">Sign in</a> if it was founded already.</p>
      </section>
    </main>
  `,
  styleUrls: ['./sign-in.scss', './door-form.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FoundPage {
  private readonly session = inject(Session);
  private readonly router = inject(Router);
  protected readonly code = signal('');
  protected readonly clinicName = signal('');
  protected readonly name = signal('');
  protected readonly email = signal('');
  protected readonly password = signal('');
  protected readonly form = new DoorForm({
    code: () => (this.code().trim() ? '' : 'Type the code that stands at the end of what the server printed'),
    clinicName: () => (this.clinicName().trim() ? '' : 'Type the name of the clinic'),
    name: () => (this.name().trim() ? '' : 'Type your name'),
    email: () => (looksLikeAddress(this.email()) ? '' : 'Type your e-mail address, as name@clinic.example'),
    password: () => passwordWants(this.password()),
  });

  protected submit(): void {
    const [code, clinicName, name, email] = [this.code(), this.clinicName(), this.name(), this.email()].map((text) => text.trim()) as [
      string,
      string,
      string,
      string,
    ];
    this.form.send(
      () => this.session.found({ code, clinicName, name, email, password: this.password() }),
      () => void this.router.navigateByUrl('/staff'),
    );
  }
}
