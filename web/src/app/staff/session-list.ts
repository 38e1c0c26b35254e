import { ChangeDetectionStrategy, Component, effect, inject, input, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { ACCOUNT, type OpenSession } from '@dial-gauge/contract';
import type { Observable } from 'rxjs';
import { Api } from '../data/api';
import { describeFailure, toFailure } from '../data/problem';
import { momentWords } from '../caseload/words';

/** Where one is signed in, and signing out elsewhere. */
@Component({
  selector: 'dg-sessions',
  imports: [MatButtonModule],
  template: `
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    <ul>
      @for (session of sessions(); track session.id) {
        <li>
          <span>
            <strong>{{ deviceWords(session.device) }}</strong>
            <span class="soft"> · since {{ moment(session.startedAt) }}, last seen {{ moment(session.seenAt) }}</span>
          </span>
          @if (session.here) {
            <span class="soft">here</span>
          } @else {
            <button matButton="outlined" type="button" (click)="end(session)">Sign out there</button>
          }
        </li>
      }
    </ul>
    @if (sessions().length > 1) {
      <button matButton="outlined" type="button" (click)="endOthers()">Sign out everywhere else</button>
    }
  `,
  styles: `
    li {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 4px 12px;
      padding: 8px 0;
      border-top: 1px solid var(--line);
    }
    li > span:first-child {
      flex: 1 1 240px;
      overflow-wrap: anywhere;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SessionList {
  private readonly api = inject(Api);
  protected readonly sessions = signal<readonly OpenSession[]>([]);
  protected readonly problem = signal('');

  /** Counts up with what may have ended some: then they are asked for again. */
  readonly changes = input(0);

  constructor() {
    effect(() => {
      this.changes();
      untracked(() => this.show(this.api.call(ACCOUNT.sessions)));
    });
  }

  protected end({ id }: OpenSession): void {
    this.show(this.api.call(ACCOUNT.endSession, { id }));
  }

  protected endOthers(): void {
    this.show(this.api.call(ACCOUNT.endOtherSessions));
  }

  protected moment(at: string): string {
    return momentWords(at);
  }

  /** What a browser calls itself is long: the system it runs on tells most places apart. */
  protected deviceWords(device: string): string {
    return /\(([^)]+)\)/.exec(device)?.[1] ?? (device.slice(0, 40) || 'an unnamed device');
  }

  private show(answer: Observable<OpenSession[]>): void {
    answer.subscribe({
      next: (sessions) => {
        this.problem.set('');
        this.sessions.set(sessions);
      },
      error: (error: unknown) => this.problem.set(describeFailure(toFailure(error))),
    });
  }
}
