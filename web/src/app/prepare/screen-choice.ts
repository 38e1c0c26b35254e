import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal, untracked } from '@angular/core';
import { rxResource, takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatChipListbox, MatChipOption } from '@angular/material/chips';
import { SCREENINGS } from '@dial-gauge/contract';
import type { ScreenItem } from '@dial-gauge/core';
import { Api } from '../data/api';
import { describeFailure } from '../data/problem';
import { VisitCommands } from '../data/visit-commands';
import { NOTHING_CHOSEN, planCommand, planShown } from '../screen/plan';
import { screenMinutes, screensOf } from '../screen/steps';

/** Screens to be run at this visit, beside or instead of measurements, with their minutes. Those that were begun stay. */
@Component({
  selector: 'dg-screen-choice',
  imports: [MatChipListbox, MatChipOption],
  providers: [VisitCommands],
  template: `
    <mat-chip-listbox multiple aria-label="Screens" [value]="chosen()" (change)="choose($event.value)">
      @for (screen of screens(); track screen.id) {
        <mat-chip-option [value]="screen.id" [selected]="chosen().includes(screen.id)"
          >{{ screen.name }} · {{ screen.minutes }} min</mat-chip-option
        >
      }
    </mat-chip-listbox>
    <p class="soft">
      {{ sums() }}
      @if (lastTime().length) {
        <button type="button" class="link" (click)="choose(withLastTime())">As last time: {{ lastNames() }}</button>
      }
    </p>
    @if (problem()) {
      <p class="problem" role="alert">{{ problem() }}</p>
    }
  `,
  styles: `
    p {
      margin: 8px 0 16px;
      font-size: 13px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScreenChoice {
  private readonly api = inject(Api);
  private readonly commands = inject(VisitCommands);
  readonly visitId = input.required<string>();
  /** Items of the screens that are chosen. */
  readonly screened = output<readonly ScreenItem[]>();
  private readonly loaded = rxResource({
    params: () => this.visitId(),
    stream: ({ params }) => this.api.call(SCREENINGS.screens, { id: params }),
  });
  private readonly own = computed(() => screensOf(this.loaded.hasValue() ? this.loaded.value().settings : null));
  protected readonly screens = computed(() =>
    this.own().map((screen) => ({ id: screen.id, name: screen.name, minutes: screenMinutes(screen) })),
  );
  protected readonly problem = signal('');
  private readonly plan = computed(() =>
    planShown(this.loaded.hasValue() ? this.loaded.value().plan : NOTHING_CHOSEN, this.commands.all()),
  );
  /** What was begun cannot be left out any more. */
  private readonly begun = computed(() =>
    this.loaded.hasValue() ? [...new Set(this.loaded.value().tries.map(({ screen }) => screen))] : [],
  );
  protected readonly chosen = computed(() => [...new Set([...this.plan().screens, ...this.begun()])]);
  /** Screens that were run the last time and are not chosen yet. */
  protected readonly lastTime = computed(() => {
    const before = this.loaded.hasValue() ? (this.loaded.value().before?.tries ?? []) : [];
    const known = new Set(this.own().map(({ id }) => id));
    return [...new Set(before.map(({ screen }) => screen))].filter((id) => known.has(id) && !this.chosen().includes(id));
  });
  protected readonly lastNames = computed(() =>
    this.lastTime()
      .map((id) =>
        this.own()
          .find((screen) => screen.id === id)!
          .name.toLowerCase(),
      )
      .join(', '),
  );
  protected readonly withLastTime = computed(() => [...this.chosen(), ...this.lastTime()]);
  protected readonly sums = computed(() => {
    const chosen = this.screens().filter(({ id }) => this.chosen().includes(id));
    const minutes = chosen.reduce((sum, screen) => sum + screen.minutes, 0);
    return chosen.length === 0
      ? 'No screen is run at this visit.'
      : `${chosen.length === 1 ? 'One screen' : `${chosen.length} screens`}, about ${minutes} min beside the measurements.`;
  });

  constructor() {
    effect(() => {
      const id = this.visitId();
      untracked(() => void this.commands.open(id));
    });
    this.commands.failed.pipe(takeUntilDestroyed()).subscribe(({ command, failure }) => {
      if (failure && command.route === 'planScreens') this.problem.set(`The screens were not saved. ${describeFailure(failure)}`);
    });
    effect(() => {
      const whole = this.chosen();
      const items = this.own().flatMap(({ id, items }) => {
        if (whole.includes(id)) return items;
        const asked = this.plan().asked.filter((way) => way.screen === id);
        return items.filter((item) => asked.some((way) => way.item === item.id));
      });
      untracked(() => this.screened.emit(items));
    });
  }

  protected choose(ids: readonly string[]): void {
    const before = this.chosen();
    const [choose, leave] = [ids.filter((id) => !before.includes(id)), before.filter((id) => !ids.includes(id))];
    if (choose.length + leave.length === 0) return;
    const body = { ...(choose.length ? { choose: [...choose] } : {}), ...(leave.length ? { leave: [...leave] } : {}) };
    this.problem.set('');
    this.commands.send(planCommand(this.visitId(), body));
  }
}
