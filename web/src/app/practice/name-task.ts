import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { drawFigure, drawnTo, motion, turnedOver, type MotionId } from '@dial-gauge/core';
import { ProtocolFigure } from '../ui/figure/figure';
import { TaskView } from './task-view';

/** A limb that moves, told by what its far end does; the name is asked. */
@Component({
  selector: 'dg-name-task',
  imports: [ProtocolFigure],
  template: `
    <p class="told">{{ task().protocol.startingPosition }} {{ task().seen }}</p>
    <dg-figure [protocol]="task().protocol" [shown]="drawing()" [label]="'The limb from zero to an end position. ' + task().seen" />
    <div class="many" role="group" aria-label="Which motion is it?">
      @for (option of options(); track option.id; let index = $index) {
        <button
          type="button"
          class="chip"
          [attr.aria-pressed]="answered()?.motion === option.id"
          [disabled]="answered() !== null"
          (click)="give.emit({ motion: option.id })"
        >
          <kbd>{{ index + 1 }}</kbd> {{ option.name }}
        </button>
      }
    </div>
  `,
  host: { '(document:keydown)': 'press($event)' },
  styleUrl: './choices.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NameTaskView extends TaskView<'name'> {
  protected readonly drawing = computed(() => {
    const { protocol, mirrored } = this.task();
    const drawing = drawFigure(protocol, drawnTo(protocol));
    return mirrored ? turnedOver(drawing) : drawing;
  });
  protected readonly options = computed(() => this.task().options.map((id: MotionId) => ({ id, name: motion(id).name })));

  protected press({ key, ctrlKey, metaKey, altKey }: KeyboardEvent): void {
    const option = ctrlKey || metaKey || altKey ? undefined : this.options()[Number(key) - 1];
    if (option && this.answered() === null) this.give.emit({ motion: option.id });
  }
}
