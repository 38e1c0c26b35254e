import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { regionName, type Joint, type Side } from '@dial-gauge/core';

/** What is known of one joint on one side: the heaviest that was found, or that nothing was. */
export type JointState = 'pain' | 'again' | 'one-sided' | 'short' | 'beyond' | 'not-judged' | 'fine' | 'not-measured';

export interface JointMark {
  readonly joint: Joint;
  readonly side: Side;
  readonly state: JointState;
  /** "left hip: short, hurts" */
  readonly words: string;
}

/** Where each joint is drawn, left half; the right half mirrors it. Seen from behind, so that left is left. */
const PLACES: Readonly<Partial<Record<Joint, readonly [x: number, y: number]>>> = {
  cervical: [60, 45],
  shoulder: [35, 62],
  thoracic: [60, 80],
  elbow: [23, 106],
  thoracolumbar: [60, 101],
  lumbar: [60, 122],
  forearm: [18, 128],
  wrist: [14, 149],
  thumbCmc: [24, 158],
  thumbMcp: [27, 166],
  thumbIp: [29, 173],
  fingerMcp: [11, 164],
  fingerPip: [10, 173],
  fingerDip: [9, 181],
  hip: [45, 148],
  knee: [43, 207],
  ankle: [42, 262],
  subtalar: [42, 273],
  greatToeMtp: [47, 283],
  greatToeIp: [49, 290],
};
const MIDDLE = 60;

const STATE_WORDS: Readonly<Record<JointState, string>> = {
  pain: 'hurts',
  again: 'to measure again',
  'one-sided': 'less than the other side',
  short: 'short',
  beyond: 'beyond normal',
  'not-judged': 'not judged',
  fine: 'as expected',
  'not-measured': 'not measured',
};

/** A person from behind with a mark at every joint: where it hurts, is short, or is still unmeasured. Pressing one shows what was found there. */
@Component({
  selector: 'dg-body-map',
  templateUrl: './body-map.html',
  styleUrl: './body-map.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BodyMap {
  readonly marks = input.required<readonly JointMark[]>();
  /** The joint that is looked at, if any. */
  readonly chosen = input<{ readonly joint: Joint; readonly side: Side } | null>(null);
  readonly choose = output<JointMark | null>();

  protected readonly drawn = computed(() =>
    this.marks().flatMap((mark) => {
      const place = PLACES[mark.joint];
      if (!place) return [];
      const [x, y] = place;
      const at = mark.side === 'right' ? 2 * MIDDLE - x : mark.side === 'midline' ? MIDDLE : x;
      const chosen = this.chosen();
      return [{ mark, x: at, y, isChosen: chosen?.joint === mark.joint && chosen.side === mark.side, words: wordsOf(mark) }];
    }),
  );

  protected press(mark: JointMark): void {
    const chosen = this.chosen();
    this.choose.emit(chosen?.joint === mark.joint && chosen.side === mark.side ? null : mark);
  }
}

function wordsOf({ joint, side, state, words }: JointMark): string {
  const name = `${side === 'midline' ? '' : `${side} `}${regionName(joint).toLowerCase()}`;
  return `${name}: ${words || STATE_WORDS[state]}`;
}
