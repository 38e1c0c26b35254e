import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { DomSanitizer, type SafeHtml } from '@angular/platform-browser';
import { ACCOUNT, type AccountView, type Proof, type SecondFactorOffer } from '@dial-gauge/contract';
import type { Observable } from 'rxjs';
import { fullMoment } from '../caseload/words';
import { Api } from '../data/api';
import { describeFailure, toFailure, type Failure } from '../data/problem';
import { Session } from '../data/session';
import { DoorField } from '../shell/door-field';
import { DoorForm } from '../shell/door-form';
import { Frame } from '../shell/frame';
import { NewPassword, passwordWants } from '../shell/new-password';
import { ProofEntry, ProofFields } from '../shell/proof-entry';
import { Said } from '../ui/said';
import { SessionList } from './session-list';

/** One's own account: password, second factor, where one is signed in. What is typed here is kept nowhere. */
@Component({
  selector: 'dg-account',
  imports: [DoorField, Frame, MatButtonModule, NewPassword, ProofFields, Said, SessionList],
  templateUrl: './account.html',
  styleUrl: './account.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AccountPage {
  private readonly api = inject(Api);
  private readonly session = inject(Session);
  private readonly sanitizer = inject(DomSanitizer);
  protected readonly moment = fullMoment;
  protected readonly view = signal<AccountView | null>(null);
  protected readonly failure = signal('');
  protected readonly done = signal('');
  protected readonly refusal = signal<Failure | null>(null);
  protected readonly about = computed(() => {
    const who = this.session.current();
    return who ? `${who.user.name}, ${who.user.role} · ${who.clinic.name}` : '';
  });
  /** Until there is a second factor, nothing else is open. */
  protected readonly missing = computed(() => this.session.current()?.secondFactorMissing === true);
  /** Counts up with what ends sessions elsewhere. */
  protected readonly changes = signal(0);

  protected readonly current = new ProofEntry(() => this.hasFactor(), 'Type the password you have');
  protected readonly next = signal('');
  protected readonly changing = new DoorForm({ ...this.current.wants, next: () => passwordWants(this.next()) });

  protected readonly proof = new ProofEntry(() => this.hasFactor());
  protected readonly proving = new DoorForm(this.proof.wants);
  protected readonly offer = signal<SecondFactorOffer | null>(null);
  protected readonly picture = signal<SafeHtml>('');
  protected readonly code = signal('');
  protected readonly confirming = new DoorForm({
    code: () => (/^\d{6}$/.test(this.code().trim()) ? '' : 'Type the six digits that the authenticator shows'),
  });
  protected readonly codes = signal<readonly string[] | null>(null);

  constructor() {
    this.load();
  }

  protected load(): void {
    this.failure.set('');
    this.api.call(ACCOUNT.account).subscribe({
      next: (view) => this.view.set(view),
      error: (error: unknown) => this.failure.set(describeFailure(toFailure(error))),
    });
  }

  protected changePassword(): void {
    const body = { ...this.current.given(), next: this.next() };
    this.changing.send(
      () => this.api.call(ACCOUNT.changePassword, { body }),
      (view) => {
        this.current.clear();
        this.next.set('');
        this.changing.tried.set(false);
        this.shown(view, 'Your password is changed; everywhere else you were signed in has ended.');
        this.changes.update((n) => n + 1);
      },
    );
  }

  /** Without a second factor it begins with one; with one, it makes other codes. */
  protected begin(): void {
    if (this.hasFactor())
      this.prove(
        (body) => this.api.call(ACCOUNT.newRecoveryCodes, { body }),
        ({ codes, account }) => {
          this.shown(account, 'The codes before work no more.');
          this.codes.set(codes);
        },
      );
    else
      this.prove(
        (body) => this.api.call(ACCOUNT.offerSecondFactor, { body }),
        (offer) => void this.show(offer),
      );
  }

  protected remove(): void {
    this.prove(
      (body) => this.api.call(ACCOUNT.removeSecondFactor, { body }),
      (view) => this.shown(view, 'Your password alone signs you in from now on.'),
    );
  }

  protected confirm(): void {
    this.confirming.send(
      () => this.api.call(ACCOUNT.confirmSecondFactor, { body: { code: this.code().trim() } }),
      ({ codes, account }) => {
        this.offer.set(null);
        this.code.set('');
        this.shown(account, 'The second factor is asked for from now on.');
        this.codes.set(codes);
        if (this.missing()) this.session.askAgain().subscribe({ error: (error: unknown) => this.refusal.set(toFailure(error)) });
      },
    );
  }

  private readonly hasFactor = computed(() => Boolean(this.view()?.secondFactor));

  private prove<T>(asked: (body: Proof) => Observable<T>, then: (answer: T) => void): void {
    const body = this.proof.given();
    this.proving.send(
      () => asked(body),
      (answer) => {
        this.proof.clear();
        this.proving.tried.set(false);
        then(answer);
      },
    );
  }

  private async show(offer: SecondFactorOffer): Promise<void> {
    const { default: qrcode } = await import('qrcode');
    this.picture.set(this.sanitizer.bypassSecurityTrustHtml(await qrcode.toString(offer.uri, { type: 'svg', margin: 2 })));
    this.done.set('');
    this.offer.set(offer);
  }

  private shown(view: AccountView, done: string): void {
    this.view.set(view);
    this.done.set(done);
  }
}
