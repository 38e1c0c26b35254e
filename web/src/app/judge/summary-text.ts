import { inject, Injectable, signal } from '@angular/core';
import type { JudgementView } from '@dial-gauge/contract';
import { draftSummary } from '@dial-gauge/core';
import { Subject, concatMap, catchError, EMPTY, tap } from 'rxjs';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Api } from '../data/api';
import { describeFailure, toFailure } from '../data/problem';

/** The summary that is being written: drafted from the findings until somebody changes it, saved as it is left. */
@Injectable()
export class SummaryText {
  private readonly api = inject(Api);
  readonly text = signal('');
  readonly isDraft = signal(true);
  readonly problem = signal('');
  readonly saving = signal(false);
  private visitId = '';
  private draft = '';
  private kept = '';
  private readonly changes = new Subject<{ readonly id: string; readonly summary: string }>();

  constructor() {
    this.changes
      .pipe(
        tap(() => this.saving.set(true)),
        // One after another, so that the last word is the last one saved.
        concatMap(({ id, summary }) =>
          this.api.call('setSummary', { id, body: { summary } }).pipe(
            tap(() => {
              this.problem.set('');
              this.saving.set(false);
            }),
            catchError((error: unknown) => {
              this.saving.set(false);
              this.problem.set(`${describeFailure(toFailure(error))} What you wrote stays here.`);
              this.kept = '';
              return EMPTY;
            }),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe();
  }

  /** Takes over what the server says; what is being written is not overwritten. */
  open(view: JudgementView): void {
    const isSame = this.visitId === view.visit.id;
    const isUntouched = this.text() === this.kept || this.isDraft();
    this.draft = draftSummary(view.judgement);
    if (isSame && !isUntouched) return;
    this.visitId = view.visit.id;
    this.isDraft.set(view.summary === null);
    this.text.set(view.summary ?? this.draft);
    this.kept = this.text();
  }

  write(text: string): void {
    this.text.set(text);
    this.isDraft.set(false);
  }

  append(line: string): void {
    this.write([this.text().trim(), line].filter(Boolean).join('\n'));
    this.save();
  }

  /** Saves what was written, when it is left. */
  save(): void {
    const text = this.text().trim();
    if (this.isDraft() || text === this.kept.trim()) return;
    if (text === '') return this.backToDraft();
    this.kept = text;
    this.changes.next({ id: this.visitId, summary: text });
  }

  backToDraft(): void {
    this.text.set(this.draft);
    this.kept = this.draft;
    this.isDraft.set(true);
    this.changes.next({ id: this.visitId, summary: '' });
  }
}
