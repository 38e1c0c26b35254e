import { ChangeDetectionStrategy, Component, DOCUMENT, inject, input } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { SignInDial } from './sign-in-dial';
import { SignInForm } from './sign-in-form';

/** Whom the demo offers to be. */
interface DemoDoor {
  readonly people: readonly { readonly name: string; readonly email: string; readonly role: string }[];
  readonly password: string;
}

@Component({
  selector: 'dg-sign-in',
  imports: [RouterLink, SignInDial, SignInForm],
  template: `
    <main>
      <dg-sign-in-dial />
      <section>
        <h1>Dial Gauge</h1>
        <p class="soft">Read, compare and follow the range of joints.</p>
        @if (empty) {
          <p class="empty">
            There is no clinic here yet: <a routerLink="/found">found it</a> with the code that the server printed when it started.
          </p>
        }
        <dg-sign-in-form #form (signedIn)="enter()" />
        @if (demo; as d) {
          <section class="demo" aria-labelledby="demo-heading">
            <h2 id="demo-heading">This is the demo: nobody in it is real</h2>
            @for (person of d.people; track person.email) {
              <button type="button" class="link" (click)="form.use(person.email, d.password)">
                Sign in as {{ person.name }}, {{ person.role }}
              </button>
            }
            <p class="soft small">Password of all: {{ d.password }}</p>
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
  /** Where the person was going. */
  readonly to = input<string>();
  /** The server writes it into the page of a demo, and nowhere else. */
  protected readonly demo = demoOf(inject(DOCUMENT));

  /** Likewise where there is no clinic yet. */
  protected readonly empty = inject(DOCUMENT).querySelector('meta[name="dial-gauge-empty"]') !== null;

  protected enter(): void {
    const to = this.to();
    void this.router.navigateByUrl(to?.startsWith('/') && !to.startsWith('//') ? to : '/caseload');
  }
}

function demoOf(page: Document): DemoDoor | null {
  const content = page.querySelector('meta[name="dial-gauge-demo"]')?.getAttribute('content');
  return content ? (JSON.parse(content) as DemoDoor) : null;
}
