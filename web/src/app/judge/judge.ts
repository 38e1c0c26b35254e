import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { episodeWords, fullName, personWords, dayWords } from '../caseload/words';
import { Api } from '../data/api';
import { toFailure } from '../data/problem';
import { Frame } from '../shell/frame';
import { Findings } from './findings';
import { Strips } from './strips';

/** What is short, of what, and how sure: the whole exam on one screen. */
@Component({
  selector: 'dg-judge',
  imports: [Findings, Frame, RouterLink, Strips],
  template: `
    @if (view.error()) {
      <dg-frame heading="Judge">
        <div class="page">
          <p class="problem" role="alert">{{ failure() }}</p>
          <a routerLink="/caseload">Open the caseload</a>
        </div>
      </dg-frame>
    } @else if (view.value(); as v) {
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
          <p class="page empty">
            Nothing is measured yet. <a [routerLink]="['/visits', id(), 'measure']">Measure</a> a motion on both sides; what is short of
            normal, of the other side, or active of passive stands here with its reasons.
          </p>
        } @else {
          <div class="split">
            <dg-strips [view]="v" />
            <dg-findings [view]="v" />
          </div>
        }
      </dg-frame>
    } @else {
      <dg-frame heading="Judge"><p class="page soft" role="status">Judging the visit …</p></dg-frame>
    }
  `,
  styles: `
    .page {
      padding: 32px;
    }
    .empty {
      max-width: 52ch;
      font-size: 17px;
    }
    .split {
      display: grid;
      grid-template-columns: minmax(0, 1.42fr) minmax(0, 1fr);
      height: 100%;
    }
    dg-findings {
      border-left: 1px solid var(--line);
    }
    @media (max-width: 1000px) {
      .split {
        grid-template-columns: 1fr;
        height: auto;
      }
      dg-findings {
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
  protected readonly failure = () => toFailure(this.view.error()).message;
}
