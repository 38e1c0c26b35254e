import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { drawFigure, protocolName, type Drawing, type Protocol } from '@dial-gauge/core';

/** The body in position, with axis and arms, tape, ring or push: drawn from the protocol's own data. */
@Component({
  selector: 'dg-figure',
  templateUrl: './figure.html',
  styleUrl: './figure.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProtocolFigure {
  readonly protocol = input.required<Protocol>();
  /** Drawn in place of the protocol's own picture: another amount, the other limb. */
  readonly shown = input<Drawing | null>(null);
  /** What is seen, where the name of the motion is not to be told. */
  readonly label = input('');
  /** Limbs, and nothing laid on them. */
  readonly bare = input(false);
  protected readonly drawing = computed(() => {
    const drawing = this.shown() ?? drawFigure(this.protocol());
    return this.bare() ? { ...drawing, turn: null } : drawing;
  });

  protected readonly words = computed(() => {
    if (this.label()) return this.label();
    const { turn, tape, ring, push, seenFrom } = this.drawing();
    const what = turn
      ? 'axis, still arm and moving arm from zero to an end position'
      : tape
        ? 'where the tape runs'
        : ring
          ? 'where the tape goes round'
          : push
            ? 'where the instrument pushes'
            : 'the stance';
    return `${protocolName(this.protocol())}, seen ${seenFrom}: ${what}.`;
  });

  protected readonly box = computed(() => {
    const { x, y, width, height } = this.drawing().frame;
    return `${x} ${y} ${width} ${height}`;
  });

  /** Way moved, as path data. */
  protected readonly arrow = computed(() => {
    const arrow = this.drawing().turn?.arrow;
    if (!arrow) return '';
    const { radius, from, to, large, clockwise } = arrow;
    return `M${from.join(' ')}A${radius} ${radius} 0 ${large ? 1 : 0} ${clockwise ? 1 : 0} ${to.join(' ')}`;
  });

  /** A small arrowhead at the end of a line, pointing along it. */
  protected head([x1, y1]: readonly [number, number], [x2, y2]: readonly [number, number]): string {
    const at = Math.atan2(y2 - y1, x2 - x1);
    const corner = (turn: number) => `${x2 - 12 * Math.cos(at + turn)} ${y2 - 12 * Math.sin(at + turn)}`;
    return `M${corner(0.45)}L${x2} ${y2}L${corner(-0.45)}`;
  }
}
