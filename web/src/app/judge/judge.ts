import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { episodeWords, fullName, personWords, dayWords } from '../caseload/words';
import { Api } from '../data/api';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { Aside } from './aside';
import { Findings } from './findings';
import { Strips } from './strips';

/** What is short, of what, and how sure: the whole exam on one screen. */
@Component({
  selector: 'dg-judge',
  imports: [Aside, Findings, Frame, Pending, RouterLink, Strips],
  template: `
    @if (view.hasValue()) {
      @let v = view.value();
      <dg-frame
        [heading]="words.fullName(v.patient)"
        [headingLink]="'/patients/' + v.patient.id"
        [about]="words.personWords(v.patient) + ' · ' + words.episodeWords(v.episode) + ' · visit ' + v.visit.number"
        [visitId]="id()"
      >
        <ng-container status>
          <strong>{{ v.visit.readings }} readings</strong>
          <span class="soft">{{ words.dayWords(v.visit.assessedOn) }}</span>
        </ng-container>
        @if (v.judgement.measurements.length === 0) {
          <p class="page">
            Nothing is measured yet. <a [routerLink]="['/visits', id(), 'measure']">Measure</a> a motion on both sides; what is short of
            normal, of the other side, or active of passive stands here with its reasons.
          </p>
          <dg-aside [measurements]="v.aside" />
        } @else {
          <div class="split">
            <dg-strips [view]="v" />
            <div class="right">
              <dg-findings [view]="v" />
              <dg-aside [measurements]="v.aside" />
            </div>
          </div>
        }
      </dg-frame>
    } @else {
      <dg-pending heading="Judge" doing="Judging the visit …" [error]="view.error()" />
    }
  `,
  styles: `
    .split {
      display: grid;
      grid-template-columns: minmax(0, 1.42fr) minmax(0, 1fr);
      height: 100%;
    }
    .right {
      min-height: 0;
      overflow-y: auto;
      border-left: 1px solid var(--line);
    }
    @media (max-width: 1000px) {
      .split {
        grid-template-columns: 1fr;
        height: auto;
      }
      .right {
        overflow: visible;
        border-left: 0;
        border-top: 1px solid var(--line);
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JudgePage {
  private readonly api = inject(Api);
  readonly id = input.required<string>();
  protected readonly view = rxResource({ params: () => this.id(), stream: ({ params }) => this.api.call('judgement', { id: params }) });
  protected readonly words = { dayWords, episodeWords, fullName, personWords };
}
