import { ChangeDetectionStrategy, Component, computed, effect, inject, input, linkedSignal, signal, viewChild } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import type { StudyView } from '@dial-gauge/contract';
import { bothWaysWords, protocolOfId, readAtDial, valueOfReading } from '@dial-gauge/core';
import { CommandQueue } from '../data/command-queue';
import type { Command } from '../data/commands';
import { overlay, type Shows } from '../data/overlay';
import { Tools } from '../measure/record/tools';
import { FigureEntry } from '../ui/figure-entry';
import { placeOf, raterWords, studyWay } from './words';

/** A turn that was read is taken, whatever the figure: that is not shown. */
const turnsOf = (study: StudyView): Shows<'turns', ReadonlySet<number>> => ({
  readStudy: (taken, { body }) => new Set([...taken, placeOf(study, body)]),
});

/** Blinded entry: one reading after another in an order that lets nobody remember; what was read is not shown again. */
@Component({
  selector: 'dg-study-entry',
  imports: [FigureEntry, MatProgressBarModule],
  template: `
    @if (turn(); as t) {
      <p class="soft">{{ again() === null ? 'Reading ' + (taken().size + 1) + ' of ' + study().turns.length : 'Once more' }}</p>
      <h2>
        Person or limb <span class="figure">{{ t.subject + 1 }}</span>, {{ rater() }}
      </h2>
      <mat-progress-bar mode="determinate" [value]="(100 * taken().size) / study().turns.length" aria-label="Readings taken" />
      <div class="entry">
        <dg-figure-entry label="Blinded reading" [(typed)]="typed" (held)="hold()" />
        <div class="soft">
          <p>{{ way() }}</p>
          <p>Enter holds it. No figure is shown until the last one is read.</p>
          @if (last() !== null && again() === null) {
            <button type="button" class="link" (click)="back()">Read the one before again</button>
          }
        </div>
      </div>
      @if (problem()) {
        <p class="problem" role="alert">{{ problem() }}</p>
      }
    } @else {
      <p role="status">All are read. The result shows as soon as the server has the last of them.</p>
    }
  `,
  styleUrl: './study-entry.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StudyEntry {
  private readonly queue = inject(CommandQueue);
  private readonly tools = inject(Tools);
  readonly study = input.required<StudyView>();
  /** What was read before and waits in the browser. */
  readonly waiting = input<readonly Command[]>([]);
  /** By value: a study that is read on is the same study. */
  private readonly studyId = computed(() => this.study().id);
  protected readonly typed = signal('');
  protected readonly problem = signal('');
  private readonly held = linkedSignal<string, readonly Command[]>({ source: this.studyId, computation: () => [] });
  /** What the server would not take: it has to be read again; the header says why. */
  private readonly refused = signal<ReadonlySet<string>>(new Set());
  /** The turn that was read last here, and whether it is read once more. */
  protected readonly last = linkedSignal<string, number | null>({ source: this.studyId, computation: () => null });
  protected readonly again = linkedSignal<string, number | null>({ source: this.studyId, computation: () => null });
  protected readonly taken = computed(() => {
    const entered = [...this.waiting(), ...this.held()].filter(({ id }) => !this.refused().has(id));
    return overlay<'turns', ReadonlySet<number>>(new Set(this.study().read), entered, turnsOf(this.study()));
  });
  /** The first turn nobody has read, or the one that is read once more. */
  private readonly at = computed(() => this.again() ?? this.study().turns.findIndex((_, at) => !this.taken().has(at)));
  protected readonly turn = computed(() => this.study().turns[this.at()] ?? null);
  protected readonly rater = computed(() => raterWords(this.study().kind, this.turn()?.rater ?? 0));
  protected readonly way = computed(() => studyWay(this.study()));
  private readonly entry = viewChild(FigureEntry);

  constructor() {
    this.queue.answers.pipe(takeUntilDestroyed()).subscribe(({ command, failure }) => {
      if (command.route === 'readStudy' && failure) this.refused.update((refused) => new Set([...refused, command.id]));
    });
    effect(() => {
      this.turn();
      this.entry()?.focus();
    });
  }

  protected hold(): void {
    const [study, turn] = [this.study(), this.turn()];
    const protocol = protocolOfId(study.protocol);
    if (!turn || !protocol) return;
    const read = readAtDial(this.typed(), protocol, this.tools.toolFor(protocol, study.instrument));
    if (!read.ok) return this.problem.set(read.message);
    if ('arc' in read) return this.problem.set(`"${this.typed()}" is a whole arc; allowed: one reading.`);
    if (read.other) return this.problem.set(`${bothWaysWords(protocol, read.reading, read.other)}.`);
    const value = valueOfReading(protocol, read.reading);
    const id = crypto.randomUUID();
    const command = {
      id,
      route: 'readStudy',
      target: study.id,
      visitId: study.id,
      words: `a reading of the study “${study.name}”`,
      body: { id, ...turn, value },
    } as const;
    const at = this.at();
    this.queue.add(command);
    this.held.update((held) => [...held, { ...command, userId: '' }]);
    this.last.set(at);
    this.again.set(null);
    this.problem.set('');
    this.entry()?.clear();
  }

  protected back(): void {
    this.entry()?.clear();
    this.problem.set('');
    this.again.set(this.last());
  }
}
