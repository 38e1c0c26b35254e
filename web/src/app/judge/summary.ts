import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { JUDGEMENT, type JudgementView, type SignatureView } from '@dial-gauge/contract';
import { tap, type Observable } from 'rxjs';
import { Api } from '../data/api';
import { May } from '../data/may';
import { describeFailure, toFailure, type Failure } from '../data/problem';
import { Session } from '../data/session';
import type { ConfirmQuestion } from '../ui/confirm.dialog';
import { LazyDialog } from '../ui/lazy-dialog';
import type { ReasonQuestion } from '../ui/reason.dialog';
import type { SignQuestion } from './sign.dialog';
import { LateEntries } from './late-entries';
import { SummaryText } from './summary-text';
import { fullMoment } from '../caseload/words';
import { IfMay } from '../ui/may.directive';

/** The visit in plain words, and its signature: drafted, put right by hand, signed with a copy of the findings, amended with a reason. */
@Component({
  selector: 'dg-summary',
  imports: [LateEntries, MatButtonModule, IfMay],
  templateUrl: './summary.html',
  styleUrl: './summary.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Summary {
  private readonly api = inject(Api);
  private readonly dialogs = inject(LazyDialog);
  private readonly session = inject(Session);
  protected readonly may = inject(May);
  protected readonly summary = inject(SummaryText);
  readonly view = input.required<JudgementView>();
  readonly changed = output<JudgementView>();
  /** The findings are others than those on the screen: they are read again. */
  readonly stale = output();
  protected readonly problem = signal('');

  constructor() {
    effect(() => {
      const view = this.view();
      untracked(() => this.summary.open(view));
    });
  }

  /** The lead amends any visit; others their own. */
  protected readonly mayAmend = computed(() => this.may.do('sign') && (this.may.role() === 'lead' || !this.view().signing.notYours));
  /** The signature that the lead may stand by. */
  protected readonly toCountersign = computed(() => {
    const last = this.view().signing.signatures.at(-1);
    return last && this.view().visit.signed && !last.byMe && !last.countersigned && this.may.do('countersign') ? last : null;
  });

  protected countersign(signature: SignatureView): void {
    const data: ConfirmQuestion = {
      title: `Countersign what ${signature.by} signed`,
      about: 'You have read the findings and the summary, and stand by them. It stays below the signature, with your name and this moment.',
      agree: 'Countersign',
    };
    this.dialogs
      .open<boolean>(() => import('../ui/confirm.dialog').then((m) => m.ConfirmDialog), { data, width: '480px' })
      .subscribe((yes) => {
        if (yes) this.send(this.api.call(JUDGEMENT.countersign, { id: signature.id, body: { id: crypto.randomUUID() } }));
      });
  }

  protected moment(at: string): string {
    return fullMoment(at);
  }

  protected write(event: Event): void {
    this.summary.write((event.target as HTMLTextAreaElement).value);
  }

  protected sign(): void {
    this.summary.save();
    const { signing, judgement, visit, seen } = this.view();
    const data: SignQuestion = {
      name: this.session.current()?.user.name ?? '',
      findings: judgement.findings.length,
      readings: visit.readings,
      amending: signing.amending?.why ?? '',
    };
    this.dialogs
      .open<boolean>(() => import('./sign.dialog').then((m) => m.SignDialog), { data, width: '520px' })
      .subscribe((agreed) => {
        const body = { id: crypto.randomUUID(), summary: this.summary.text().trim(), seen };
        if (agreed) this.send(this.api.call(JUDGEMENT.sign, { id: visit.id, body }).pipe(tap(() => this.summary.signed())));
      });
  }

  protected amend(): void {
    const data: ReasonQuestion = {
      title: 'Amend this visit',
      about: 'What was signed stays as it is. Changes are listed with who and when, and the visit is signed again.',
      label: 'Why it has to be changed',
      least: 3,
      missing: 'Type the reason, three letters or more: it goes into the record.',
      agree: 'Open it',
      leave: 'Leave it signed',
    };
    this.dialogs
      .open<string>(() => import('../ui/reason.dialog').then((m) => m.ReasonDialog), { data, width: '520px' })
      .subscribe((why) => {
        if (why) this.send(this.api.call(JUDGEMENT.amend, { id: this.view().visit.id, body: { why } }));
      });
  }

  protected look(signature: SignatureView): void {
    this.dialogs
      .open(() => import('./signed-copy.dialog').then((m) => m.SignedCopyDialog), {
        data: signature,
        width: '760px',
        maxWidth: '96vw',
        maxHeight: '94vh',
      })
      .subscribe();
  }

  protected send(answer: Observable<JudgementView>): void {
    answer.subscribe({
      next: (view) => {
        this.problem.set('');
        this.changed.emit(view);
      },
      error: (error: unknown) => this.refused(toFailure(error)),
    });
  }

  /** What changed meanwhile is named, all of it, and shown. */
  private refused(failure: Failure): void {
    if (failure.status !== 409) return this.problem.set(describeFailure(failure));
    this.problem.set(
      [failure.message, ...failure.fields.filter(({ path }) => path === 'findings').map(({ message }) => `${message}.`)].join(' '),
    );
    this.stale.emit();
  }
}
