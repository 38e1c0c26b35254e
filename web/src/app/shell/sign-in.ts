import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router } from '@angular/router';
import { ACCOUNT } from '@dial-gauge/contract';
import { catchError, map, of } from 'rxjs';
import { Api } from '../data/api';
import { SignInForm } from './sign-in-form';
import { SignInDial } from './sign-in-dial';

@Component({
  selector: 'dg-sign-in',
  imports: [SignInDial, SignInForm],
  template: `
    <main>
      <dg-sign-in-dial />
      <section>
        <h1>Dial Gauge</h1>
        <p class="soft">Read, compare and follow the range of joints.</p>
        <dg-sign-in-form #form (signedIn)="enter()" />
        @if (demo(); as d) {
          <section class="demo" aria-labelledby="demo-heading">
            <h2 id="demo-heading">This is the demo: nobody in it is real</h2>
            @for (person of d.people; track person.email) {
              <button type="button" class="link" (click)="form.use(person.email, d.password)">Sign in as {{ person.name }}</button>
            }
            <p class="soft small">Password of both: {{ d.password }}</p>
          </section>
        }
        <p class="soft small">
          Dial Gauge supports a clinician’s judgement; it does not diagnose. The surgeon’s limits and local rules come first.
        </p>
      </section>
    </main>
  `,
  styleUrl: './sign-in.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignInPage {
  private readonly router = inject(Router);
  /** The people of the demo, where this is one; without an answer there is none. */
  protected readonly demo = toSignal(
    inject(Api)
      .call(ACCOUNT.welcome)
      .pipe(
        map((welcome) => welcome.demo),
        catchError(() => of(null)),
      ),
    { initialValue: null },
  );
  /** Where the person was going. */
  readonly to = input<string>();

  protected enter(): void {
    const to = this.to();
    void this.router.navigateByUrl(to?.startsWith('/') && !to.startsWith('//') ? to : '/caseload');
  }
}
