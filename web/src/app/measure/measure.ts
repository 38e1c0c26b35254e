import { OddRecords } from '../ui/odd-records';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  signal,
  viewChild,
  ViewContainerRef,
} from '@angular/core';
import { rxResource, takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatBottomSheet } from '@angular/material/bottom-sheet';
import { MatDialog, type MatDialogRef } from '@angular/material/dialog';
import { RouterLink } from '@angular/router';
import { VISITS } from '@dial-gauge/contract';
import { catchError, EMPTY, exhaustMap, filter, fromEvent, interval, merge } from 'rxjs';
import {
  ageOn,
  allowedSides,
  describeEnd,
  endFigure,
  formatSize,
  modesOf,
  motion,
  protocolOfId,
  rounded,
  type Sense,
  type SheetItem,
  type Unit,
} from '@dial-gauge/core';
import { episodeWords, fullName, personWords, today } from '../caseload/words';
import { Api } from '../data/api';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { Dial } from '../ui/dial/dial';
import { ArcStrip } from '../ui/arc-strip/arc-strip';
import { dialModel, straightModel } from './dial-model';
import { TableView } from '../ui/table-view/table-view';
import type { ReasonQuestion } from '../ui/reason.dialog';
import { isUpright, type Standpoint } from '../ui/table-view/plan-view';
import { UNIT_WORDS } from '../ui/words';
import { Exam, EXAM } from './exam';
import { dialKey, type DialAction } from './key-map';
import { Remarks } from './remarks';
import type { HeldReading } from './cells';
import { LiveStrip } from './live-strip';
import { limitWords, readingWords, shownReading } from './reading-words';
import { Keypad } from './keypad';
import { RunSheet } from './run-sheet';
import { ScreenKind } from './screen-kind';
import { TechniqueCard } from './technique-card';
import { TrialsStrip } from './trials-strip';
import { Turn } from './turn';

/** Letters that may follow a figure. */
const PART_OF_A_READING: Readonly<Record<Unit, string>> = { deg: 'lr', cm: 'cminflr', N: 'lbkgnr', s: 'slr', yesNo: 'yesno' };
const STANDPOINT = 'dial-gauge.standpoint';
/** A swipe so far up opens the run sheet. */
const SWIPE = 30;
/** How often what others hold is looked for, in milliseconds. */
const LOOK_EVERY = 20_000;

