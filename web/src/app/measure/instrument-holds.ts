import { inject, Injectable } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { formatNumber } from '@dial-gauge/core';
import type { HeldThere } from '../live/instruments';
import { ExamCommands } from './exam-commands';
import { ExamCourse } from './exam-course';
import { ExamRecord } from './record/exam-record';
import { LiveSource } from './sources/live';
import { ReadingSources } from './sources/sources';

/** Holds that an instrument asks for, at its own button or by being still: each is held once, for what it was asked, and answered. */
@Injectable()
export class InstrumentHolds {
  private readonly record = inject(ExamRecord);
  private readonly course = inject(ExamCourse);
  private readonly sources = inject(ReadingSources);
  private readonly live = inject(LiveSource);
  private readonly commands = inject(ExamCommands);
  /** Held at an instrument, on this screen. */
  private readonly known = new Set<string>();

  constructor() {
    this.live.asks.pipe(takeUntilDestroyed()).subscribe((held) => {
      if (held) this.live.answer(held, ...this.hold(held));
      else if (this.sources.isLive()) this.commands.hold();
    });
  }

  /** @returns whether it is held, and what the instrument shows of that */
  private hold(held: HeldThere): [taken: boolean, words: string] {
    // Also one that was taken back since: asked again, it does not come back.
    if (this.known.has(held.id) || this.record.hasReading(held.id)) return [true, 'held'];
    if (held.for !== this.record.key() || this.course.turning())
      return [false, 'The run sheet is at another measurement: nothing was held. Hold again for this one.'];
    if (!this.sources.isLive()) return [false, 'Something else waits to be held at the dial: nothing was held.'];
    const value = this.live.pin(held, () => {
      const shown = this.sources.value();
      return this.commands.hold() ? (shown ?? 0) : null;
    });
    if (value === null) return [false, this.commands.pastStop() ? 'Past its limit: give the reason at the dial.' : this.course.problem()];
    this.known.add(held.id);
    return [true, `${formatNumber(value)}°`];
  }
}
