import { computed, inject, Injectable, signal } from '@angular/core';
import { checkReading, type Instrument, type ReadAtDial } from '@dial-gauge/core';
import { Drafts } from '../../data/drafts';
import { ExamRecord } from '../record/exam-record';
import { valueOf, type ReadingSource } from './source';

/** An angle that was read off a picture and waits to be held. */
interface Pictured {
  /** Of which measurement on the run sheet. */
  readonly key: string;
  readonly degrees: number;
  /** How sure it is. */
  readonly words: string;
}

const isPictured = (value: unknown): value is Pictured =>
  typeof value === 'object' && value !== null && 'key' in value && 'degrees' in value;

/** Under which name it waits, for a visit. */
export const pictured = (visit: string): string => `pictured.${visit}`;

/** What was read off a still or a clip, at the measurement it was read for. */
@Injectable()
export class PictureSource implements ReadingSource {
  private readonly record = inject(ExamRecord);
  private readonly drafts = inject(Drafts);
  private readonly waiting = signal<Pictured | null>(null);

  readonly instrument = signal<Instrument | null>('picture').asReadonly();
  /** It waits for the measurement in hand. */
  readonly isHere = computed(() => this.record.visit() !== null && this.waiting()?.key === this.record.key());
  readonly words = computed(() => this.waiting()?.words ?? '');
  readonly offer = computed((): ReadAtDial => {
    const waiting = this.waiting();
    if (!waiting) return { ok: false, message: 'Nothing was read off a picture.' };
    const reading = { start: 0, end: waiting.degrees, entered: waiting.words };
    const wrong = checkReading(this.record.protocol(), { instrument: 'picture' }, reading);
    return wrong ? { ok: false, message: wrong } : { ok: true, reading, side: null, other: null };
  });
  readonly value = computed(() => valueOf(this.offer(), this.record.protocol()));

  open(visit: string): void {
    this.waiting.set(this.drafts.read(pictured(visit), isPictured));
  }

  held(): void {
    this.drafts.drop(pictured(this.record.visit()!.visit.id));
    this.waiting.set(null);
  }
}
