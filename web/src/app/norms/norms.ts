import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatRadioModule } from '@angular/material/radio';
import { NORMS, type NormSetSummary } from '@dial-gauge/contract';
import type { Observable } from 'rxjs';
import { Api } from '../data/api';
import { ClinicNorms } from '../data/clinic-norms';
import { toFailure, type Failure } from '../data/problem';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { HandForm } from './hand';
import { ThresholdsForm } from './thresholds';

/** What the clinic judges by: which norm set, from which size on something is flagged, and sets of its own. */
@Component({
  selector: 'dg-norms',
  imports: [FormsModule, Frame, HandForm, MatButtonModule, MatIconModule, MatRadioModule, Pending, ThresholdsForm],
  templateUrl: './norms.html',
  styleUrl: './norms.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NormsPage {
  private readonly api = inject(Api);
  private readonly judging = inject(ClinicNorms);
  protected readonly first = rxResource({ stream: () => this.judging.load() });
  protected readonly view = this.judging.current;
  /** What was just done, for the screen and for who does not see it. */
  protected readonly done = signal('');
  protected readonly refusal = signal<Failure | null>(null);
  protected readonly busy = signal(false);
  /** General sets first; those of a single region after them. */
  protected readonly groups = computed(() => {
    const sets = this.view()?.sets ?? [];
    return [
      { title: 'The clinic’s own', sets: sets.filter((set) => set.own) },
      { title: 'Many joints', sets: sets.filter((set) => !set.own && set.motions > 9) },
      { title: 'One region or one test', sets: sets.filter((set) => !set.own && set.motions <= 9) },
    ].filter((group) => group.sets.length > 0);
  });

  protected choose(set: NormSetSummary): void {
    this.run(this.judging.change({ normSet: set.id }), `${set.title} is in use now. Every visit is judged by it from here on.`);
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
    this.run(this.judging.add(csv), `${file.name} was brought in. Choose it below to judge by it.`);
  }

  protected export(set: NormSetSummary): void {
    this.api.call(NORMS.exportNormSet, { id: set.id }).subscribe({
      next: ({ fileName, csv }) => {
        const link = document.createElement('a');
        link.href = URL.createObjectURL(new Blob([csv], { type: 'text/csv;charset=utf-8' }));
        link.download = fileName;
        link.click();
        setTimeout(() => URL.revokeObjectURL(link.href));
        this.done.set(`${fileName} was written.`);
      },
      error: (error: unknown) => this.refusal.set(toFailure(error)),
    });
  }

  protected run(doing: Observable<unknown>, words: string): void {
    this.done.set('');
    this.refusal.set(null);
    this.busy.set(true);
    doing.subscribe({
      next: () => this.done.set(words),
      error: (error: unknown) => {
        this.busy.set(false);
        this.refusal.set(toFailure(error));
      },
      complete: () => this.busy.set(false),
    });
  }

  protected saveThresholds(thresholds: Parameters<ClinicNorms['change']>[0]['thresholds']): void {
    this.run(this.judging.change({ thresholds }), 'The thresholds are in use now.');
  }
}
