import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { Exam } from './exam';
import { holdWords } from './reading-words';
import { ScreenKind } from './screen-kind';

/** What a key puts behind what is typed, or does to it. */
interface PadKey {
  readonly shown: string;
  readonly label: string;
  readonly types: string | 'sign';
}

const digit = (shown: string): PadKey => ({ shown, label: shown, types: shown });
const ROWS: readonly (readonly PadKey[])[] = ['789', '456', '123'].map((row) => [...row].map(digit));
const SIGN: PadKey = { shown: '±', label: 'change the sign', types: 'sign' };
const SLASH: PadKey = { shown: '/', label: 'slash: start and end, or the second site', types: '/' };
const POINT: PadKey = { shown: '.', label: 'point', types: '.' };
const FIST: PadKey = { shown: 'f', label: 'fists, then fingers', types: 'f' };

/** Big keys for a thumb: digits, sign, Hold and Undo, and what else the dial does without keys. */
@Component({
  selector: 'dg-keypad',
  template: `
    @if (isAnswer()) {
      <div class="keys answer" role="group" aria-label="Answer">
        <button type="button" (click)="answer('y')">yes</button>
        <button type="button" (click)="answer('n')">no</button>
      </div>
    } @else {
      <div class="keys" role="group" aria-label="Figures">
        @for (row of rows; track $index) {
          @for (key of row; track key.shown) {
            <button type="button" class="figure" (click)="press(key)">{{ key.shown }}</button>
          }
        }
        @for (key of last(); track key.shown) {
          <button type="button" class="figure" [attr.aria-label]="key.label === key.shown ? null : key.label" (click)="press(key)">
            {{ key.shown }}
          </button>
        }
      </div>
    }
    <div class="do" [class.left]="kind.thumb() === 'left'">
      <button type="button" [disabled]="!exam.commands.canUndo()" (click)="exam.commands.undo()">Undo</button>
      <button type="button" [disabled]="exam.typed.text() === ''" aria-label="Take the last digit away" (click)="back()">⌫</button>
      <button type="button" class="main" [disabled]="!exam.sources.holds()" (click)="exam.commands.hold()">{{ holdWords() }}</button>
    </div>
    <div class="more">
      <button type="button" (click)="exam.course.otherSide()">other side</button>
      @if (exam.record.motion().unit === 'deg') {
        <button type="button" (click)="exam.course.otherMode()">{{ exam.record.row().mode === 'active' ? 'passive' : 'active' }}</button>
      }
      <button type="button" (click)="tool.emit()">tool</button>
      <button type="button" (click)="connect.emit()">connect</button>
      <button type="button" (click)="letters.emit()">letters</button>
      <button type="button" (click)="kind.changeThumb()">{{ kind.thumb() === 'left' ? 'right' : 'left' }}-handed</button>
    </div>
  `,
  styleUrl: './keypad.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Keypad {
  protected readonly exam = inject(Exam);
  protected readonly kind = inject(ScreenKind);
  readonly tool = output<void>();
  readonly connect = output<void>();
  /** The keyboard of the system is wanted: an arc, a side, a unit. */
  readonly letters = output<void>();

  protected readonly rows = ROWS;
  protected readonly isAnswer = computed(() => this.exam.record.motion().unit === 'yesNo');
  protected readonly last = computed((): readonly PadKey[] => {
    const { unit } = this.exam.record.motion();
    if (unit === 'deg') return [SLASH, digit('0'), SIGN];
    return [this.exam.record.instrument() === 'visual' && unit === 'cm' ? FIST : SIGN, digit('0'), POINT];
  });
  protected readonly holdWords = computed(() => holdWords(this.exam, 'Hold'));

  protected press({ types }: PadKey): void {
    this.exam.course.problem.set('');
    this.exam.typed.text.update((text) => (types === 'sign' ? signed(text) : `${text}${types}`.slice(0, 24)));
  }

  protected back(): void {
    this.exam.course.problem.set('');
    this.exam.typed.text.update((text) => text.slice(0, -1));
  }

  protected answer(letter: string): void {
    this.exam.typed.text.set(letter);
    this.exam.commands.hold();
  }
}

/** The sign of the figure that is being typed, the last of several. */
function signed(text: string): string {
  const at = text.lastIndexOf('/') + 1;
  const figure = text.slice(at);
  return text.slice(0, at) + (figure.startsWith('-') ? figure.slice(1) : `-${figure}`);
}
