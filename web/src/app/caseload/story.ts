import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { operationOf, PATIENTS, STORIES, type StoryView } from '@dial-gauge/contract';
import {
  dayWords,
  headline,
  inWeeks,
  modedName,
  projectionWords,
  QUEUE_KINDS,
  reasonWords,
  saidOf,
  type ProgressSeries,
  type StandsSince,
} from '@dial-gauge/core';
import { Api } from '../data/api';
import { IfMay } from '../ui/may.directive';
import { QueueMark } from '../ui/queue-mark';
import { Spark } from '../ui/spark';
import { operationWords } from './words';

/** An episode of care at a glance: what hurts, what is short, since when, what changed, what is being done, when it is looked at again. */
@Component({
  selector: 'dg-story',
  imports: [IfMay, MatButtonModule, QueueMark, RouterLink, Spark],
  template: `
    @if (story.hasValue()) {
      @let s = story.value();
      @if (s.standing?.reasons?.length) {
        <ul class="reasons" aria-label="What it needs">
          @for (reason of s.standing!.reasons; track reason.kind) {
            <li>
              <dg-queue-mark [group]="kinds[reason.kind].group" />
              <span>{{ reasonWords(reason) }}</span>
              @if (reason.kind === 'worse' || reason.kind === 'wrote') {
                <button *dgMay="'measure'" type="button" class="link" (click)="seen()">Seen</button>
              }
            </li>
          }
        </ul>
      }
      <dl>
        <div>
          <dt>About</dt>
          <dd>
            @if (operation(); as words) {
              <p>{{ words }}</p>
            }
            @if (s.episode.wanted) {
              <p>wants back: {{ s.episode.wanted }}</p>
            }
            @if (s.episode.precautions.length; as n) {
              <p>{{ n }} {{ n === 1 ? 'precaution' : 'precautions' }}, under Prepare</p>
            }
            @if (!operation() && !s.episode.wanted && !s.episode.precautions.length) {
              <p class="soft">nothing more is noted</p>
            }
          </dd>
        </div>
        <div>
          <dt>Findings</dt>
          <dd>
            @if (s.visit; as visit) {
              @for (told of findings(); track $index) {
                <p>
                  <strong>{{ told.said.subject }}</strong> {{ told.said.brief }}
                  @if (told.since) {
                    <span class="soft">{{ told.since }}</span>
                  }
                </p>
              } @empty {
                <p>
                  Of what was judged on {{ dayWords(visit.assessedOn) }} nothing is short.
                  @if (s.notJudged) {
                    {{ s.notJudged }} could not be judged.
                  }
                </p>
              }
              <p class="soft">
                <a [routerLink]="['/visits', visit.id, 'judge']">{{
                  s.findingsInAll ? s.findingsInAll + ' findings on ' + dayWords(visit.assessedOn) : 'what was judged'
                }}</a>
                @if (s.notJudged) {
                  · {{ s.notJudged }} not judged
                }
              </p>
            } @else {
              <p class="soft">nothing is measured yet</p>
            }
          </dd>
        </div>
        <div>
          <dt>Changed</dt>
          <dd>
            @for (one of s.series; track one.key) {
              <div class="change">
                <dg-spark [line]="lineOf(one)" />
                <p>
                  <strong>{{ nameOf(one) }}</strong> {{ headlineOf(one) }}. {{ projectionOf(one) }}
                </p>
              </div>
            } @empty {
              <p class="soft">nothing is measured twice yet</p>
            }
            @if (s.visit && s.seriesInAll > s.series.length) {
              <p class="soft">
                <a [routerLink]="['/visits', s.visit.id, 'progress']">all {{ s.seriesInAll }} motions measured again</a>
              </p>
            }
          </dd>
        </div>
        <div>
          <dt>Programme</dt>
          <dd>
            @if (s.program; as program) {
              <p>{{ program.drills.join(', ') }}</p>
              <p class="soft">
                given {{ dayWords(program.on) }} by {{ program.by
                }}{{ s.loggedDays === null ? '' : ' · ' + s.loggedDays + ' of 14 days logged' }}
              </p>
            } @else {
              <p class="soft">none is given</p>
            }
          </dd>
        </div>
        <div>
          <dt>Next</dt>
          <dd>
            <p>
              {{
                s.episode.dueOn
                  ? 'recheck ' + dayWords(s.episode.dueOn)
                  : s.program
                    ? 'recheck ' + dayWords(s.program.recheckOn)
                    : 'nothing agreed'
              }}
            </p>
          </dd>
        </div>
      </dl>
    } @else if (story.error()) {
      <p class="problem" role="alert">The story of this episode cannot be told now. The visits below are all there.</p>
      <button matButton="outlined" type="button" (click)="story.reload()">Try again</button>
    } @else {
      <p class="soft" role="status">Telling the story …</p>
    }
  `,
  styleUrl: './story.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Story {
  private readonly api = inject(Api);
  readonly episodeId = input.required<string>();
  readonly changed = output();
  protected readonly kinds = QUEUE_KINDS;
  protected readonly dayWords = dayWords;
  protected readonly reasonWords = reasonWords;
  protected readonly story = rxResource({
    params: () => this.episodeId(),
    stream: ({ params }) => this.api.call(STORIES.story, { id: params }),
  });
  protected readonly findings = computed(() => (this.story.hasValue() ? this.story.value().findings.map(told) : []));
  protected readonly operation = computed(() => (this.story.hasValue() ? operationWords(this.story.value().episode) : ''));
  private readonly when = computed(() => {
    const operation = this.story.hasValue() ? operationOf(this.story.value().episode) : undefined;
    return operation ? inWeeks(operation.on) : { unit: 'days' as const, words: dayWords };
  });

  protected nameOf({ motion, side, mode, digit }: ProgressSeries): string {
    return modedName(motion, side, mode, digit);
  }

  protected headlineOf(series: ProgressSeries): string {
    return headline(series, this.when());
  }

  protected projectionOf(series: ProgressSeries): string {
    return projectionWords(series, this.when());
  }

  protected lineOf(series: ProgressSeries) {
    const points = series.points.map(({ on, value }) => ({ on, value }));
    return { name: this.nameOf(series), motion: series.motion, points, goal: series.goal?.value ?? null };
  }

  protected seen(): void {
    this.api.call(PATIENTS.messagesSeen, { id: this.episodeId(), body: {} }).subscribe({
      // It is told anew in a moment.
      next: () => setTimeout(() => this.story.reload(), TOLD_ANEW_MS),
      error: () => this.story.reload(),
    });
  }
}

const TOLD_ANEW_MS = 2_000;

/** "since 16 Oct 2026", and where it was so at the first reading already, that. */
const sinceWords = (since: StandsSince | null): string =>
  since ? `since ${dayWords(since.on)}${since.fromFirst ? ' or before' : ''}` : '';

const told = ({ finding, since }: StoryView['findings'][number]) => ({ said: saidOf(finding), since: sinceWords(since) });
