import { ChangeDetectionStrategy, Component, computed, effect, type ElementRef, inject, input, viewChild } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatDialog } from '@angular/material/dialog';
import { ageOn, describeEnd, endFigure, formatWhole } from '@dial-gauge/core';
import { episodeWords, fullName, personWords } from '../caseload/words';
import { Api } from '../data/api';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { Dial } from '../ui/dial/dial';
import { dialModel } from './dial-model';
import { Exam } from './exam';
import { Remarks } from './remarks';
import { RunSheet } from './run-sheet';
import { TechniqueCard } from './technique-card';
import { TrialsStrip } from './trials-strip';

/** The heart: one motion at a time on the dial, typed and held without looking down. */
@Component({
  selector: 'dg-measure',
  imports: [Dial, Frame, Pending, Remarks, RunSheet, TechniqueCard, TrialsStrip],
  providers: [Exam],
  templateUrl: './measure.html',
  styleUrl: './measure.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MeasurePage {
  private readonly api = inject(Api);
  private readonly dialog = inject(MatDialog);
  protected readonly exam = inject(Exam);
  readonly id = input.required<string>();

  private readonly entry = viewChild<ElementRef<HTMLInputElement>>('entry');
  private readonly remarks = viewChild(Remarks);
  protected readonly visit = rxResource({ params: () => this.id(), stream: ({ params }) => this.api.call('visit', { id: params }) });
  protected readonly model = computed(() => dialModel(this.exam));
  protected readonly about = computed(() => {
    const record = this.exam.record();
    return record ? `${personWords(record.patient)} · ${episodeWords(record.episode)} · visit ${record.visit.number}` : '';
  });
  protected readonly name = computed(() => fullName(this.exam.record()!.patient));

  /** Under the figures: what they mean, in words. */
  protected readonly reading = computed(() => {
    const angle = this.exam.typedAngle() ?? this.exam.measured()?.value;
    if (angle === undefined) return `type degrees, Enter holds · goniometer`;
    const said = angle < 0 ? `${describeEnd(this.exam.motion(), Math.round(angle))} · ` : '';
    return `${said}± ${formatWhole(this.model()?.error ?? 0)} measuring error · goniometer`;
  });
  protected readonly standing = computed(() => {
    const measured = this.exam.measured();
    return measured ? endFigure(Math.round(measured.value)) : '–';
  });

  /** Half the width of the figures, so that the degree sign stands right behind them. */
  protected readonly degreeAt = computed(() => {
    const figures = this.exam.typed() || this.standing();
    const em = figures.length > 4 ? 56 : 96;
    return `calc(50% + ${figures.length * em * 0.31 + 4}px)`;
  });

  constructor() {
    effect(() => {
      if (!this.visit.hasValue()) return;
      const record = this.visit.value();
      if (this.exam.record()?.visit.id !== record.visit.id) this.exam.open(record);
    });
    effect(() => {
      // Wherever the exam goes, the hands find the entry ready.
      this.exam.place();
      this.focusEntry();
    });
  }

  protected focusEntry(): void {
    this.entry()?.nativeElement.focus({ preventScroll: true });
  }

  protected typed(event: Event): void {
    const field = event.target as HTMLInputElement;
    // Letters are commands here, never part of a reading.
    field.value = field.value.replace(/[^\d/.,−-]/g, '');
    this.exam.typed.set(field.value);
    this.exam.problem.set('');
  }

  /** Keys work only while the entry has the focus, so that no letter typed elsewhere becomes a command. */
  protected key(event: KeyboardEvent): void {
    // While a dialog opens the focus is still here: its keys are not the dial's.
    if (event.altKey || event.metaKey || this.dialog.openDialogs.length > 0) return;
    const action = event.ctrlKey ? (event.key === 'z' ? () => this.exam.undo() : undefined) : this.actions[event.key];
    if (!action) return;
    event.preventDefault();
    action();
    // At once, not with the next drawing of the page: the next digit may already be on its way.
    (event.target as HTMLInputElement).value = this.exam.typed();
  }

  private readonly actions: Readonly<Record<string, () => void>> = {
    Enter: () => void this.exam.hold(),
    ArrowDown: () => this.exam.step(1),
    ArrowUp: () => this.exam.step(-1),
    n: () => this.exam.step(1),
    b: () => this.exam.step(-1),
    o: () => this.exam.otherSide(),
    m: () => this.exam.otherMode(),
    u: () => this.exam.undo(),
    p: () => this.remarks()?.focusPain(),
    e: () => this.remarks()?.focusEndFeel(),
    x: () => this.remarks()?.focusSubstitutions(),
    l: () => void this.openLibrary(),
    '?': () => void this.showKeys(),
    Escape: () => this.exam.typed.set(''),
  };

  /** The library's page of the motion in hand, over the dial. */
  protected async openLibrary(): Promise<void> {
    const { ProtocolDialog } = await import('../library/protocol.dialog');
    const { patient, visit } = this.exam.record()!;
    this.dialog
      .open(ProtocolDialog, {
        data: {
          protocol: this.exam.protocol(),
          person: { sex: patient.sex, age: ageOn(patient.birthDate, visit.assessedOn) },
          mode: this.exam.row().mode,
        },
        width: '1120px',
        maxWidth: '96vw',
        maxHeight: '94vh',
      })
      .afterClosed()
      .subscribe(() => this.focusEntry());
  }

  protected async showKeys(): Promise<void> {
    const { KeysDialog } = await import('./keys.dialog');
    this.dialog
      .open(KeysDialog, { width: '520px' })
      .afterClosed()
      .subscribe(() => this.focusEntry());
  }
}
