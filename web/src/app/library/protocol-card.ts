import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import {
  chooseNorm,
  defaultError,
  errorOf,
  errorSourceWords,
  flagWords,
  formatNumber,
  judgingSet,
  mdc95,
  motion,
  placementLines,
  checkedErrors,
  lookedUpWords,
  semOf,
  suffixOf,
  TASK_NEEDS,
  type Instrument,
  type Mode,
  type NormEntry,
  type Protocol,
  type Sex,
} from '@dial-gauge/core';
import { ClinicNorms } from '../data/clinic-norms';
import { ProtocolFigure } from '../ui/figure/figure';
import { valueWords, type NormLane } from '../ui/norm-arc/lanes';
import { NormArc } from '../ui/norm-arc/norm-arc';
import { INSTRUMENT_WORDS } from '../ui/words';

/** For whom the norms are looked up. */
export interface Person {
  readonly sex: Sex;
  readonly age: number;
}

interface ErrorRow {
  readonly instrument: Instrument;
  readonly same: string;
  readonly other: string;
  readonly from: string;
}

/** One way of measuring: technique and figure, what is expected by every set, what tasks ask, and how sure a reading is. */
@Component({
  selector: 'dg-protocol-card',
  imports: [MatButtonToggleModule, NormArc, ProtocolFigure],
  templateUrl: './protocol-card.html',
  styleUrl: './protocol-card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProtocolCard {
  private readonly judging = inject(ClinicNorms);
  readonly protocol = input.required<Protocol>();
  readonly person = input.required<Person>();
  /** The mode in hand, where there is one. */
  readonly startMode = input<Mode>();

  protected readonly about = computed(() => motion(this.protocol().motion));
  protected readonly place = computed(() => placementLines(this.protocol()));
  protected readonly instruments = computed(() =>
    this.protocol()
      .instruments.map((instrument) => INSTRUMENT_WORDS[instrument])
      .join(', '),
  );
  protected readonly fakes = computed(() =>
    this.protocol()
      .substitutions.map((s) => s.label)
      .join(' · '),
  );
  protected readonly trials = computed(() => {
    const { count, summary } = this.protocol().trials;
    return `${count} readings, the ${summary} counts`;
  });
  protected readonly modes = computed(() => (this.about().unit === 'deg' ? this.protocol().modes : []));
  protected readonly mode = linkedSignal<Mode>(() => {
    const wanted = this.startMode();
    const { modes } = this.protocol();
    return wanted && modes.includes(wanted) ? wanted : modes[modes.length - 1]!;
  });

  protected readonly lookedUp = lookedUpWords;
  /** Whether a value that is shown comes from memory and was not looked up. */
  protected readonly isFromMemory = computed(() => this.lanes().some(({ set, choice }) => set.source.fromMemory && !choice.entry.lookedUp));

  protected readonly lanes = computed((): NormLane[] => {
    const { motion: id, position, variant } = this.protocol();
    // A finger's norms are those of the index; a side's those of the left, where a table tells them apart.
    const query = { motion: id, mode: this.mode(), position, variant, side: 'left' as const, ...this.person() };
    const chosen = judgingSet(this.judging.order(), query)?.set.id;
    const found = this.judging.sets().flatMap((set) => {
      const choice = chooseNorm(set, query);
      return choice ? [{ set, choice, chosen: set.id === chosen }] : [];
    });
    // Those with a vote first, each in the order of the sets.
    return [...found.filter((f) => f.choice.comparable), ...found.filter((f) => !f.choice.comparable)].map((f, i) => ({
      ...f,
      number: i + 1,
    }));
  });
  /** True where no set of the clinic's order may be compared: it is not judged. */
  protected readonly silent = computed(() => this.judging.order().length > 0 && !this.lanes().some((lane) => lane.chosen));

  protected readonly needs = computed(() => {
    const { variant, motion: id } = this.protocol();
    return variant !== null && variant !== 'loaded'
      ? []
      : TASK_NEEDS.filter((need) => need.motion === id).sort((a, b) => a.atLeast - b.atLeast);
  });

  protected readonly errors = computed((): ErrorRow[] =>
    this.protocol().instruments.map((instrument) => {
      const query = { motion: this.protocol().motion, instrument, protocol: this.protocol().id };
      const context = { checks: this.judging.current()?.valueChecks };
      const words = (sameExaminer: boolean): string => {
        const share = defaultError(instrument);
        if (share.isShare) return `${formatNumber((sameExaminer ? share.sameExaminer : share.otherExaminer) * 100)} % of the reading`;
        const { sem } = errorOf(query, sameExaminer, context);
        return `${formatNumber(sem)}${this.unit()}; a change counts from ${formatNumber(mdc95(sem))}${this.unit()}`;
      };
      return {
        instrument,
        same: words(true),
        other: words(false),
        from: errorOf(query, true, context).isDefault ? 'default' : errorSourceWords(errorOf(query, true, context).source),
      };
    }),
  );

  /** Figures of special samples: shown, not used for everybody. */
  protected readonly special = computed(() =>
    checkedErrors(this.judging.current()?.valueChecks)
      .filter((row) => !row.forEveryone && row.motions.includes(this.protocol().motion))
      .map(
        (row) =>
          `${row.population}: SEM ${formatNumber(semOf(row))}${this.unit()} (${row.cite}${row.lookedUp ? `; ${lookedUpWords(row.lookedUp)}` : `, confidence ${row.confidence}`})`,
      ),
  );

  protected readonly instrumentWords = INSTRUMENT_WORDS;
  protected readonly flags = flagWords;
  protected readonly unit = computed(() => suffixOf(this.about().unit));
  protected readonly value = (lane: NormLane) => valueWords(this.about(), lane.choice);
  protected readonly figure = (value: number) => (value < 0 ? `lacks ${formatNumber(-value)}` : formatNumber(value)) + this.unit();

  /** "passive, prone, men, 30–40 years": what the entry is of. */
  protected of({ mode, position, sex, ages }: NormEntry): string {
    const parts = [
      mode === 'any' ? 'mode not told' : mode,
      position === 'any' ? '' : position,
      sex === 'any' ? '' : sex === 'female' ? 'women' : 'men',
      ages?.label ?? 'adults',
    ];
    return parts.filter(Boolean).join(', ');
  }
}
