import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { JUDGEMENT, type JudgementView, type LateEntry } from '@dial-gauge/contract';
import type { Observable } from 'rxjs';
import { Api } from '../data/api';
import { LazyDialog } from '../ui/lazy-dialog';
import type { ReasonQuestion } from '../ui/reason.dialog';
import { momentWords } from '../caseload/words';

/** What was entered before the signature and arrived after it: looked at one by one, taken in or left out with a reason. */
@Component({
  selector: 'dg-late-entries',
  imports: [MatButtonModule],
  template: `
    @if (entries().length) {
      <section aria-labelledby="late-heading">
        <h3 id="late-heading">Arrived after the signature</h3>
        <p class="soft">
          Entered before this visit was signed, and not part of what was signed.
          {{ open() ? 'Take each in, or leave it out.' : 'Amend the visit to take it in.' }}
        </p>
        <ul>
          @for (entry of entries(); track entry.id) {
            <li>
              <span>
                <strong>{{ entry.what }}</strong>
                <span class="soft"> · {{ entry.by }}, entered {{ moment(entry.enteredAt) }}, arrived {{ moment(entry.receivedAt) }}</span>
              </span>
              <button
                matButton="outlined"
                type="button"
                [disabled]="!open()"
                [attr.aria-label]="'Take in: ' + entry.what"
                (click)="take(entry)"
              >
                Take in
              </button>
              <button matButton type="button" [attr.aria-label]="'Leave out: ' + entry.what" (click)="leaveOut(entry)">Leave out</button>
            </li>
          }
        </ul>
      </section>
    }
  `,
  styles: `
    section {
      margin-top: 12px;
      padding: 8px 12px;
      border-left: 3px solid var(--plum);
      background: var(--raised);
    }
    h3 {
      font-size: 16px;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 4px 8px;
      padding: 4px 0;
    }
    li > span {
      flex: 1 1 240px;
      overflow-wrap: anywhere;
    }
    .soft {
      font-size: 13px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LateEntries {
  private readonly api = inject(Api);
  private readonly dialogs = inject(LazyDialog);
  readonly entries = input.required<readonly LateEntry[]>();
  /** True while the visit takes changes. */
  readonly open = input.required<boolean>();
  readonly decided = output<Observable<JudgementView>>();

  protected moment(at: string): string {
    return momentWords(at);
  }

  protected take({ id }: LateEntry): void {
    this.decided.emit(this.api.call(JUDGEMENT.takeLate, { id, body: {} }));
  }

  protected leaveOut({ id, what }: LateEntry): void {
    const data: ReasonQuestion = {
      title: 'Leave it out',
      about: `${what}. It stays on record with your reason, and is not shown here again.`,
      label: 'Why it is left out',
      least: 3,
      missing: 'Type the reason, three letters or more: it goes into the record.',
      agree: 'Leave it out',
      leave: 'Decide later',
    };
    this.dialogs
      .open<string>(() => import('../ui/reason.dialog').then((m) => m.ReasonDialog), { data, width: '520px' })
      .subscribe((why) => {
        if (why) this.decided.emit(this.api.call(JUDGEMENT.dismissLate, { id, body: { why } }));
      });
  }
}
