import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { JudgementView } from '@dial-gauge/contract';
import {
  dayWords,
  FINDING_STAGES,
  itemFindings,
  itemName,
  itemReasonWords,
  silentItems,
  sideOfItem,
  type Finding,
  type FindingStage,
  type ItemFinding,
  type Joint,
  modedName,
  type Move,
  needWords,
  notComparedWords,
  notJudgedWords,
  type Ranking,
  RANKING_NAMES,
  RANKINGS,
  regionName,
  sentencesOf,
  type Side,
  sidedName,
  stageOf,
} from '@dial-gauge/core';

import { isAt } from './body-marks';
import { FindingLine } from './finding-line';
import { ItemLine } from './item-line';
import { MobilityScore } from './mobility-score';
import { IfMay } from '../ui/may.directive';

/** One line of what matters: of measurements, or of an item of a screen. */
interface Line {
  readonly stage: FindingStage;
  readonly findings?: readonly Finding[];
  readonly item?: ItemFinding;
}

/** Findings as sentences in the order of the chosen rule, each opening its evidence. */
@Component({
  selector: 'dg-findings',
  imports: [FindingLine, ItemLine, MobilityScore, IfMay],
  templateUrl: './findings.html',
  styleUrl: './findings.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Findings {
  readonly view = input.required<JudgementView>();
  /** What a joint of the body map was pressed for. */
  readonly at = input<{ readonly joint: Joint; readonly side: Side } | null>(null);
  /** What the last change of rule moved. */
  readonly moves = input<readonly Move[]>([]);
  /** The rule the clinic follows, where another one is tried. */
  readonly clinicRanking = input<Ranking>();
  readonly rankBy = output<Ranking>();
  readonly keepRanking = output();
  readonly showAll = output();

  protected readonly rankings = RANKINGS.map((id) => ({ id, name: RANKING_NAMES[id] }));
  protected readonly ranking = computed(() => this.view().judgement.ranking);
  protected readonly isTried = computed(() => {
    const own = this.clinicRanking();
    return own !== undefined && own !== this.ranking();
  });
  protected readonly isSigned = computed(() => this.view().visit.signed);
  private readonly all = computed(() => this.view().judgement.findings.filter((f) => isAt(f, this.at())));
  protected readonly where = computed(() => {
    const at = this.at();
    return at ? `${at.side === 'midline' ? '' : `${at.side} `}${regionName(at.joint).toLowerCase()}` : '';
  });
  private readonly items = computed(() => {
    const { judgement, episode } = this.view();
    const context = { ranking: judgement.ranking, complaintAt: episode.complaintAt ?? undefined };
    const at = this.at();
    return itemFindings(judgement.screens ?? [], context).filter((f) => {
      const side = sideOfItem(f);
      return !at || (f.joints.includes(at.joint) && (side === at.side || side === 'midline' || at.side === 'midline'));
    });
  });
  /** What was measured in its order, and after it at each stage what the screens say. */
  protected readonly matter = computed((): readonly Line[] => {
    const lines: Line[] = sentencesOf(this.all()).map(({ findings }) => ({ stage: stageOf(findings[0]!.kind), findings }));
    for (const item of this.items()) if (item.stage !== 'change') lines.push({ stage: item.stage, item });
    return lines.sort((a, b) => FINDING_STAGES.indexOf(a.stage) - FINDING_STAGES.indexOf(b.stage));
  });
  protected readonly offersScore = computed(() => this.view().judgement.findings.some((f) => stageOf(f.kind) === 'beyond'));
  protected readonly groups = computed(() =>
    [
      { title: `Really changed since ${this.previous()}`, findings: this.of('change'), items: this.changedItems(), open: true },
      { title: `Within measuring error since ${this.previous()}`, findings: this.of('error'), items: [], open: false },
    ].filter((group) => group.findings.length + group.items.length > 0),
  );

  /** What nothing is said of, and why. */
  protected readonly notJudged = computed(() =>
    this.view()
      .judgement.notJudged.filter((of) => isAt(of, this.at()))
      .map((of) => ({ key: of.key, name: modedName(of.motion, of.side, of.mode, of.digit), words: notJudgedWords(of, of.motion) })),
  );
  /** Items that say nothing, and why. */
  protected readonly silent = computed(() =>
    this.at()
      ? []
      : silentItems(this.view().judgement.screens ?? []).map((one) => ({
          name: itemName(one),
          words: one.reasons.map(itemReasonWords).join('; '),
        })),
  );
  /** "4 of 6 items meet", where screens were run. */
  protected readonly screened = computed(() => {
    const outcomes = this.view().judgement.screens ?? [];
    const meet = outcomes.filter(({ quality }) => quality === 'meets').length;
    return outcomes.length === 0 ? '' : `On the screen ${meet} of ${outcomes.length} items ${meet === 1 ? 'meets' : 'meet'}.`;
  });
  /** Said only of what was judged, and by what. */
  protected readonly judgedBy = computed(() => {
    const sets = this.view().judgement.judgedBy;
    return sets.map((set) => `${set.short} ${set.measurements}`).join(', ');
  });

  /** What each motion is enough for, in one line a side and mode. */
  protected readonly tasks = computed(() =>
    this.view().judgement.measurements.flatMap(({ measurement: m, needs, key }) => {
      const words = needWords(needs);
      return words ? [{ key, name: `${sidedName(m.motion, m.side, m.digit)}, ${m.mode}`, words }] : [];
    }),
  );

  /** Readings that look alike but were taken another way. */
  protected readonly notCompared = computed(() =>
    this.view().judgement.measurements.flatMap(({ measurement: m, notCompared, key }) =>
      notCompared.map((of) => ({ key, name: `${sidedName(m.motion, m.side, m.digit)}, ${m.mode}`, words: notComparedWords(of) })),
    ),
  );

  protected choose(event: Event): void {
    this.rankBy.emit((event.target as HTMLSelectElement).value as Ranking);
  }

  private previous(): string {
    const on = this.view().previousOn;
    return on ? dayWords(on) : 'last visit';
  }

  private changedItems(): readonly ItemFinding[] {
    return this.items().filter(({ stage }) => stage === 'change');
  }

  private of(stage: FindingStage): Finding[] {
    return this.all().filter((f) => stageOf(f.kind) === stage);
  }
}