/** The heart: one motion at a time on the dial, typed and held without looking down. */
@Component({
  selector: 'dg-measure',
  imports: [
    OddRecords,
    ArcStrip,
    Dial,
    Frame,
    Keypad,
    LiveStrip,
    Pending,
    Remarks,
    RouterLink,
    RunSheet,
    TableView,
    TechniqueCard,
    TrialsStrip,
    Turn,
  ],
  providers: [EXAM],
  templateUrl: './measure.html',
  styleUrl: './measure.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MeasurePage {
  private readonly api = inject(Api);
  private readonly dialog = inject(MatDialog);
  private readonly sheets = inject(MatBottomSheet);
  private readonly here = inject(ViewContainerRef);
  protected readonly kind = inject(ScreenKind);
  protected readonly exam = inject(Exam);
  readonly id = input.required<string>();
  /** Key of a measurement to go to: one that is to be taken again. */
  readonly at = input<string>();
  /** A way of measuring to be put on the run sheet, from the address, with its side and mode. */
  readonly add = input<string>();
  readonly side = input<string>();
  readonly mode = input<string>();

  private readonly entry = viewChild<ElementRef<HTMLInputElement>>('entry');
  private readonly remarks = viewChild(Remarks);
  protected readonly visit = rxResource({ params: () => this.id(), stream: ({ params }) => this.api.call(VISITS.visit, { id: params }) });
  protected readonly model = computed(() => dialModel(this.exam));
  /** Drawn where there is no angle to turn a needle by. */
  protected readonly straight = computed(() => (this.model() ? null : straightModel(this.exam)));
  protected readonly unitWords = computed(() => UNIT_WORDS[this.exam.record.motion().unit]);
  protected readonly sideWord = computed(() => (this.exam.record.place().side === 'midline' ? '' : this.exam.record.place().side));
  protected readonly about = computed(() => {
    const record = this.exam.record.visit();
    return record ? `${personWords(record.patient)} · ${episodeWords(record.episode)} · visit ${record.visit.number}` : '';
  });
  protected readonly name = computed(() => fullName(this.exam.record.visit()!.patient));

  /** Under the figures: what they mean, in words. */
  protected readonly reading = computed(() => readingWords(this.exam));
  /** What the precautions say of the measurement in hand. */
  protected readonly limit = computed(() => limitWords(this.exam));
  protected readonly standing = computed(() => {
    const measured = this.exam.record.measured();
    return measured ? endFigure(rounded(measured.value, this.exam.record.motion().unit), this.exam.record.motion()) : '';
  });

  /** What stands in the place of the figures until something is typed: where the needle is, or what was held. */
  protected readonly shownFigure = computed(() => {
    const { exam } = this;
    if (exam.course.turning()) return '';
    if (!exam.sources.isLive()) return this.standing();
    const value = exam.sources.value();
    return value === null ? '–' : endFigure(value, exam.record.motion());
  });

  protected readonly entryLabel = computed(() =>
    this.exam.course.turning()
      ? 'Turn the patient, then press Enter'
      : `Reading in ${this.unitWords()}, ${this.exam.record.nameOf(this.exam.record.row(), this.exam.record.place().side)}`,
  );
  /** Both readings, where nobody has said which way the device counts. */
  protected readonly ways = computed(() =>
    this.exam.typed.bothWays().map(({ sense, value }) => ({
      sense,
      words: `${describeEnd(this.exam.record.motion(), value)}, counting ${sense === 1 ? 'up' : 'down'}`,
    })),
  );
  /** The same figures with the device counting the other way. */
  protected readonly otherWords = computed(() => {
    const other = this.exam.typed.otherValue();
    return other === null || this.exam.typed.text() === '' ? '' : `or ${formatSize(other, 'deg')} the other way round`;
  });

  /** Half the width of the figures, so that the degree sign stands right behind them. */
  protected readonly degreeAt = computed(() => {
    const figures = this.exam.typed.text() || this.shownFigure();
    const [em, long] = this.kind.isPhone() ? [62, 40] : [96, 56];
    return `calc(50% + ${figures.length * (figures.length > 4 ? long : em) * 0.31 + 4}px)`;
  });

  /** The caution questions ended this visit before anything was measured. */
  protected readonly refer = computed(() => this.exam.record.visit()?.cautions?.outcome === 'refer');
  /** Where the examiner stands; remembered on this device. */
  protected readonly standpoint = signal<Standpoint>(localStorage.getItem(STANDPOINT) === 'head' ? 'head' : 'foot');

  /** Where the address leads: to a measurement, or to a way of measuring that comes onto the sheet. */
  private openAt(): void {
    const protocol = this.add();
    const found = protocol === undefined ? undefined : protocolOfId(protocol);
    if (!found || this.exam.record.locked()) return this.exam.course.goToKey(this.at());
    const side = allowedSides(motion(found.motion)).find((s) => s === this.side());
    const mode = modesOf(found).find((m) => m === this.mode());
    this.exam.commands.add({ protocol: found.id, ...(side ? { side } : {}), ...(mode ? { mode } : {}) });
  }

  constructor() {
    let opening = '';
    effect(() => {
      if (!this.visit.hasValue()) return;
      const record = this.visit.value();
      if (opening === record.visit.id) return;
      opening = record.visit.id;
      void this.exam.commands.open(record).then(() => this.openAt());
      this.fetchDialogs();
    });
    effect(() => {
      // Wherever the exam goes, the hands find the entry ready.
      this.exam.record.place();
      this.exam.course.turning();
      this.focusEntry();
    });
    effect(() => {
      if (this.exam.commands.pastStop()) void this.askWhy();
    });
    this.lookForOthers();
  }

  /** What is opened over the dial is fetched now: there may be no connection when it is needed. */
  private fetchDialogs(): void {
    const all = [
      import('../ui/reason.dialog'),
      import('./correct.dialog'),
      import('./tool.dialog'),
      import('./keys.dialog'),
      import('./instruments.dialog'),
      import('../library/add.dialog'),
      import('../library/protocol.dialog'),
      import('../shell/sign-out.dialog'),
      import('../shell/sign-in-again.dialog'),
    ];
    // Missed now, it is fetched when it is asked for.
    for (const dialog of all) void dialog.catch(() => undefined);
  }

  /** What a second examiner holds meanwhile joins this screen. */
  private lookForOthers(): void {
    const seen = () => document.visibilityState === 'visible' && this.exam.record.visit() !== null;
    merge(interval(LOOK_EVERY), fromEvent(document, 'visibilitychange'))
      .pipe(
        filter(seen),
        exhaustMap(() => {
          const at = this.exam.commands.changes;
          // What was entered meanwhile is newer than the answer: the next look will have it.
          return this.api.call(VISITS.visit, { id: this.id() }).pipe(
            filter(() => this.exam.commands.changes === at),
            catchError(() => EMPTY),
          );
        }),
        takeUntilDestroyed(),
      )
      .subscribe((record) => void this.exam.commands.join(record));
  }

  protected focusEntry(): void {
    const field = this.entry()?.nativeElement;
    field?.focus({ preventScroll: true });
    // On a small screen the run sheet lies below the dial: back up to it, and no further than needed.
    field?.scrollIntoView({ block: 'nearest' });
  }

  /** Read off by eye: the needle says what would be typed. */
  protected dragged(angle: number): void {
    this.exam.course.problem.set('');
    this.exam.typed.text.set(String(angle));
  }

  /** The keyboard of the system comes up where letters are wanted, and goes with the next measurement. */
  protected readonly wantsLetters = signal(false);
  protected askLetters(): void {
    this.wantsLetters.set(true);
    const field = this.entry()?.nativeElement;
    field?.setAttribute('inputmode', 'text');
    field?.blur();
    field?.focus();
  }

  protected swipeFrom = 0;
  protected swiped({ changedTouches }: TouchEvent): void {
    if (this.swipeFrom - changedTouches[0]!.clientY > SWIPE) void this.openSheet();
  }

  /** On a phone the run sheet lies under the dial: one swipe up, or one touch. */
  protected async openSheet(): Promise<void> {
    const { RunSheetSheet } = await import('./run-sheet.sheet');
    this.sheets
      .open<object, unknown, 'add'>(RunSheetSheet, { viewContainerRef: this.here, ariaLabel: 'Run sheet', panelClass: 'dg-sheet' })
      .afterDismissed()
      .subscribe((then) => (then === 'add' ? void this.addToSheet() : this.focusEntry()));
  }

  protected readonly nextWords = computed(() => {
    const next = this.exam.course.next();
    return next ? `next: ${this.exam.record.nameOf(this.exam.record.rows()[next.row]!, next.side)}` : 'all measured';
  });
  protected readonly placeWords = computed(() => {
    const { at, of } = this.exam.course.progress();
    return `${at} of ${of}`;
  });

  protected typed(event: Event): void {
    this.exam.typed.text.set((event.target as HTMLInputElement).value);
    this.exam.course.problem.set('');
  }

  /** Keys work only while the entry has the focus, so that no command typed elsewhere becomes a command. */
  protected key(event: KeyboardEvent): void {
    // While a dialog opens the focus is still here: its keys are not the dial's.
    if (this.dialog.openDialogs.length > 0) return;
    const action = this.actionOf(event);
    if (!action) return;
    event.preventDefault();
    action();
    // At once, not with the next drawing of the page: the next digit may already be on its way.
    (event.target as HTMLInputElement).value = this.exam.typed.text();
  }

  /** Letters are commands, but where one may belong to what is typed: a unit, a side, an answer. */
  private actionOf(event: KeyboardEvent): (() => void) | undefined {
    const { key } = event;
    const found = dialKey(event);
    if (found?.always) return this.actions[found.does];
    if (event.ctrlKey || event.altKey || event.metaKey) return undefined;
    const answering = this.exam.record.motion().unit === 'yesNo' && (key === 'y' || key === 'n');
    if (this.exam.course.turning()) return /^[\w/-]$/.test(key) ? () => void this.exam.commands.hold() : undefined;
    const isText = this.exam.typed.text() !== '' && PART_OF_A_READING[this.exam.record.motion().unit].includes(key);
    return isText || answering || !found ? undefined : this.actions[found.does];
  }

  protected enter(): void {
    if (this.exam.course.turning()) return this.exam.course.confirmTurn();
    const read = this.exam.typed.offer();
    // Half a pair: Enter goes on to the next figure.
    if (!read.ok && read.next) {
      this.exam.typed.text.update((typed) => `${typed.trim()}/`);
      this.exam.course.announcement.set(`Now the ${read.next}`);
      return;
    }
    this.exam.commands.hold();
  }

  /** What each of them comes to; which key does it, the map tells. */
  private readonly actions: Readonly<Record<DialAction, () => void>> = {
    enter: () => this.enter(),
    next: () => (this.exam.course.turning() ? this.exam.course.confirmTurn() : this.exam.course.step(1)),
    back: () => this.exam.course.step(-1),
    clear: () => (this.exam.course.turning() ? this.exam.course.stayHere() : this.exam.typed.text.set('')),
    showKeys: () => void this.showKeys(),
    otherSide: () => this.exam.course.otherSide(),
    otherMode: () => this.exam.course.otherMode(),
    undo: () => this.exam.commands.undo(),
    correct: () => void this.correctLast(),
    endFeel: () => this.remarks()?.focusEndFeel(),
    pain: () => this.remarks()?.focusPain(),
    substitutions: () => this.remarks()?.focusSubstitutions(),
    notDone: () => this.remarks()?.focusNotDone(),
    note: () => this.remarks()?.focusNote(),
    tool: () => void this.chooseTool(),
    standpoint: () => this.changeStandpoint(),
    add: () => void this.addToSheet(),
    library: () => void this.openLibrary(),
    holdLive: () => this.holdLive(),
    zero: () => this.withLive(() => this.exam.live.zero('start')),
    flip: () => this.withLive(() => this.exam.live.flip()),
    instruments: () => void this.openInstruments(),
  };

  private holdLive(): void {
    if (this.exam.sources.isLive()) this.exam.commands.hold();
    // A space between two figures is part of what is typed.
    else if (this.exam.typed.text() !== '') this.exam.typed.text.update((text) => `${text} `);
    else this.withLive(() => this.exam.commands.hold());
  }

  private withLive(then: () => void): void {
    if (this.exam.live.isOn()) then();
    else this.exam.course.problem.set('No instrument is connected: d connects one, or type the reading.');
  }

  /** What is connected, and how it is read. */
  protected async openInstruments(): Promise<void> {
    const { InstrumentsDialog } = await import('./instruments.dialog');
    this.afterwards(this.dialog.open(InstrumentsDialog, { data: this.exam, width: '640px', maxHeight: '94vh' }));
  }

  /** Where one can go from here. */
  protected readonly standWords = computed(() => {
    const upright = isUpright(this.exam.record.station());
    if (this.standpoint() === 'foot') return upright ? 'I stand behind' : 'I stand at the head';
    return upright ? 'I stand in front' : 'I stand at the foot';
  });
  /** A visit of another day is looked at, not begun. */
  protected readonly isToday = (day: string): boolean => day === today();

  protected changeStandpoint(): void {
    this.standpoint.update((at) => (at === 'foot' ? 'head' : 'foot'));
    localStorage.setItem(STANDPOINT, this.standpoint());
  }

  /** Says which way the device counts; the figures are held by the next Enter. */
  protected tell(sense: Sense): void {
    this.exam.typed.tellSense(sense);
    this.focusEntry();
  }

  protected flip(): void {
    this.exam.typed.flipSense();
    this.focusEntry();
  }

  /** What is in the hand, and how it counts. */
  protected async chooseTool(): Promise<void> {
    const { ToolDialog } = await import('./tool.dialog');
    this.afterwards(this.dialog.open(ToolDialog, { data: this.exam.record.protocol(), width: '520px', maxHeight: '94vh' }));
  }

  private async correctLast(): Promise<void> {
    const last = this.exam.record.cell().readings.at(-1);
    if (last) await this.correct(last);
    else this.exam.course.problem.set('Nothing is held here yet; there is nothing to correct.');
  }

  /** Puts a reading right; the old value stays on record. */
  protected async correct(reading: HeldReading): Promise<void> {
    const { CorrectDialog } = await import('./correct.dialog');
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
    const dialog = this.dialog.open<unknown, unknown, Answer>(CorrectDialog, { data, width: '560px' });
    this.afterwards(dialog, (answer) => exam.commands.correct(reading, answer.reading, answer.why));
  }

  /** A reading past a limit is held only with a reason. */
  private async askWhy(): Promise<void> {
    const { exam } = this;
    const { ReasonDialog } = await import('../ui/reason.dialog');
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
    this.afterwards(this.dialog.open<unknown, unknown, string>(ReasonDialog, { data, width: '520px' }), (why) =>
      exam.commands.holdPast(why),
    );
  }

  /** When a dialog closes the hands find the entry again. */
  private afterwards<T>(dialog: MatDialogRef<unknown, T>, then?: (answer: T) => void): void {
    dialog.afterClosed().subscribe((answer) => {
      // A dialog that was closed without an answer gives an empty one.
      if (answer) then?.(answer);
      this.focusEntry();
    });
  }

  /** Any way of measuring that is not on the sheet yet. */
  protected async addToSheet(): Promise<void> {
    const { AddDialog } = await import('../library/add.dialog');
    const config = { data: this.exam.record.steps(), width: '560px', maxHeight: '94vh' };
    this.afterwards(this.dialog.open<unknown, readonly SheetItem[], SheetItem>(AddDialog, config), (item) => this.exam.commands.add(item));
  }

  /** The library's page of the motion in hand, over the dial. */
  protected async openLibrary(): Promise<void> {
    const { ProtocolDialog } = await import('../library/protocol.dialog');
    const { patient, visit } = this.exam.record.visit()!;
    const person = { sex: patient.sex, age: ageOn(patient.birthDate, visit.assessedOn) };
    const data = { protocol: this.exam.record.protocol(), person, mode: this.exam.record.row().mode };
    this.afterwards(this.dialog.open(ProtocolDialog, { data, width: '1120px', maxWidth: '96vw', maxHeight: '94vh' }));
  }

  protected async showKeys(): Promise<void> {
    const { KeysDialog } = await import('./keys.dialog');
    this.afterwards(this.dialog.open(KeysDialog, { width: '560px', maxHeight: '94vh' }));
  }
}
