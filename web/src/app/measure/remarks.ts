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
  protected readonly passive = computed(() => this.exam.row().mode === 'passive');
  protected readonly expectedFeel = computed(() => this.exam.protocol().endFeel);

  private readonly notDone = viewChild<MatChipListbox>('notDone');
  private readonly note = viewChild<ElementRef<HTMLInputElement>>('note');
  protected readonly reasons = REASONS;
  /** A fault is seen; a movement of a neighbour fakes range. */
  protected readonly seen = computed(() => (this.exam.motion().unit === 'yesNo' ? 'Seen' : 'Faked by'));

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
      this.exam.problem.set(`Pain "${text}" is not on the scale; allowed: whole numbers from 0 (none) to 10.`);
      return;
    }
    this.exam.problem.set('');
    if (level !== this.exam.cell().pain) this.exam.note({ pain: level });
  }

  protected setWhere(text: string): void {
    if (text.trim() !== this.exam.cell().painWhere) this.exam.note({ painWhere: text.trim() });
  }

  protected setEndFeel(value: EndFeel | undefined): void {
    if ((value ?? null) !== this.exam.cell().endFeel) this.exam.note({ endFeel: value ?? null });
  }

  protected setFaked(value: string[]): void {
    this.exam.note({ substitutions: value });
  }

  protected setNotDone(value: NotDone | undefined): void {
    if ((value ?? null) !== this.exam.cell().notDone) this.exam.note({ notDone: value ?? null });
  }

  protected setNotDoneWhy(text: string): void {
    if (text.trim() !== this.exam.cell().notDoneWhy) this.exam.note({ notDoneWhy: text.trim() });
  }

  protected setNote(text: string): void {
    if (text.trim() !== this.exam.cell().note) this.exam.note({ note: text.trim() });
  }
}
