import { ChangeDetectionStrategy, Component, DestroyRef, computed, inject, signal } from '@angular/core';
import { rxResource, takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import type { CaseloadRow } from '@dial-gauge/contract';
import { AFTER_DRILL, itemId, type Side } from '@dial-gauge/core';
import { episodeWords, fullName, personWords } from '../caseload/words';
import { Api } from '../data/api';
import { CommandQueue } from '../data/command-queue';
import { describeFailure } from '../data/problem';
import { Frame } from '../shell/frame';
import { SceneFigure } from '../ui/scene/scene';
import { CASELOAD, ClassRun, type MemberRow } from './class-run';

/** A class: one item and a grid of names, one tap each; a drill, and the marker again. */
@Component({
  selector: 'dg-class',
  imports: [Frame, MatButtonModule, SceneFigure],
  providers: [ClassRun],
  templateUrl: './class.html',
  styleUrl: './class.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ClassPage {
  private readonly api = inject(Api);
  private readonly queue = inject(CommandQueue);
  protected readonly run = inject(ClassRun);
  protected readonly find = signal('');
  protected readonly found = rxResource({
    params: () => this.find(),
    stream: ({ params }) => this.api.call(CASELOAD, { query: { find: params, order: 'name' } }),
  });
  protected readonly rows = computed((): readonly CaseloadRow[] => (this.found.hasValue() ? this.found.value().rows : []));
  /** Who is to take part, by episode. */
  protected readonly picked = signal<ReadonlyMap<string, CaseloadRow>>(new Map());
  protected readonly words = { episodeWords, fullName, personWords };
  protected readonly answers = AFTER_DRILL;
  protected readonly ten = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10] as const;
  /** Whose pain is being told: visit and side. */
  protected readonly hurting = signal<string | null>(null);
  protected readonly choices = computed(() =>
    this.run.screens().map((screen) => ({
      name: screen.name,
      items: screen.items
        .filter(({ answered, views }) => views.length === 0 && (answered.by === 'look' || answered.by === 'amount'))
        .map((item) => ({ id: itemId(screen.id, item.id), name: item.name })),
    })),
  );
  protected readonly chosen = computed(() => itemId(this.run.screen(), this.run.item().id));

  constructor() {
    void this.run.resume();
    this.queue.answers.pipe(takeUntilDestroyed(inject(DestroyRef))).subscribe(({ command, failure, kept }) => {
      if (!failure && !kept) return;
      this.run.refused(command.id);
      this.run.problem.set(kept ? `${command.words}: ${kept}` : `${command.words} was not saved. ${describeFailure(failure!)}`);
    });
  }

  protected pick(row: CaseloadRow, on: boolean): void {
    this.picked.update((picked) => {
      const next = new Map(picked);
      if (on) next.set(row.episode.id, row);
      else next.delete(row.episode.id);
      return next;
    });
  }

  protected begin(): void {
    void this.run.begin([...this.picked().values()]);
  }

  protected choose(id: string): void {
    const [screen, item] = id.split('.');
    this.run.choose(screen!, item!);
  }

  protected tap(row: MemberRow, side: Side, meets: boolean): void {
    this.hurting.set(null);
    this.run.tap(row, side, { meets });
  }

  protected hurts(row: MemberRow, side: Side, pain: number): void {
    this.hurting.set(null);
    this.run.tap(row, side, { pain });
  }

  protected readonly keyOf = (row: MemberRow, side: Side): string => `${row.visitId}|${side}`;
}
