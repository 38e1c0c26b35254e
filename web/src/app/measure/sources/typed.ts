import { computed, inject, Injectable, signal } from '@angular/core';
import { readAtDial, valueOfReading, type Instrument, type ReadAtDial, type Sense, type StoredReading } from '@dial-gauge/core';
import { ExamRecord } from '../record/exam-record';
import type { ReadingSource } from './source';

/** What is typed at the dial, by keys or keypad, or dragged there with the needle. */
@Injectable()
export class TypedSource implements ReadingSource {
  private readonly record = inject(ExamRecord);

  readonly text = signal('');
  readonly instrument = signal<Instrument | null>(null).asReadonly();
  /** What is typed, read with the tool in hand. */
  readonly read = computed(() => readAtDial(this.text(), this.record.protocol(), this.record.tool()));
  /** The reading that is typed, as it would be held. */
  readonly reading = computed((): StoredReading | null => {
    const read = this.read();
    if (!read.ok || 'arc' in read) return null;
    return read.other && this.isTold(read.other) ? read.other : read.reading;
  });
  /** Which way the device in hand counts while this joint moves, as it was told: by protocol, side and tool. */
  private readonly senses = signal<ReadonlyMap<string, Sense>>(new Map());
  private readonly senseKey = computed(() =>
    [this.record.row().protocol, this.record.place().side, this.record.tool().instrument, this.record.tool().scale].join('|'),
  );
  private readonly toldSense = computed(() => this.senses().get(this.senseKey()));
  /** Both readings of the same figures, where nobody has said yet which way the device counts. */
  readonly bothWays = computed((): readonly { readonly sense: Sense; readonly value: number }[] => {
    const read = this.read();
    if (!read.ok || 'arc' in read || !read.other || this.toldSense() !== undefined) return [];
    return [read.reading, read.other].flatMap((of) =>
      of.sense ? [{ sense: of.sense, value: valueOfReading(this.record.protocol(), of) }] : [],
    );
  });
  readonly value = computed(() => {
    const reading = this.reading();
    return reading && valueOfReading(this.record.protocol(), reading);
  });
  /** What the same figures come to when the device counted the other way. */
  readonly otherValue = computed(() => {
    const read = this.read();
    if (!read.ok || 'arc' in read || !read.other) return null;
    return this.toldSense() === undefined
      ? null
      : valueOfReading(this.record.protocol(), this.isTold(read.other) ? read.reading : read.other);
  });

  /** The same figures as they were told to count; both ways where nobody told. */
  readonly offer = computed((): ReadAtDial => {
    const read = this.read();
    const reading = this.reading();
    if (!read.ok || 'arc' in read || !reading) return read;
    return { ...read, reading, other: this.toldSense() === undefined ? read.other : null };
  });

  private isTold({ sense }: StoredReading): boolean {
    return sense === this.toldSense();
  }

  /** Says which way the device counts for this movement, for the rest of the visit. */
  tellSense(sense: Sense): void {
    this.senses.update((senses) => new Map(senses).set(this.senseKey(), sense));
  }

  /** The other way round than it was told. */
  flipSense(): void {
    const told = this.toldSense();
    if (told) this.tellSense(told === 1 ? -1 : 1);
  }

  held(): void {
    this.text.set('');
  }
}
