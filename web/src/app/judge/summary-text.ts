import { inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { JUDGEMENT, type JudgementView } from '@dial-gauge/contract';
import { draftSummary } from '@dial-gauge/core';
import { catchError, concatMap, debounceTime, EMPTY, Subject, tap } from 'rxjs';
import { Api } from '../data/api';
import { Drafts, isText } from '../data/drafts';
import { describeFailure, toFailure } from '../data/problem';

/** After so long without a key what was written is saved. */
const PAUSE = 1_200;

const draftName = (visitId: string): string => `summary.${visitId}`;

/** The summary that is being written: drafted from the findings until somebody changes it; kept on this device with every key, saved at a pause and when it is left. */
@Injectable()
export class SummaryText {
  private readonly api = inject(Api);
  private readonly drafts = inject(Drafts);
  readonly text = signal('');
  readonly isDraft = signal(true);
  readonly problem = signal('');
  readonly saving = signal(false);
  private visitId = '';
  private draft = '';
  private kept = '';
  /** What the server has, as far as is known here. */
  private stored: string | null = null;
  private readonly changes = new Subject<{ readonly id: string; readonly summary: string }>();
  private readonly typing = new Subject<void>();

  constructor() {
    this.changes
      .pipe(
        tap(() => this.saving.set(true)),
        // One after another, so that the last word is the last one saved.
        concatMap(({ id, summary }) =>
          this.api.call(JUDGEMENT.setSummary, { id, body: { summary, was: this.stored } }).pipe(
            tap(() => {
              this.stored = summary || null;
              if (this.drafts.read(draftName(id), isText)?.trim() === summary) this.drafts.drop(draftName(id));
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
    this.typing.pipe(debounceTime(PAUSE), takeUntilDestroyed()).subscribe(() => this.save());
  }

  /** Takes over what the server says; what is being written is not overwritten, and what was left unsaved comes back. */
  open(view: JudgementView): void {
    const isSame = this.visitId === view.visit.id;
    const isUntouched = this.text() === this.kept || this.isDraft();
    this.draft = draftSummary(view.judgement);
    this.stored = view.summary;
    if (isSame && !isUntouched) return;
    this.visitId = view.visit.id;
    this.isDraft.set(view.summary === null);
    this.text.set(view.summary ?? this.draft);
    this.kept = this.text();
    const left = view.visit.signed ? null : this.drafts.read(draftName(view.visit.id), isText);
    if (left !== null && left !== this.text()) {
      this.text.set(left);
      this.isDraft.set(false);
      this.save();
    }
  }

  write(text: string): void {
    this.text.set(text);
    this.isDraft.set(false);
    this.drafts.keep(draftName(this.visitId), text);
    this.typing.next();
  }

  append(line: string): void {
    this.write([this.text().trim(), line].filter(Boolean).join('\n'));
    this.save();
  }

  /** Saves what was written. */
  save(): void {
    const text = this.text().trim();
    if (this.isDraft() || text === this.kept.trim()) return;
    if (text === '') return this.backToDraft();
    this.kept = text;
    this.changes.next({ id: this.visitId, summary: text });
  }

  /** Signed: what was written is the record's now. */
  signed(): void {
    this.drafts.drop(draftName(this.visitId));
  }

  backToDraft(): void {
    this.text.set(this.draft);
    this.kept = this.draft;
    this.isDraft.set(true);
    this.drafts.drop(draftName(this.visitId));
    this.changes.next({ id: this.visitId, summary: '' });
  }
}
