import { CdkDrag, CdkDragHandle, CdkDropList, moveItemInArray, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { afterNextRender, ChangeDetectionStrategy, Component, computed, ElementRef, inject, Injector, signal } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { RouterLink } from '@angular/router';
import { NORMS, type NormSetSummary } from '@dial-gauge/contract';
import type { Observable } from 'rxjs';
import { Api } from '../data/api';
import { ClinicNorms } from '../data/clinic-norms';
import { toFailure, type Failure } from '../data/problem';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { handOver } from '../ui/hand-over';
import { Said } from '../ui/said';
import { countsOf } from '../looked-up/counts';
import { LookedUpList } from '../looked-up/list';
import { HandForm } from './hand';
import { ThresholdsForm } from './thresholds';

/** What the clinic judges by: which norm set, from which size on something is flagged, and sets of its own. */
@Component({
  selector: 'dg-norms',
  imports: [
    CdkDrag,
    CdkDragHandle,
    CdkDropList,
    Frame,
    HandForm,
    LookedUpList,
    MatButtonModule,
    MatIconModule,
    Pending,
    RouterLink,
    Said,
    ThresholdsForm,
  ],
  templateUrl: './norms.html',
  styleUrl: './norms.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NormsPage {
  private readonly api = inject(Api);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly injector = inject(Injector);
  private readonly judging = inject(ClinicNorms);
  protected readonly first = rxResource({ stream: () => this.judging.load() });
  protected readonly view = this.judging.current;
  /** What was just done, for the screen and for who does not see it. */
  protected readonly done = signal('');
  protected readonly refusal = signal<Failure | null>(null);
  protected readonly busy = signal(false);
  /** The sets in the order in which they are asked. */
  protected readonly sets = computed((): readonly NormSetSummary[] => {
    const view = this.view();
    return view ? view.normSets.flatMap((id) => view.sets.find((set) => set.id === id) ?? []) : [];
  });

  /** How many values of each table were looked up. */
  protected readonly counts = computed(() => countsOf(this.view()?.valueChecks ?? []));

  protected dropped({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    this.moveTo(previousIndex, currentIndex);
  }

  /** The handle under the arrow keys, Home and End; the line stays in the hand. */
  protected moveByKey(event: KeyboardEvent, at: number): void {
    const last = this.sets().length - 1;
    const to = new Map([
      ['ArrowUp', at - 1],
      ['ArrowDown', at + 1],
      ['Home', 0],
      ['End', last],
    ]).get(event.key);
    if (to === undefined) return;
    event.preventDefault();
    this.moveTo(at, to);
  }

  protected moveTo(from: number, to: number): void {
    const ids = this.sets().map((set) => set.id);
    const moved = this.sets()[from];
    if (!moved || to < 0 || to >= ids.length || to === from || this.busy()) return;
    moveItemInArray(ids, from, to);
    const words = `${moved.title} is asked ${to === 0 ? 'first' : `in place ${to + 1} of ${ids.length}`}. Every visit is judged by this order from here on.`;
    this.run(this.judging.change({ normSets: ids }), words, () =>
      this.host.querySelector<HTMLElement>(`[data-set="${moved.id}"]`)?.focus(),
    );
  }

  protected remove(set: NormSetSummary): void {
    if (!confirm(`Take “${set.title}” out of use? It stays on record.`)) return;
    this.run(this.judging.remove(set.id), `${set.title} is out of use.`);
  }

  protected async bringIn(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    // The same file, corrected, must be taken again.
    const csv = file ? await file.text() : '';
    field.value = '';
    if (!file) return;
    this.run(this.judging.add(csv), `${file.name} was brought in. It is asked last: move it up to judge by it.`);
  }

  protected export(set: NormSetSummary): void {
    this.api.call(NORMS.exportNormSet, { id: set.id }).subscribe({
      next: ({ fileName, csv }) => {
        handOver(fileName, csv, 'text/csv;charset=utf-8');
        this.done.set(`${fileName} was written.`);
      },
      error: (error: unknown) => this.refusal.set(toFailure(error)),
    });
  }

  protected run(doing: Observable<unknown>, words: string, then: () => void = () => undefined): void {
    this.done.set('');
    this.refusal.set(null);
    this.busy.set(true);
    doing.subscribe({
      next: () => this.done.set(words),
      error: (error: unknown) => {
        this.busy.set(false);
        this.refusal.set(toFailure(error));
      },
      complete: () => {
        this.busy.set(false);
        afterNextRender(then, { injector: this.injector });
      },
    });
  }

  protected saveThresholds(thresholds: Parameters<ClinicNorms['change']>[0]['thresholds']): void {
    this.run(this.judging.change({ thresholds }), 'The thresholds are in use now.');
  }
}
