import { CdkDrag, CdkDragHandle, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, ChangeDetectorRef, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import {
  measurementKey,
  motion,
  protocolOfId,
  modedName,
  suffixOf,
  variantWords,
  type LeftOut,
  type RunRow,
  formatFixed,
} from '@dial-gauge/core';
import { Preparing, type Line } from './preparing';

type Row = Line & { readonly kind: 'row' };

/** The run sheet as it will be measured: dragged or moved by keys, locked, marked as provoking; what was left out, and why. */
@Component({
  selector: 'dg-plan-list',
  imports: [CdkDrag, CdkDragHandle, CdkDropList, MatButtonModule, MatIconModule],
  templateUrl: './plan-list.html',
  styleUrl: './plan-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlanList {
  protected readonly preparing = inject(Preparing);
  private readonly changes = inject(ChangeDetectorRef);
  protected readonly announcement = signal('');
  protected readonly leftOut = computed(() => this.preparing.plan().leftOut);

  protected name(row: RunRow): string {
    const about = motion(row.motion);
    return [about.name, row.digit ? `finger ${row.digit}` : '', variantWords(row, this.preparing.rows())].filter(Boolean).join(', ');
  }

  protected how({ row, steps }: Row): string {
    const about = motion(row.motion);
    const side = (name: string) => (about.sides === 'towards' ? `to the ${name}` : name);
    const sides = row.sides[0] === 'midline' ? '' : row.sides.map(side).join(', ');
    const stops = steps.flatMap((step) =>
      step.stopAt === undefined ? [] : [`${step.side} stops at ${step.stopAt}${suffixOf(about.unit)}`],
    );
    return [about.unit === 'deg' ? row.mode : '', sides, ...stops].filter(Boolean).join(' · ');
  }

  protected minutes({ steps }: Row): string {
    return formatFixed(steps.reduce((sum, step) => sum + step.seconds, 0) / 60, 1);
  }

  protected isLocked = ({ steps }: Row): boolean => steps.some((step) => step.locked);
  protected isProvoking = ({ steps }: Row): boolean => steps.some((step) => step.provoking);

  protected dropped(event: CdkDragDrop<unknown>): void {
    this.preparing.move(event.previousIndex, event.currentIndex);
  }

  /** The handle under the arrow keys: moves the line, and stays in the hand. */
  protected moveByKey(event: KeyboardEvent, { index, row }: Row): void {
    const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
    if (by === 0) return;
    event.preventDefault();
    this.preparing.move(index, index + by);
    const isSame = (line: Line): line is Row =>
      line.kind === 'row' && line.row.protocol === row.protocol && line.row.mode === row.mode && line.row.digit === row.digit;
    const now = this.preparing.lines().find(isSame);
    if (!now) return;
    const { turns } = this.preparing.plan();
    this.announcement.set(`${this.name(row)}, ${row.mode}: line ${now.index + 1} of ${this.preparing.rows().length}, ${turns} turns`);
    const list = (event.target as HTMLElement).closest('ol');
    // At once: the next press may already be on its way, and a moved element has lost the focus.
    this.changes.detectChanges();
    list?.querySelector<HTMLElement>(`[data-line="${now.first}"]`)?.focus();
  }

  protected toggleLock(line: Row): void {
    this.preparing.wish(line.steps, { locked: !this.isLocked(line) });
  }

  protected toggleProvoking(line: Row): void {
    this.preparing.provoke(line.steps, !this.isProvoking(line));
  }

  protected outName({ motion: id, side, digit, mode }: LeftOut): string {
    return modedName(id, side, mode, digit);
  }

  protected keep({ motion: id, protocol, digit, side, mode }: LeftOut): void {
    this.preparing.keep(measurementKey({ motion: id, position: protocolOfId(protocol)!.position, protocol, digit, side, mode }));
  }
}
