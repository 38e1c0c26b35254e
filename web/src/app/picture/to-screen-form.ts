import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router } from '@angular/router';
import { formatFixed, type InvolvedSide, type Side } from '@dial-gauge/core';
import { Drafts } from '../data/drafts';
import { sidesFor, stepKey } from '../screen/steps';
import { Marking } from './marking';
import { entryFrom, screenTargets } from './to-screen';

/** A value of a picture to an item of a screen: it stands there, entered, until it is kept. */
@Component({
  selector: 'dg-to-screen',
  imports: [MatButtonModule],
  template: `
    <h2>To a screen</h2>
    <div class="row">
      <select aria-label="As which item of a screen" (change)="chosen.set($any($event.target).value)">
        <option value="">choose the item</option>
        @for (one of targets(); track one.key) {
          <option [value]="one.key" [selected]="one.key === chosen()">{{ one.words }}</option>
        }
      </select>
      @if (target()?.takes !== 'lines') {
        <select aria-label="Which value goes to it" (change)="value.set($any($event.target).value)">
          <option value="">choose the value</option>
          @for (one of values(); track one.id) {
            <option [value]="one.id" [selected]="one.id === value()">{{ one.words }}</option>
          }
        </select>
      }
      @if (sides().length > 1) {
        <select aria-label="On which side" (change)="side.set($any($event.target).value)">
          <option value="">choose the side</option>
          @for (one of sides(); track one) {
            <option [value]="one" [selected]="one === side()">{{ one }}</option>
          }
        </select>
      }
      <button matButton="outlined" type="button" (click)="handOver()">On to the screen</button>
    </div>
    <p class="problem" role="alert" [hidden]="!problem()">{{ problem() }}</p>
  `,
  styles: `
    h2 {
      margin: 16px 0 4px;
      font-size: 15px;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 6px 10px;
      align-items: center;
    }
    select {
      max-width: 100%;
      min-height: 36px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ToScreen {
  private readonly marking = inject(Marking);
  private readonly drafts = inject(Drafts);
  private readonly router = inject(Router);
  readonly visitId = input.required<string>();
  readonly involved = input.required<InvolvedSide | null>();
  protected readonly chosen = signal('');
  protected readonly value = signal('');
  protected readonly side = signal<Side | ''>('');
  protected readonly problem = signal('');

  protected readonly targets = computed(() => screenTargets(this.marking.set()));
  protected readonly target = computed(() => this.targets().find(({ key }) => key === this.chosen()));
  protected readonly values = computed(() => [
    ...this.marking.values().map((of) => ({ id: of.angle.id, words: `${of.angle.label}, ${formatFixed(of.degrees, 0)}°`, of })),
    ...this.marking.lengths().map((of) => ({ id: of.length.id, words: `${of.length.label}, ${formatFixed(of.cm, 1)} cm`, of })),
  ]);
  protected readonly sides = computed((): readonly Side[] => {
    const item = this.target()?.item;
    return item ? sidesFor(item, this.involved()) : [];
  });

  protected handOver(): void {
    const target = this.target();
    if (!target) return this.problem.set('Choose the item it goes to.');
    const [only, ...more] = this.sides();
    const side = more.length === 0 ? only! : this.side();
    if (side === '') return this.problem.set('Choose the side it was seen on.');
    const chosen = this.values().find(({ id }) => id === this.value())?.of;
    const at = this.marking.at() > 0 ? ` at ${formatFixed(this.marking.at(), 1)} s` : '';
    const entry = entryFrom(target, this.marking.values(), chosen, `${this.marking.file()}${at}`.slice(0, 120));
    if (typeof entry === 'string') return this.problem.set(entry);
    const { screen, item, view } = target;
    const key = stepKey(screen.id, item.id, view, []);
    this.drafts.keep(`screen.${this.visitId()}.${key}.${side}`, entry);
    void this.router.navigate(['/visits', this.visitId(), 'screen'], {
      queryParams: { screen: screen.id, item: item.id, ...(view ? { view } : {}), side },
    });
  }
}
