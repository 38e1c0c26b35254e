import { ChangeDetectionStrategy, Component, computed, effect, type ElementRef, inject, input, viewChild } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatDialog } from '@angular/material/dialog';
import { ageOn, bandAround, describeEnd, endFigure, formatSize, rounded, type SheetItem } from '@dial-gauge/core';
import { episodeWords, fullName, personWords } from '../caseload/words';
import { Api } from '../data/api';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { Dial } from '../ui/dial/dial';
import { ArcStrip } from '../ui/arc-strip/arc-strip';
import { dialModel, straightModel } from './dial-model';
import { INSTRUMENT_WORDS, UNIT_WORDS } from '../ui/words';
import { Exam } from './exam';
import { Remarks } from './remarks';
import { RunSheet } from './run-sheet';
import { TechniqueCard } from './technique-card';
import { TrialsStrip } from './trials-strip';

/** The heart: one motion at a time on the dial, typed and held without looking down. */
@Component({
  selector: 'dg-measure',
  imports: [ArcStrip, Dial, Frame, Pending, Remarks, RunSheet, TechniqueCard, TrialsStrip],
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
  /** Drawn where there is no angle to turn a needle by. */
  protected readonly straight = computed(() => (this.model() ? null : straightModel(this.exam)));
  protected readonly unitWords = computed(() => UNIT_WORDS[this.exam.motion().unit]);
  protected readonly sideWord = computed(() => (this.exam.place().side === 'midline' ? '' : this.exam.place().side));
  protected readonly about = computed(() => {
    const record = this.exam.record();
    return record ? `${personWords(record.patient)} · ${episodeWords(record.episode)} · visit ${record.visit.number}` : '';
  });
  protected readonly name = computed(() => fullName(this.exam.record()!.patient));

  /** Under the figures: what they mean, in words. */
  protected readonly reading = computed(() => {
    const about = this.exam.motion();
    const tool = INSTRUMENT_WORDS[this.exam.instrument()];
    const value = this.exam.typedValue() ?? this.exam.measured()?.value;
    if (value === undefined)
      return this.exam.isDual()
        ? `type upper/lower, as 104/49, Enter holds · ${tool}`
        : `type ${UNIT_WORDS[about.unit]}, Enter holds · ${tool}`;
    const said = value < 0 || about.plus || this.exam.isDual() ? `${describeEnd(about, rounded(value, about.unit))} · ` : '';
    const suspect = this.exam.isDual() && value < 0 ? ' · the lower site moved more: check both sites' : '';
    return `${said}± ${formatSize(bandAround(this.exam.sem()), about.unit)} measuring error · ${tool}${suspect}`;
  });
  protected readonly standing = computed(() => {
    const measured = this.exam.measured();
    return measured ? endFigure(rounded(measured.value, this.exam.motion().unit), this.exam.motion()) : '–';
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
    field.value = field.value.replace(this.exam.isDual() ? /[^\d/.,− -]/g : /[^\d/.,−-]/g, '');
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
    a: () => void this.addToSheet(),
    l: () => void this.openLibrary(),
    '?': () => void this.showKeys(),
    Escape: () => this.exam.typed.set(''),
  };

  /** Any way of measuring that is not on the sheet yet. */
  protected async addToSheet(): Promise<void> {
    const { AddDialog } = await import('../library/add.dialog');
    this.dialog
      .open<unknown, readonly SheetItem[], SheetItem>(AddDialog, { data: this.exam.sheet(), width: '560px', maxHeight: '94vh' })
      .afterClosed()
      .subscribe((item) => {
        if (item) this.exam.add(item);
        this.focusEntry();
      });
  }

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
