import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { markedWords, planView, stationWords } from '@dial-gauge/core';
import { TableView } from '../ui/table-view/table-view';
import { TaskView } from './task-view';

/** The patient after a turn, one side marked. */
@Component({
  selector: 'dg-side-task',
  imports: [TableView],
  template: `
    <p class="told">{{ told() }}</p>
    <dg-table-view [station]="task().station" [standpoint]="task().standpoint" [side]="task().side" [named]="answered() !== null" />
    <p class="told">Marked: the side that is {{ marked() }}. Which of THEIR sides is it?</p>
    <div class="two" role="group" aria-label="Their side">
      @for (side of sides; track side) {
        <button
          type="button"
          class="chip"
          [attr.aria-pressed]="answered()?.side === side"
          [disabled]="answered() !== null"
          (click)="give.emit({ side })"
        >
          <kbd>{{ side.charAt(0) }}</kbd> their {{ side }}
        </button>
      }
    </div>
  `,
  host: { '(document:keydown)': 'press($event)' },
  styleUrl: './choices.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SideTaskView extends TaskView<'side'> {
  protected readonly sides = ['left', 'right'] as const;
  protected readonly marked = computed(() => markedWords(this.task().marked));
  protected readonly told = computed(() => {
    const { before, station, standpoint } = this.task();
    return `They were ${stationWords(before)}. Now they are ${stationWords(station)}, ${planView(station, standpoint).from}.`;
  });

  protected press({ key, ctrlKey, metaKey, altKey }: KeyboardEvent): void {
    const side = ctrlKey || metaKey || altKey ? undefined : this.sides.find((one) => one.charAt(0) === key);
    if (side && this.answered() === null) this.give.emit({ side });
  }
}
