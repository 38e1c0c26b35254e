import { ChangeDetectionStrategy, Component, computed, effect, inject, input, linkedSignal, signal, untracked } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import {
  JUDGEMENT,
  SCREENINGS,
  assessmentOfVisit,
  operationOf,
  screensDoneOf,
  type JudgementView,
  type ScreensView,
  type VisitRecord,
  limitsOf,
} from '@dial-gauge/contract';
import {
  assess,
  dayWords,
  explainMoves,
  measureNext,
  type Joint,
  type Move,
  NORM_SETS,
  type NormSet,
  rank,
  type Ranking,
  type Side,
} from '@dial-gauge/core';
import { forkJoin } from 'rxjs';
import { episodeWords, fullName, personWords } from '../caseload/words';
import { Api } from '../data/api';
import { VisitStore } from '../data/visit-store';
import { ClinicNorms } from '../data/clinic-norms';
import { describeFailure, toFailure } from '../data/problem';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { OddRecords } from '../ui/odd-records';
import { BodyMap, type JointMark } from '../ui/body-map/body-map';
import { ScreenResults } from '../screen/results';
import { screensOf } from '../screen/steps';
import { Aside } from './aside';
import { itemMarks, withItems } from '../ui/body-map/item-marks';
import { bodyMarks } from './body-marks';
import { EvidenceOpener } from './evidence-opener';
import { Findings } from './findings';
import { Strips } from './strips';
import { Summary } from './summary';
import { SummaryText } from './summary-text';

/** What is short, of what, and how sure: the whole exam on one screen, summed up and signed. */
@Component({
  selector: 'dg-judge',
  imports: [Aside, BodyMap, Findings, Frame, MatButtonModule, OddRecords, Pending, RouterLink, ScreenResults, Strips, Summary],
  providers: [EvidenceOpener, SummaryText],
  templateUrl: './judge.html',
  styleUrl: './judge.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JudgePage {
  private readonly api = inject(Api);
  private readonly visits = inject(VisitStore);
  private readonly judging = inject(ClinicNorms);
  private readonly opener = inject(EvidenceOpener);
  readonly id = input.required<string>();
  protected readonly loaded = rxResource({
    params: () => this.id(),
    stream: ({ params }) => this.api.call(JUDGEMENT.judgement, { id: params }),
  });
  protected readonly words = { dayWords, episodeWords, fullName, personWords };
  protected readonly problem = signal('');
  /** What the server says, or what it said after signing. */
  private readonly served = linkedSignal<JudgementView | undefined, JudgementView | undefined>({
    source: () => (this.loaded.hasValue() ? this.loaded.value() : undefined),
    computation: (view) => view,
  });
  /** The joint of the body map that was pressed. */
  protected readonly at = linkedSignal<string, { readonly joint: Joint; readonly side: Side } | null>({
    source: this.id,
    computation: () => null,
  });
  /** Another order than the clinic's, tried here. */
  private readonly tried = linkedSignal<string, Ranking | null>({ source: this.id, computation: () => null });
  /** Another norm set, held up for comparison. */
  protected readonly compared = linkedSignal<string, string | null>({ source: this.id, computation: () => null });
  private readonly record = signal<{ readonly record: VisitRecord; readonly screens: ScreensView } | null>(null);

  /** Judged by another set, from the same readings. */
  private readonly byOtherSet = computed((): JudgementView | undefined => {
    const [view, record, set, clinic] = [this.served(), this.record(), this.compared(), this.judging.current()];
    if (!view || !set || !record || !clinic) return view;
    const context = {
      // The set that is tried is asked first, the clinic's order after it.
      normSets: [set, ...clinic.normSets.filter((id) => id !== set)],
      ownSets: clinic.ownSets,
      ownErrors: clinic.ownErrors,
      checks: clinic.valueChecks,
      thresholds: clinic.thresholds,
      ranking: clinic.ranking,
    };
    const { tries, visit, settings } = record.screens;
    const screened = { screens: screensDoneOf(tries, visit.assessedOn) };
    const judgement = assess({ ...assessmentOfVisit(record.record), ...screened }, { ...context, screens: screensOf(settings) });
    return { ...view, judgement: { ...judgement, screens: view.judgement.screens } };
  });

  /** What is shown: by the norm set and the order chosen here. */
  protected readonly view = computed((): JudgementView | undefined => {
    const view = this.byOtherSet();
    const ranking = this.tried();
    if (!view || !ranking || view.visit.signed) return view;
    const { complaintAt } = view.episode;
    const findings = rank(view.judgement.findings, {
      ranking,
      complaintAt: complaintAt ?? undefined,
      procedure: operationOf(view.episode),
    });
    return { ...view, judgement: { ...view.judgement, ranking, findings } };
  });
  protected readonly moves = computed((): readonly Move[] => {
    const [before, after] = [this.byOtherSet(), this.view()];
    return before && after && this.tried() ? explainMoves(before.judgement.findings, after.judgement.findings) : [];
  });
  protected readonly clinicRanking = computed(() => this.served()?.judgement.ranking);
  protected readonly marks = computed((): readonly JointMark[] => {
    const view = this.view();
    return view ? withItems(bodyMarks(view.judgement), itemMarks(view.judgement.screens ?? [])) : [];
  });
  /** What would put a number to what a screen shows short. */
  protected readonly next = computed(() => {
    const view = this.view();
    if (!view || view.visit.signed) return [];
    const { judgement } = view;
    const measured = judgement.measurements.map(({ measurement }) => measurement);
    return measureNext(judgement.screens ?? [], measured, { limits: limitsOf(view) });
  });
  /** Sets with a value for something that was measured, and the one that is asked first. */
  protected readonly sets = computed((): readonly Pick<NormSet, 'id' | 'short'>[] => {
    const first = this.served()?.judgement.normSet.id;
    const named = new Set(this.served()?.judgement.measurements.flatMap((m) => m.norms.map((norm) => norm.set)));
    return [...NORM_SETS, ...(this.judging.current()?.ownSets ?? [])].filter((set) => named.has(set.id) || set.id === first);
  });

  constructor() {
    effect(() => {
      const view = this.view() ?? null;
      untracked(() => this.opener.view.set(view));
    });
    this.judging.load().subscribe({ error: () => undefined });
  }

  protected changed(view: JudgementView): void {
    this.served.set(view);
    this.tried.set(null);
    this.compared.set(null);
  }

  protected rankBy(ranking: Ranking): void {
    this.tried.set(ranking === this.clinicRanking() ? null : ranking);
  }

  protected keepRanking(): void {
    const ranking = this.tried();
    if (!ranking) return;
    this.judging.change({ ranking }).subscribe({
      next: () => {
        this.problem.set('');
        this.tried.set(null);
        // The findings are others by it: what is signed is what is seen.
        this.loaded.reload();
      },
      error: (error: unknown) => this.problem.set(describeFailure(toFailure(error))),
    });
  }

  protected compare(event: Event): void {
    const set = (event.target as HTMLSelectElement).value;
    if (set === this.served()?.judgement.normSet.id) return this.compared.set(null);
    const show = () => this.compared.set(set);
    if (this.record()?.record.visit.id === this.id()) return show();
    const id = this.id();
    forkJoin({ record: this.visits.visit(id), screens: this.api.call(SCREENINGS.screens, { id }) }).subscribe({
      next: (loaded) => {
        this.record.set(loaded);
        show();
      },
      error: (error: unknown) => this.problem.set(describeFailure(toFailure(error))),
    });
  }
}
