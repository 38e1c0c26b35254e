import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { Router } from '@angular/router';
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
        <dg-sign-in-form (signedIn)="enter()" />
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
  /** Where the person was going. */
  readonly to = input<string>();

  protected enter(): void {
    const to = this.to();
    void this.router.navigateByUrl(to?.startsWith('/') && !to.startsWith('//') ? to : '/caseload');
  }
}
