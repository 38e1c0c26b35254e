import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { stationWords, turnWords, type PlanStep, type Standpoint } from '@dial-gauge/core';
import { TableView } from '../ui/table-view/table-view';
import { Exam } from './exam';

/** A turn of the patient: a step of its own, confirmed before anything is typed, with what is still open where they lie now. */
@Component({
  selector: 'dg-turn',
  imports: [MatButtonModule, TableView],
  template: `
    @if (exam.course.turning(); as turning) {
      <h3>{{ words() }}</h3>
      <dg-table-view [station]="turning.to" [side]="turning.place.side" [standpoint]="standpoint()" />
      @if (exam.record.openEnds(); as ends) {
        @if (ends.length) {
          <div class="ends">
            <p>
              <strong>Before you turn: {{ ends.length }} to look at</strong>
            </p>
            <ul>
              @for (end of ends.slice(0, most); track end.words) {
                <li>
                  <button type="button" (click)="back(end.step)">{{ end.words }}</button>
                </li>
              }
              @if (ends.length > most) {
                <li class="soft">and {{ ends.length - most }} more on the run sheet</li>
              }
            </ul>
          </div>
        } @else {
          <p class="soft">Everything {{ where() }} is measured.</p>
        }
      }
      <p class="do">
        <button matButton="filled" type="button" (click)="exam.course.confirmTurn(); done.emit()">
          Patient is {{ to() }} <kbd>Enter</kbd>
        </button>
        <button matButton="outlined" type="button" (click)="exam.course.stayHere(); done.emit()">Not yet <kbd>Esc</kbd></button>
      </p>
    }
  `,
  styleUrl: './turn.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Turn {
  protected readonly exam = inject(Exam);
  protected readonly most = 4;
  readonly standpoint = input<Standpoint>('foot');
  readonly done = output<void>();

  protected readonly words = computed(() => {
    const turning = this.exam.course.turning();
    return turning ? turnWords(turning.to, this.exam.record.station()) : '';
  });
  protected readonly to = computed(() => stationWords(this.exam.course.turning()?.to ?? this.exam.record.station()));
  protected readonly where = computed(() => stationWords(this.exam.record.station()));

  protected back(step: PlanStep): void {
    this.exam.course.goTo(this.exam.course.placeOf(step));
    this.done.emit();
  }
}
