import { inject, Injectable, type Provider } from '@angular/core';
import { ExamCommands } from './exam-commands';
import { ExamCourse } from './exam-course';
import { ExamRecord } from './record/exam-record';
import { InstrumentHolds } from './instrument-holds';
import { InstrumentLine, ServerInstruments } from '../live/instruments';
import { LiveSource } from './sources/live';
import { PictureSource } from './sources/pictured';
import { ReadingSources } from './sources/sources';
import { TypedSource } from './sources/typed';

/** The exam in hand: what is known, where we are, what gives the next reading, and what is done with it. */
@Injectable()
export class Exam {
  readonly record = inject(ExamRecord);
  readonly course = inject(ExamCourse);
  readonly typed = inject(TypedSource);
  readonly live = inject(LiveSource);
  readonly picture = inject(PictureSource);
  readonly sources = inject(ReadingSources);
  readonly commands = inject(ExamCommands);
  readonly holds = inject(InstrumentHolds);
}

export const EXAM: Provider[] = [
  ...[Exam, ExamRecord, ExamCourse, TypedSource, LiveSource, PictureSource, ReadingSources, ExamCommands, InstrumentHolds],
  { provide: InstrumentLine, useClass: ServerInstruments },
];
