import { computed, inject, Injectable } from '@angular/core';
import { ExamRecord } from '../record/exam-record';
import { LiveSource } from './live';
import { PictureSource } from './pictured';
import type { ReadingSource } from './source';
import { TypedSource } from './typed';

/** What gives the next reading: whatever is typed, or else what was read off a picture, or else what is connected. */
@Injectable()
export class ReadingSources {
  private readonly record = inject(ExamRecord);
  private readonly typed = inject(TypedSource);
  private readonly live = inject(LiveSource);
  private readonly picture = inject(PictureSource);

  readonly inHand = computed((): ReadingSource => {
    if (this.typed.text() !== '') return this.typed;
    if (this.picture.isHere()) return this.picture;
    return this.live.isOn() && this.live.suits() ? this.live : this.typed;
  });
  /** Whether an instrument moves the needle. */
  readonly isLive = computed(() => this.inHand() === this.live);
  /** Whether there is something to hold that nobody types. */
  readonly isOffered = computed(() => this.inHand() !== this.typed);
  /** Whether there is anything to hold, or to be told why not. */
  readonly holds = computed(() => this.typed.text() !== '' || this.isOffered());
  /** Where the needle stands: at what is offered, before it is held. */
  readonly value = computed(() => this.inHand().value());
  /** What the reading is taken with. */
  readonly instrument = computed(() => this.inHand().instrument() ?? this.record.instrument());
  readonly sem = computed(() => this.record.semAt(this.value() ?? this.record.measured()?.value, this.instrument()));
}
