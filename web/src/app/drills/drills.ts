import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { RouterLink } from '@angular/router';
import { DRILL_LIST, type DrillsView, type OwnDrillView } from '@dial-gauge/contract';
import {
  asDrill,
  dayWords,
  doseWords,
  DRILL_STAGES,
  DRILLS,
  equipmentWords,
  POSITION_WORDS,
  REGIONS,
  regionName,
  stageWords,
  type Drill,
  type DrillStage,
} from '@dial-gauge/core';
import type { Observable } from 'rxjs';
import { Api } from '../data/api';
import { toFailure, type Failure } from '../data/problem';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { handOver } from '../ui/hand-over';
import { PoseFigure } from '../ui/pose-figure';
import { Said } from '../ui/said';
import { imposedWords, markerWords, nameOf, regionOf } from './words';
import { IfMay } from '../ui/may.directive';

interface Shown {
  readonly drill: Drill;
  readonly own: OwnDrillView | null;
}

/** Every drill there is: those that ship and the clinic's own, which are written, changed and taken out of use here. */
@Component({
  selector: 'dg-drills',
  imports: [Frame, MatButtonModule, MatIconModule, Pending, PoseFigure, RouterLink, Said, IfMay],
  templateUrl: './drills.html',
  styleUrl: './drills.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DrillsPage {
  private readonly api = inject(Api);
  protected readonly loaded = rxResource({ stream: () => this.api.call(DRILL_LIST.drills) });
  private readonly changed = signal<DrillsView | null>(null);
  protected readonly view = computed(() => this.changed() ?? (this.loaded.hasValue() ? this.loaded.value() : null));
  protected readonly stages = DRILL_STAGES;
  protected readonly words = signal('');
  protected readonly stage = signal<DrillStage | null>(null);
  protected readonly ownOnly = signal(false);
  protected readonly done = signal('');
  protected readonly refusal = signal<Failure | null>(null);
  protected readonly busy = signal(false);
  protected readonly say = { dayWords, doseWords, equipmentWords, imposedWords, markerWords, nameOf, POSITION_WORDS, stageWords };

  protected readonly all = computed((): readonly Shown[] => [
    ...(this.view()?.own ?? []).map((own) => ({ drill: asDrill(own.drill), own })),
    ...DRILLS.map((drill) => ({ drill, own: null })),
  ]);
  protected readonly drills = computed(() => this.all().map(({ drill }) => drill));
  protected readonly ownCount = computed(() => (this.view()?.own ?? []).filter(({ inUse }) => inUse).length);
  private readonly found = computed(() => {
    const words = this.words().toLowerCase().split(/\s+/).filter(Boolean);
    return this.all().filter(({ drill, own }) => {
      if (this.ownOnly() && !own) return false;
      if (this.stage() && drill.stage !== this.stage()) return false;
      const text = [drill.name, ...drill.serves, regionName(regionOf(drill)), drill.stage, ...drill.equipment].join(' ').toLowerCase();
      return words.every((word) => text.includes(word));
    });
  });
  protected readonly total = computed(() => this.found().length);
  protected readonly groups = computed(() =>
    REGIONS.map((region) => ({ name: regionName(region), of: this.found().filter(({ drill }) => regionOf(drill) === region) })).filter(
      (group) => group.of.length > 0,
    ),
  );

  protected listed<T>(of: readonly T[], words: (one: T) => string): string {
    return of.map(words).join('; ');
  }

  protected choose(stage: DrillStage): void {
    this.stage.update((chosen) => (chosen === stage ? null : stage));
  }

  /** Taken out of use, or back into it: another version, and what was given stays readable. */
  protected use({ drill }: OwnDrillView, inUse: boolean): void {
    const body = { drill: { ...drill, version: drill.version + 1 } as never, inUse };
    this.run(
      this.api.call(DRILL_LIST.keepDrill, { body }),
      inUse ? `${drill.name} is in use again.` : `${drill.name} is given no more. What was given stays on record.`,
    );
  }

  protected async bringIn(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    // The same file, corrected, must be taken again.
    const csv = file ? await file.text() : '';
    field.value = '';
    if (!file) return;
    this.start();
    this.api.call(DRILL_LIST.keepDrillFile, { body: { csv } }).subscribe({
      next: (view) => this.finish(view, `${file.name}: ${view.kept} new or changed, ${view.alike} there already.`),
      error: (error: unknown) => this.fail(error),
    });
  }

  protected write(which: 'own' | 'all'): void {
    this.api.call({ ...DRILL_LIST.drillFile, path: `/drill-files/${which}` }).subscribe({
      next: ({ fileName, csv }) => {
        handOver(fileName, csv, 'text/csv;charset=utf-8');
        this.done.set(`${fileName} was written.`);
      },
      error: (error: unknown) => this.fail(error),
    });
  }

  private run(doing: Observable<DrillsView>, words: string): void {
    this.start();
    doing.subscribe({ next: (view) => this.finish(view, words), error: (error: unknown) => this.fail(error) });
  }

  private start(): void {
    this.done.set('');
    this.refusal.set(null);
    this.busy.set(true);
  }

  private finish(view: DrillsView, words: string): void {
    this.changed.set(view);
    this.done.set(words);
    this.busy.set(false);
  }

  private fail(error: unknown): void {
    this.busy.set(false);
    this.refusal.set(toFailure(error));
  }
}
