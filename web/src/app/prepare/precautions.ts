import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatAutocompleteModule } from '@angular/material/autocomplete';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatIconModule } from '@angular/material/icon';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { explain, Precaution } from '@dial-gauge/contract';
import {
  alikePrecautions,
  alikeWords,
  allowedSides,
  dayWords,
  checkedProcedure,
  findProcedure,
  holdsOn,
  type Mode,
  type Motion,
  motion,
  type MotionId,
  MOTIONS,
  PRECAUTION_KINDS,
  type PrecautionKind,
  precautionWords,
  type Side,
  suffixOf,
  SURGEON_WINS,
  usualPrecautions,
} from '@dial-gauge/core';

import { Preparing } from './preparing';

const MOST = 12;
const KIND_WORDS: Readonly<Record<PrecautionKind, string>> = {
  range: 'how far',
  'end-range': 'its end',
  'against-gravity': 'against gravity',
  resisted: 'against resistance',
  weight: 'weight on it',
  'single-leg': 'on this leg alone',
};
const matches = (about: Motion, words: readonly string[]): boolean => words.every((word) => about.name.toLowerCase().includes(word));

/** What may not be done: limits with a day and a source. Ready sets are proposals; the surgeon's limits win. */
@Component({
  selector: 'dg-precautions',
  imports: [FormsModule, MatAutocompleteModule, MatButtonModule, MatFormFieldModule, MatIconModule, MatInputModule, MatSelectModule],
  templateUrl: './precautions.html',
  styleUrl: './precautions.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Precautions {
  private readonly preparing = inject(Preparing);
  readonly changed = output<readonly Precaution[]>();
  protected readonly surgeonWins = SURGEON_WINS;
  protected readonly dayWords = dayWords;
  protected readonly words = precautionWords;
  protected readonly groupWords = alikeWords;
  protected readonly kinds = PRECAUTION_KINDS;
  protected readonly kindWords = KIND_WORDS;

  protected readonly list = computed(() => this.preparing.record()?.episode.precautions ?? []);
  /** What says the same of several motions stands in one line, until it is opened. */
  protected readonly groups = computed(() => alikePrecautions(this.list()));
  protected readonly opened = signal<readonly string[]>([]);
  /** What is usual after the procedure of this episode and is not in the list yet. */
  protected readonly proposed = computed((): readonly Precaution[] => {
    const record = this.preparing.record();
    const procedure = findProcedure(record?.episode.procedureId ?? '');
    if (!record || !procedure) return [];
    const { involvedSide, procedureOn } = record.episode;
    const side: Side | undefined = involvedSide === 'left' || involvedSide === 'right' ? involvedSide : undefined;
    const known = new Set(this.list().map(sameness));
    const usual = usualPrecautions(checkedProcedure(procedure, record.valueChecks), side, procedureOn, record.visit.assessedOn);
    return usual.filter((one) => !known.has(sameness(one)));
  });

  protected readonly adding = signal(false);
  /** The one that is being changed; null: a new one. */
  protected readonly changing = signal<Precaution | null>(null);
  protected readonly problem = signal('');
  protected readonly typed = signal('');
  protected readonly side = signal<Side | ''>('');
  protected readonly mode = signal<Mode | ''>('');
  protected readonly kind = signal<PrecautionKind>('range');
  /** What the fields do not show: combined motions, one way of measuring. */
  private readonly rest = signal<Pick<Precaution, 'with' | 'protocol'>>({});
  protected readonly limit = signal('');
  protected readonly until = signal('');
  protected readonly source = signal('');
  protected readonly found = computed(() => {
    const words = this.typed().toLowerCase().split(/\s+/).filter(Boolean);
    return MOTIONS.filter((about) => matches(about, words)).slice(0, MOST);
  });
  private readonly motionId = computed((): MotionId | undefined => MOTIONS.find((about) => about.name === this.typed())?.id);
  protected readonly unit = computed(() => {
    const id = this.motionId();
    return id ? suffixOf(motion(id).unit).trim() || 'yes/no' : 'degrees';
  });

  protected readonly hasLimit = computed(() => this.kind() === 'range' || this.kind() === 'weight');
  protected readonly sides = computed((): readonly Side[] => {
    const id = this.motionId();
    return id ? allowedSides(motion(id)).filter((side) => side !== 'midline') : ['left', 'right'];
  });

  protected open(group: readonly Precaution[]): void {
    this.opened.update((opened) => [...opened, alikeWords(group)]);
  }

  protected removeAll(group: readonly Precaution[]): void {
    this.changed.emit(this.list().filter((other) => !group.includes(other)));
  }

  protected hasRunOut(precaution: Precaution): boolean {
    return !holdsOn(precaution, this.preparing.record()?.visit.assessedOn ?? null);
  }

  /** Fills the fields with one of the list; adding it puts it in the place of the old one. */
  protected edit(precaution: Precaution): void {
    const { motion: id, side, mode, kind, limit, until, source, with: others, protocol } = precaution;
    this.kind.set(kind ?? 'range');
    this.rest.set({ ...(others && { with: others }), ...(protocol && { protocol }) });
    this.typed.set(motion(id).name);
    this.side.set(side ?? '');
    this.mode.set(mode ?? '');
    this.limit.set(limit === null ? '' : String(limit));
    this.until.set(until ?? '');
    this.source.set(source);
    this.changing.set(precaution);
    this.adding.set(true);
  }

  protected leave(): void {
    for (const field of [this.typed, this.limit, this.until, this.source, this.problem]) field.set('');
    this.kind.set('range');
    this.rest.set({});
    this.changing.set(null);
    this.adding.set(false);
  }

  protected begin(): void {
    const side = this.preparing.record()?.episode.involvedSide;
    this.side.set(side === 'left' || side === 'right' ? side : '');
    this.adding.set(true);
  }

  protected add(): void {
    const id = this.motionId();
    if (!id) return this.problem.set(`Motion: "${this.typed()}" is not in the library; allowed: a motion of the list, as Knee flexion.`);
    const text = this.limit().trim().replace(',', '.');
    if (text !== '' && !Number.isFinite(Number(text))) {
      return this.problem.set(
        `Limit: "${this.limit()}" is not a number; allowed: the furthest end in ${this.unit()}, or nothing where it must not be measured.`,
      );
    }
    const parsed = Precaution.safeParse(this.entered(id, text));
    if (!parsed.success) return this.problem.set(wrongWords(parsed.error));
    const old = this.changing();
    const others = this.list().filter((other) => other !== old);
    if (others.some((other) => sameness(other) === sameness(parsed.data) && other.until === parsed.data.until)) {
      return this.problem.set('This precaution stands in the list already.');
    }
    this.changed.emit(old ? this.list().map((other) => (other === old ? parsed.data : other)) : [...others, parsed.data]);
    this.leave();
  }

  /** What was entered, before it is checked. */
  private entered(id: string, limit: string): unknown {
    return {
      motion: id,
      ...(this.kind() === 'range' ? {} : { kind: this.kind() }),
      ...(this.changing()?.motion === id ? this.rest() : {}),
      ...(this.side() ? { side: this.side() } : {}),
      ...(this.mode() ? { mode: this.mode() } : {}),
      limit: limit === '' || !this.hasLimit() ? null : Number(limit),
      until: this.until() || null,
      source: this.source(),
    };
  }

  protected takeProposed(): void {
    this.changed.emit([...this.list(), ...this.proposed()]);
  }

  protected remove(precaution: Precaution): void {
    this.changed.emit(this.list().filter((other) => other !== precaution));
  }
}

function wrongWords(error: Parameters<typeof explain>[0]): string {
  const [first] = explain(error);
  return first?.path === 'source'
    ? 'Set by: type who or what set it, as "surgeon, letter of 2 March".'
    : `${first?.path}: ${first?.message}`;
}

const sameness = ({ motion: id, kind, with: others, protocol, side, mode, limit }: Precaution): string =>
  [id, kind ?? 'range', others, protocol, side, mode, limit].join(' ');
