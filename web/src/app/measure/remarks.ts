import { ChangeDetectionStrategy, Component, computed, type ElementRef, inject, output, viewChild } from '@angular/core';
import { MatChipListbox, MatChipOption } from '@angular/material/chips';
import type { NotDone } from '@dial-gauge/contract';
import { END_FEELS, type EndFeel } from '@dial-gauge/core';
import { Exam } from './exam';

const REASONS: readonly { readonly id: NotDone; readonly words: string }[] = [
  { id: 'left-out', words: 'left out' },
  { id: 'refused', words: 'refused' },
  { id: 'not-possible', words: 'not possible' },
];

/** End feel, pain and what faked the range: noted beside the readings of the motion in hand. */
@Component({
  selector: 'dg-remarks',
  imports: [MatChipListbox, MatChipOption],
  templateUrl: './remarks.html',
  styleUrl: './remarks.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(keydown.escape)': 'done.emit()' },
})
export class Remarks {
  protected readonly exam = inject(Exam);
  protected readonly endFeels = END_FEELS;
  readonly done = output<void>();

  private readonly endFeel = viewChild<MatChipListbox>('endFeel');
  private readonly pain = viewChild.required<ElementRef<HTMLInputElement>>('pain');
  private readonly faked = viewChild<MatChipListbox>('faked');
  /** An end is felt only when somebody else moves the joint. */
  protected readonly passive = computed(() => this.exam.record.row().mode === 'passive');
  protected readonly expectedFeel = computed(() => this.exam.record.protocol().endFeel);

  private readonly notDone = viewChild<MatChipListbox>('notDone');
  private readonly note = viewChild<ElementRef<HTMLInputElement>>('note');
  protected readonly reasons = REASONS;
  /** A fault is seen; a movement of a neighbour fakes range. */
  protected readonly seen = computed(() => (this.exam.record.motion().unit === 'yesNo' ? 'Seen' : 'Faked by'));

  focusNotDone(): void {
    this.notDone()?.focus();
  }

  focusNote(): void {
    this.note()?.nativeElement.focus();
  }

  focusPain(): void {
    this.pain().nativeElement.focus();
    this.pain().nativeElement.select();
  }

  focusEndFeel(): void {
    this.endFeel()?.focus();
  }

  focusSubstitutions(): void {
    this.faked()?.focus();
  }

  protected setPain(field: HTMLInputElement): void {
    const text = field.value.trim();
    const level = text === '' ? null : Number(text);
    if (level !== null && !(Number.isInteger(level) && level >= 0 && level <= 10)) {
      this.exam.course.problem.set(`Pain "${text}" is not on the scale; allowed: whole numbers from 0 (none) to 10.`);
      return;
    }
    this.exam.course.problem.set('');
    if (level !== this.exam.record.cell().pain) this.exam.commands.note({ pain: level });
  }

  protected setWhere(text: string): void {
    if (text.trim() !== this.exam.record.cell().painWhere) this.exam.commands.note({ painWhere: text.trim() });
  }

  protected setEndFeel(value: EndFeel | undefined): void {
    if ((value ?? null) !== this.exam.record.cell().endFeel) this.exam.commands.note({ endFeel: value ?? null });
  }

  protected setFaked(value: string[]): void {
    this.exam.commands.note({ substitutions: value });
  }

  protected setNotDone(value: NotDone | undefined): void {
    if ((value ?? null) !== this.exam.record.cell().notDone) this.exam.commands.note({ notDone: value ?? null });
  }

  protected setNotDoneWhy(text: string): void {
    if (text.trim() !== this.exam.record.cell().notDoneWhy) this.exam.commands.note({ notDoneWhy: text.trim() });
  }

  protected setNote(text: string): void {
    if (text.trim() !== this.exam.record.cell().note) this.exam.commands.note({ note: text.trim() });
  }
}
