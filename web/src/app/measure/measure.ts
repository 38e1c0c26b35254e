import { OddRecords } from '../ui/odd-records';
import { ChangeDetectionStrategy, Component, computed, effect, type ElementRef, inject, input, signal, viewChild } from '@angular/core';
import { rxResource, takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatDialog } from '@angular/material/dialog';
import { RouterLink } from '@angular/router';
import { catchError, EMPTY, exhaustMap, filter, fromEvent, interval, merge } from 'rxjs';
import {
  allowedSides,
  describeEnd,
  endFigure,
  formatSize,
  isUpright,
  modesOf,
  motion,
  protocolOfId,
  rounded,
  type Sense,
  type Standpoint,
  type Unit,
} from '@dial-gauge/core';
import { episodeWords, fullName, personWords, today } from '../caseload/words';
import { OTHERS_EVERY, VisitStore } from '../data/visit-store';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { Dial } from '../ui/dial/dial';
import { ArcStrip } from '../ui/arc-strip/arc-strip';
import { dialModel, straightModel } from './dial-model';
import { TableView } from '../ui/table-view/table-view';
import { UNIT_WORDS } from '../ui/words';
import { DialDialogs } from './dial-dialogs';
import { Exam, EXAM } from './exam';
import { dialKey, type DialAction } from './key-map';
import { Remarks } from './remarks';
import { LiveStrip } from './live-strip';
import { limitWords, readingWords } from './reading-words';
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
  providers: [EXAM, DialDialogs],
  templateUrl: './measure.html',
  styleUrl: './measure.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MeasurePage {
  private readonly visits = inject(VisitStore);
  private readonly dialog = inject(MatDialog);
  protected readonly dialogs = inject(DialDialogs);
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
  protected readonly visit = rxResource({ params: () => this.id(), stream: ({ params }) => this.visits.visit(params) });
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
  protected readonly reading = computed(() => readingWords(this.exam, this.kind.isTouched()));
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
    if (!exam.sources.isOffered()) return this.standing();
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
      this.dialogs.fetch();
    });
    effect(() => {
      // Wherever the exam goes, the hands find the entry ready.
      this.exam.record.place();
      this.exam.course.turning();
      this.focusEntry();
    });
    effect(() => {
      if (this.exam.commands.pastStop()) void this.dialogs.askWhy();
    });
    this.dialogs.closed.pipe(takeUntilDestroyed()).subscribe(() => this.focusEntry());
    this.lookForOthers();
  }

  /** What a second examiner holds meanwhile joins this screen. */
  private lookForOthers(): void {
    const seen = () => document.visibilityState === 'visible' && this.exam.record.visit() !== null;
    merge(interval(OTHERS_EVERY), fromEvent(document, 'visibilitychange'))
      .pipe(
        filter(seen),
        exhaustMap(() => {
          const at = this.exam.commands.changes;
          // What was entered meanwhile is newer than the answer: the next look will have it.
          return this.visits.refresh(this.id(), true).pipe(
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
    if (this.swipeFrom - changedTouches[0]!.clientY > SWIPE) void this.dialogs.openSheet();
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
    showKeys: () => void this.dialogs.showKeys(),
    otherSide: () => this.exam.course.otherSide(),
    otherMode: () => this.exam.course.otherMode(),
    undo: () => this.exam.commands.undo(),
    correct: () => void this.dialogs.correctLast(),
    endFeel: () => this.remarks()?.focusEndFeel(),
    pain: () => this.remarks()?.focusPain(),
    substitutions: () => this.remarks()?.focusSubstitutions(),
    notDone: () => this.remarks()?.focusNotDone(),
    note: () => this.remarks()?.focusNote(),
    tool: () => void this.dialogs.chooseTool(),
    standpoint: () => this.changeStandpoint(),
    add: () => void this.dialogs.addToSheet(),
    library: () => void this.dialogs.openLibrary(),
    holdLive: () => this.holdLive(),
    zero: () => this.withLive(() => this.exam.live.zero('start')),
    flip: () => this.withLive(() => this.exam.live.flip()),
    instruments: () => void this.dialogs.openInstruments(),
  };

  private holdLive(): void {
    if (this.exam.sources.isOffered()) this.exam.commands.hold();
    // A space between two figures is part of what is typed.
    else if (this.exam.typed.text() !== '') this.exam.typed.text.update((text) => `${text} `);
    else this.withLive(() => this.exam.commands.hold());
  }

  private withLive(then: () => void): void {
    if (this.exam.live.isOn()) then();
    else this.exam.course.problem.set('No instrument is connected: d connects one, or type the reading.');
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
}
