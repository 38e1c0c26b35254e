import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { CLIPS, type PAPER_SIZES } from '@dial-gauge/contract';
import { fullName } from '../caseload/words';
import { Api } from '../data/api';
import { describeFailure, toFailure } from '../data/problem';
import { VisitStore } from '../data/visit-store';
import { OwnLink } from '../report/own-link';
import { Sheet } from '../report/sheet';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { handOverFile } from '../ui/hand-over';

type PaperSize = (typeof PAPER_SIZES)[number];

/** The page for whoever sent a clip, as it prints; as PDF, and by the link to their own page. */
@Component({
  selector: 'dg-clip-page',
  imports: [Frame, MatButtonModule, OwnLink, Pending, RouterLink, Sheet],
  template: `
    @if (visit.hasValue() && loaded.hasValue()) {
      <dg-frame [heading]="name()" about="Page for the sender of a clip" [visitId]="id()" within="measure" [headOnPaper]="false">
        <div class="split">
          <section aria-label="How it goes out">
            <p><a [routerLink]="['/visits', id(), 'picture']" [queryParams]="{ look: 'over' }">Back to the clip</a></p>
            <div class="row" role="group" aria-label="Paper">
              @for (one of papers; track one.id) {
                <button type="button" class="chip" [attr.aria-pressed]="paper() === one.id" (click)="paper.set(one.id)">
                  {{ one.name }}
                </button>
              }
            </div>
            <button matButton="filled" type="button" [disabled]="busy()" (click)="write()">Write PDF</button>
            <p class="problem" role="alert" [hidden]="!problem()">{{ problem() }}</p>
            @if (loaded.value().isShared) {
              <p>It stands on their own page as well.</p>
              <dg-own-link [episodeId]="visit.value().episode.id" />
            } @else {
              <p class="soft">It is not on their own page: tick “show it on their own page as well” beside the marks, and keep them.</p>
            }
          </section>
          <div class="bench" tabindex="0" role="region" aria-label="The page as it prints">
            <dg-sheet [report]="loaded.value().report" [paper]="paper()" [pages]="loaded.value().pages" [breaks]="loaded.value().breaks" />
          </div>
        </div>
      </dg-frame>
    } @else {
      <dg-pending heading="Page for the sender" doing="Writing the page …" [error]="loaded.error() ?? visit.error()" />
    }
  `,
  styles: `
    @use '../ui/chip';

    .split {
      display: grid;
      grid-template-columns: 320px minmax(0, 1fr);
      height: 100%;
      min-height: 0;
    }
    section {
      overflow-y: auto;
      padding: 14px 18px;
    }
    .row {
      display: flex;
      gap: 8px;
      margin: 12px 0;
    }
    .chip {
      @include chip.chip;
    }
    section > p {
      margin: 10px 0;
    }
    .bench {
      overflow: auto;
      padding: 20px;
      background: var(--bench);
    }
    @media (max-width: 1000px) {
      .split {
        display: block;
        overflow-y: auto;
      }
      .bench {
        overflow-x: auto;
        padding: 8px;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ClipPagePage {
  private readonly api = inject(Api);
  private readonly visits = inject(VisitStore);
  readonly id = input.required<string>();
  readonly clip = input.required<string>();
  protected readonly papers = [
    { id: 'a4', name: 'A4' },
    { id: 'letter', name: 'Letter' },
  ] as const;
  protected readonly paper = signal<PaperSize>('a4');
  protected readonly busy = signal(false);
  protected readonly problem = signal('');
  protected readonly visit = rxResource({ params: () => this.id(), stream: ({ params }) => this.visits.visit(params) });
  private readonly query = computed(() => ({ paper: this.paper(), locale: navigator.language }));
  protected readonly loaded = rxResource({
    params: () => ({ id: this.clip(), query: this.query() }),
    stream: ({ params }) => this.api.call(CLIPS.clipPage, params),
  });
  protected readonly name = computed(() => (this.visit.hasValue() ? fullName(this.visit.value().patient) : ''));

  protected write(): void {
    this.busy.set(true);
    this.problem.set('');
    this.api.call(CLIPS.clipFile, { id: this.clip(), query: this.query() }).subscribe({
      next: (file) => {
        this.busy.set(false);
        handOverFile(file);
      },
      error: (error: unknown) => {
        this.busy.set(false);
        this.problem.set(describeFailure(toFailure(error)));
      },
    });
  }
}
