import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { seemsAt } from '@dial-gauge/core';
import { TaskView } from './task-view';
import { DegreesField } from './degrees-field';

const [CENTRE, OUTER, INNER] = [200, 168, 132];
const at = (degrees: number, radius: number): readonly [number, number] => {
  const turned = ((degrees - 90) * Math.PI) / 180;
  return [CENTRE + radius * Math.cos(turned), CENTRE + radius * Math.sin(turned)];
};

/** A goniometer with two rings and a thick clear arm: seen askew, the line on its face seems to lie elsewhere. */
@Component({
  selector: 'dg-read-task',
  imports: [DegreesField],
  template: `
    <div class="both">
      <svg
        viewBox="0 0 400 400"
        role="img"
        aria-label="A goniometer with its still arm and its moving arm; the zero of one ring lies at the still arm"
      >
        <defs>
          <g id="gauge">
            <circle cx="200" cy="200" r="176" class="plate" />
            @for (mark of marks(); track $index) {
              <line
                [attr.x1]="mark.from[0]"
                [attr.y1]="mark.from[1]"
                [attr.x2]="mark.to[0]"
                [attr.y2]="mark.to[1]"
                class="tick"
                [class.ten]="mark.ten"
              />
            }
            @for (number of numbers(); track $index) {
              <text [attr.x]="number.at[0]" [attr.y]="number.at[1]" [class.inner]="number.inner">{{ number.text }}</text>
            }
            <path [attr.d]="still()" class="still" />
            <path [attr.d]="arm()" class="arm" />
            <line x1="200" y1="200" [attr.x2]="line(0.5)[0]" [attr.y2]="line(0.5)[1]" class="low" />
            <line x1="200" y1="200" [attr.x2]="line(1)[0]" [attr.y2]="line(1)[1]" class="high" />
            <circle cx="200" cy="200" r="9" class="rivet" />
          </g>
        </defs>
        <use href="#gauge" />
      </svg>
      <figure>
        <svg [attr.viewBox]="lens()" aria-hidden="true" class="lens"><use href="#gauge" /></svg>
        <figcaption class="soft">through the glass</figcaption>
      </figure>
    </div>
    <label class="eye"
      ><span>Your eye: move it until the two lines on the arm lie on each other</span>
      <input
        type="range"
        min="-1"
        max="1"
        step="0.05"
        [value]="eye()"
        [disabled]="answered() !== null"
        [attr.aria-valuetext]="eye() === 0 ? 'square above the line' : 'askew'"
        (input)="change({ eye: +$any($event.target).value })"
      />
    </label>
    <dg-degrees-field
      label="It reads"
      [step]="0.5"
      [value]="answered()?.degrees ?? draft().degrees"
      [fixed]="answered() !== null"
      (read)="change({ degrees: $event })"
    />
  `,
  styleUrl: './read-task.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReadTaskView extends TaskView<'read'> {
  protected readonly eye = computed(() => this.answered()?.eye ?? this.draft().eye ?? this.task().eye);
  private turned(degrees: number): number {
    const { stillAt, sense } = this.task();
    return stillAt + sense * degrees;
  }

  protected readonly marks = computed(() =>
    Array.from({ length: 181 }, (_, degrees) => degrees).flatMap((degrees) => {
      const ten = degrees % 10 === 0;
      const long = ten ? 16 : degrees % 5 === 0 ? 12 : 8;
      const on = this.turned(degrees);
      return [
        { from: at(on, OUTER), to: at(on, OUTER - long), ten },
        { from: at(on, INNER), to: at(on, INNER - long * 0.8), ten },
      ];
    }),
  );

  protected readonly numbers = computed(() =>
    Array.from({ length: 19 }, (_, ten) => ten * 10).flatMap((degrees) => {
      const on = this.turned(degrees);
      const [out, into] = this.task().ring === 'outer' ? [degrees, 180 - degrees] : [180 - degrees, degrees];
      return [
        { at: at(on, OUTER - 25), text: out, inner: false },
        { at: at(on, INNER - 22), text: into, inner: true },
      ];
    }),
  );

  private band(degrees: number, length: number, width: number): string {
    const [a, b] = [at(degrees, length), at(degrees + 180, 26)];
    const across = at(degrees + 90, width).map((value) => value - CENTRE) as [number, number];
    const corner = ([x, y]: readonly [number, number], way: number) => `${x + way * across[0]} ${y + way * across[1]}`;
    return `M${corner(a, 1)}L${corner(a, -1)}L${corner(b, -1)}L${corner(b, 1)}Z`;
  }

  protected readonly still = computed(() => this.band(this.turned(0), 196, 13));
  protected readonly arm = computed(() => this.band(this.turned(this.task().truth), 196, 13));
  /** The line on the arm at a share of its height: the higher, the further off it seems. */
  protected line(height: number): readonly [number, number] {
    return at(this.turned(seemsAt(this.task().truth, this.eye() * height)), 196);
  }

  protected readonly lens = computed(() => {
    const [x, y] = at(this.turned(this.task().truth), (OUTER + INNER) / 2 - 6);
    return `${x - 42} ${y - 42} 84 84`;
  });
}
