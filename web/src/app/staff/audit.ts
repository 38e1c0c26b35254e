import { ChangeDetectionStrategy, Component, effect, inject, input, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router } from '@angular/router';
import { AUDIT, type AuditDeed, type AuditEntry } from '@dial-gauge/contract';
import { fullMoment } from '../caseload/words';
import { Api } from '../data/api';
import { describeFailure, toFailure } from '../data/problem';
import { Frame } from '../shell/frame';

const DEED_WORDS: Readonly<Record<AuditDeed, string>> = {
  looked: 'looked at',
  'took-along': 'took along',
  entered: 'entered into',
  changed: 'changed',
  signed: 'signed',
  'wrote-out': 'wrote out',
  'signed-in': 'signed in',
  'new-password': 'chose a new password with a link',
  erased: 'erased',
};

/** Parts of a record by the route they are read or entered by; others by their own words. */
const PART_WORDS: Readonly<Record<string, string>> = {
  '/session': '',
  '/patients/:id/whole-record': 'the whole record',
  '/patients/:id/erasure': 'the record',
  '/at-hand': 'the record, to have it without a network',
  '/patients/:id': 'the record',
  '/patients/:id/changes': 'what was changed of who they are',
  '/episodes/:id/story': 'the story of an episode',
  '/episodes/:id/intake': 'the intake',
  '/episodes/:id/visits': 'a new visit',
  '/visits/:id': 'a visit',
  '/visits/:id/judgement': 'findings',
  '/visits/:id/progress': 'progress',
  '/visits/:id/report': 'a report',
  '/visits/:id/report/pdf': 'a report as PDF',
  '/visits/:id/export': 'a visit as a file',
  '/visits/:id/readings': 'readings',
  '/visits/:id/signatures': 'a signature',
  '/readings.csv': 'all readings of the clinic',
};

/** "looked at findings", "changed birth date" */
export function deedWords({ did, about }: Pick<AuditEntry, 'did' | 'about'>): string {
  const known = PART_WORDS[about];
  if (known !== undefined) return `${DEED_WORDS[did]} ${known}`.trim();
  // A field by its name, a route by its last word.
  const part = about.startsWith('/')
    ? about
        .split('/')
        .filter((word) => !word.startsWith(':'))
        .at(-1)!
    : about;
  return `${DEED_WORDS[did]} ${part
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replace(/-/g, ' ')
    .toLowerCase()}`;
}

/** Who looked at and changed whose record: for the lead. */
@Component({
  selector: 'dg-audit',
  imports: [Frame, MatButtonModule],
  templateUrl: './audit.html',
  styleUrl: './audit.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AuditPage {
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  /** From the address, so that a reload shows the same. */
  readonly user = input<string>();
  readonly patient = input<string>();
  protected readonly rows = signal<readonly AuditEntry[] | null>(null);
  protected readonly people = signal<readonly { readonly id: string; readonly name: string }[]>([]);
  protected readonly next = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly failure = signal('');
  protected readonly moment = fullMoment;
  protected readonly deed = deedWords;

  constructor() {
    effect(() => {
      this.user();
      this.patient();
      untracked(() => this.reload());
    });
  }

  protected reload(): void {
    this.rows.set(null);
    this.ask(undefined);
  }

  protected more(): void {
    this.ask(this.next() ?? undefined);
  }

  protected goTo(queryParams: { user?: string | null; patient?: string | null }): void {
    void this.router.navigate([], { queryParams, queryParamsHandling: 'merge', replaceUrl: true });
  }

  private ask(after: string | undefined): void {
    this.failure.set('');
    this.busy.set(true);
    this.api.call(AUDIT.audit, { query: { user: this.user(), patient: this.patient(), after } }).subscribe({
      next: ({ rows, next, people }) => {
        this.busy.set(false);
        this.rows.update((before) => [...(after ? (before ?? []) : []), ...rows]);
        this.next.set(next);
        this.people.set(people);
      },
      error: (error: unknown) => {
        this.busy.set(false);
        this.failure.set(describeFailure(toFailure(error)));
      },
    });
  }
}
