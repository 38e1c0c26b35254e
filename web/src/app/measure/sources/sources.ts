import { computed, inject, Injectable } from '@angular/core';
import { ExamRecord } from '../exam-record';
import type { ReadingSource } from './source';
import { TypedSource } from './typed';

/** What gives the next reading: whatever is typed, or else the instrument that is connected. */
@Injectable()
export class ReadingSources {
  private readonly record = inject(ExamRecord);
  private readonly typed = inject(TypedSource);

  readonly inHand = computed((): ReadingSource => this.typed);
  /** Where the needle stands: at what is offered, before it is held. */
  readonly value = computed(() => this.inHand().value());
  readonly sem = computed(() => this.record.semAt(this.value() ?? this.record.measured()?.value));
}
