import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { SCREENINGS } from '@dial-gauge/contract';
import { amountWords, cautionsFor, findScreen, NOT_A_DIAGNOSIS, STOP_DURING, touchOfItems, type ScreenItem } from '@dial-gauge/core';
import { Api } from '../data/api';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { screensOf } from '../screen/steps';
import { SceneFigure } from '../ui/scene/scene';

/** A sheet to print: the items of a screen that may be done alone, with their figures and what stands against doing them. */
@Component({
  selector: 'dg-at-home',
  imports: [Frame, MatButtonModule, Pending, RouterLink, SceneFigure],
  template: `
    @if (screen(); as s) {
      <dg-frame [heading]="s.name" about="sheet for at home">
        <div class="sheet">
          <p class="bar">
            <button matButton="filled" type="button" (click)="print()">Print</button>
            <a routerLink="/screens">All screens</a>
          </p>
          <h1>{{ s.name }}, at home</h1>
          <p class="soft">Name: ………………………………………… &nbsp; Day: …………………</p>
          @if (items().length) {
            <section class="first">
              <h2>Read first</h2>
              <p>Do not begin, and ask, if any of these is so:</p>
              <ul>
                @for (question of cautions(); track question.id) {
                  <li>{{ question.ask }}</li>
                }
              </ul>
              <p>{{ stop }}</p>
            </section>
            <ol>
              @for (item of items(); track item.id) {
                <li>
                  <dg-scene class="figure" [scene]="item.figure" [label]="item.name" />
                  <div>
                    <h3>{{ item.name }}</h3>
                    <p>{{ item.setUp }}</p>
                    <p>{{ item.say }}</p>
                    <p class="soft">Good when {{ item.meets }}.{{ item.caution ? ' ' + item.caution : '' }}</p>
                    <p class="answers">{{ answerLine(item) }}</p>
                  </div>
                </li>
              }
            </ol>
            <p class="soft">{{ notDiagnosis }} Left out here: {{ leftOut() }}.</p>
          } @else {
            <p>Nothing of this screen may be done alone at home: it needs somebody beside it.</p>
          }
        </div>
      </dg-frame>
    } @else {
      <dg-pending
        heading="Sheet for at home"
        doing="Reading the screens …"
        [error]="loaded.error() ?? (loaded.hasValue() ? missing : null)"
      />
    }
  `,
  styles: `
    .sheet {
      max-width: 780px;
      padding: 20px 24px 40px;
    }
    .bar {
      display: flex;
      gap: 16px;
      align-items: center;
    }
    h1 {
      margin: 12px 0 4px;
    }
    .first {
      margin: 14px 0;
      padding: 10px 14px;
      border-left: 4px solid var(--plum);
      background: var(--raised);
    }
    .first ul {
      padding-left: 18px;
      list-style: disc;
    }
    h2 {
      font-size: 17px;
    }
    ol > li {
      display: grid;
      grid-template-columns: 170px minmax(0, 1fr);
      gap: 18px;
      padding: 14px 0;
      border-bottom: 1px solid var(--line);
      break-inside: avoid;
    }
    .figure {
      height: 120px;
    }
    .answers {
      margin-top: 6px;
      font-weight: 700;
    }
    @media (max-width: 600px) {
      ol > li {
        grid-template-columns: minmax(0, 1fr);
      }
    }
    @media print {
      .bar {
        display: none;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AtHomePage {
  private readonly api = inject(Api);
  readonly id = input.required<string>();
  protected readonly loaded = rxResource({ stream: () => this.api.call(SCREENINGS.clinicScreens) });
  protected readonly screen = computed(() =>
    this.loaded.hasValue() ? (findScreen(this.id(), screensOf(this.loaded.value().settings)) ?? null) : null,
  );
  protected readonly items = computed(() => this.screen()?.items.filter(({ atHome }) => atHome) ?? []);
  protected readonly leftOut = computed(() => {
    const out = this.screen()?.items.filter(({ atHome }) => !atHome) ?? [];
    return out.length === 0 ? 'nothing' : out.map(({ name }) => name.toLowerCase()).join(', ');
  });
  protected readonly cautions = computed(() => cautionsFor(touchOfItems(this.items())));
  protected readonly stop = STOP_DURING;
  protected readonly notDiagnosis = NOT_A_DIAGNOSIS;
  protected readonly missing = new Error('This screen is not there. It may have been taken out of use.');

  protected answerLine({ answered, sides }: ScreenItem): string {
    const box = answered.by === 'amount' ? `…… ${amountWords(0, answered.unit).replace('0', '').trim()}` : '☐ yes  ☐ no';
    const each = sides === 'each' ? `left ${box}    right ${box}` : box;
    return `${each}    pain 0–10: ……`;
  }

  protected print(): void {
    window.print();
  }
}
