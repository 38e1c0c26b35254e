import { inject, Injectable, ViewContainerRef } from '@angular/core';
import { MatBottomSheet } from '@angular/material/bottom-sheet';
import { MatDialog, type MatDialogRef } from '@angular/material/dialog';
import { ageOn, formatSize, type SheetItem } from '@dial-gauge/core';
import { Subject } from 'rxjs';
import type { ReasonQuestion } from '../ui/reason.dialog';
import type { HeldReading } from './record/cells';
import { Parts } from '../ui/parts';
import { Exam } from './exam';
import { shownReading } from './reading-words';

/** What opens over the dial. Each is fetched when it is wanted, or before. */
@Injectable()
export class DialDialogs {
  private readonly dialog = inject(MatDialog);
  private readonly sheets = inject(MatBottomSheet);
  private readonly parts = inject(Parts);
  private readonly here = inject(ViewContainerRef);
  private readonly exam = inject(Exam);
  /** One of them closed: the hands want the entry again. */
  readonly closed = new Subject<void>();

  /** What is opened over the dial is fetched now: there may be no connection when it is needed. */
  fetch(): void {
    const all = [
      import('../ui/reason.dialog'),
      import('./correct.dialog'),
      import('./tool.dialog'),
      import('./keys.dialog'),
      import('./instruments.dialog'),
      import('../library/add.dialog'),
      import('../library/protocol.dialog'),
      import('../shell/sign-in-again.dialog'),
    ];
    // Missed now, it is fetched when it is asked for.
    for (const dialog of all) void dialog.catch(() => undefined);
  }

  /** What is connected, and how it is read. */
  async openInstruments(): Promise<void> {
    const fetched = await this.parts.fetch(() => import('./instruments.dialog'));
    if (!fetched) return;
    this.afterwards(this.dialog.open(fetched.InstrumentsDialog, { data: this.exam, width: '640px', maxHeight: '94vh' }));
  }

  /** What is in the hand, and how it counts. */
  async chooseTool(): Promise<void> {
    const fetched = await this.parts.fetch(() => import('./tool.dialog'));
    if (!fetched) return;
    this.afterwards(this.dialog.open(fetched.ToolDialog, { data: this.exam.record.protocol(), width: '520px', maxHeight: '94vh' }));
  }

  async correctLast(): Promise<void> {
    const last = this.exam.record.cell().readings.at(-1);
    if (last) await this.correct(last);
    else this.exam.course.problem.set('Nothing is held here yet; there is nothing to correct.');
  }

  /** Puts a reading right; the old value stays on record. */
  async correct(reading: HeldReading): Promise<void> {
    const fetched = await this.parts.fetch(() => import('./correct.dialog'));
    if (!fetched) return;
    type Answer = import('./correct.dialog').Corrected;
    const { exam } = this;
    const name = exam.record.nameOf(exam.record.row(), exam.record.place().side);
    const data = {
      name,
      shown: shownReading(reading, exam.record.motion()),
      reading,
      protocol: exam.record.protocol(),
      tool: exam.record.tool(),
    };
    const dialog = this.dialog.open<unknown, unknown, Answer>(fetched.CorrectDialog, { data, width: '560px' });
    this.afterwards(dialog, (answer) => exam.commands.correct(reading, answer.reading, answer.why));
  }

  /** A reading past a limit is held only with a reason. */
  async askWhy(): Promise<void> {
    const { exam } = this;
    const fetched = await this.parts.fetch(() => import('../ui/reason.dialog'));
    if (!fetched) return;
    const past = exam.commands.pastStop();
    if (!past) return;
    const { unit } = exam.record.motion();
    const limit = past.limit === null ? 'not to be measured' : `not past ${formatSize(past.limit, unit)}`;
    const data: ReasonQuestion = {
      title: `${formatSize(past.value, unit)} is past the limit`,
      about: `${exam.record.nameOf(exam.record.row(), exam.record.place().side)}: ${limit} (${past.source}). The surgeon’s limit wins: if the joint went there by mistake, say so, and tell whoever has to know.`,
      label: 'Why it was passed',
      least: 1,
      missing: 'Type the reason: it goes into the record with the reading.',
      agree: 'Hold with this reason',
      leave: 'Do not hold it',
    };
    exam.commands.pastStop.set(null);
    this.afterwards(this.dialog.open<unknown, unknown, string>(fetched.ReasonDialog, { data, width: '520px' }), (why) =>
      exam.commands.holdPast(why),
    );
  }

  /** When a dialog closes the hands find the entry again. */
  private afterwards<T>(dialog: MatDialogRef<unknown, T>, then?: (answer: T) => void): void {
    dialog.afterClosed().subscribe((answer) => {
      // A dialog that was closed without an answer gives an empty one.
      if (answer) then?.(answer);
      this.closed.next();
    });
  }

  /** Any way of measuring that is not on the sheet yet. */
  async addToSheet(): Promise<void> {
    const fetched = await this.parts.fetch(() => import('../library/add.dialog'));
    if (!fetched) return;
    const config = { data: this.exam.record.steps(), width: '560px', maxHeight: '94vh' };
    this.afterwards(this.dialog.open<unknown, readonly SheetItem[], SheetItem>(fetched.AddDialog, config), (item) =>
      this.exam.commands.add(item),
    );
  }

  /** The library's page of the motion in hand, over the dial. */
  async openLibrary(): Promise<void> {
    const fetched = await this.parts.fetch(() => import('../library/protocol.dialog'));
    if (!fetched) return;
    const { patient, visit } = this.exam.record.visit()!;
    const person = { sex: patient.sex, age: ageOn(patient.birthDate, visit.assessedOn) };
    const data = { protocol: this.exam.record.protocol(), person, mode: this.exam.record.row().mode };
    this.afterwards(this.dialog.open(fetched.ProtocolDialog, { data, width: '1120px', maxWidth: '96vw', maxHeight: '94vh' }));
  }

  async showKeys(): Promise<void> {
    const fetched = await this.parts.fetch(() => import('./keys.dialog'));
    if (!fetched) return;
    this.afterwards(this.dialog.open(fetched.KeysDialog, { width: '560px', maxHeight: '94vh' }));
  }
  /** On a phone the run sheet lies under the dial: one swipe up, or one touch. */
  async openSheet(): Promise<void> {
    const fetched = await this.parts.fetch(() => import('./run-sheet.sheet'));
    if (!fetched) return;
    this.sheets
      .open<object, unknown, 'add'>(fetched.RunSheetSheet, { viewContainerRef: this.here, ariaLabel: 'Run sheet', panelClass: 'dg-sheet' })
      .afterDismissed()
      .subscribe((then) => (then === 'add' ? void this.addToSheet() : this.closed.next()));
  }
}
