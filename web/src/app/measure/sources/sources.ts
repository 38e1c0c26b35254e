import { computed, inject, Injectable } from '@angular/core';
import { ExamRecord } from '../exam-record';
import { LiveSource } from './live';
import type { ReadingSource } from './source';
import { TypedSource } from './typed';

/** What gives the next reading: whatever is typed, or else what is connected. */
@Injectable()
export class ReadingSources {
  private readonly record = inject(ExamRecord);
  private readonly typed = inject(TypedSource);
  private readonly live = inject(LiveSource);

  readonly inHand = computed((): ReadingSource => {
    const wanted = this.live.isOn() && this.live.suits() && this.typed.text() === '';
    return wanted ? this.live : this.typed;
  });
  /** Whether an instrument moves the needle. */
  readonly isLive = computed(() => this.inHand() === this.live);
  /** Where the needle stands: at what is offered, before it is held. */
  readonly value = computed(() => this.inHand().value());
  /** What the reading is taken with. */
  readonly instrument = computed(() => this.inHand().instrument() ?? this.record.instrument());
  readonly sem = computed(() => this.record.semAt(this.value() ?? this.record.measured()?.value, this.instrument()));
}
