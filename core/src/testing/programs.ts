import { limited } from './limits.js';
import type { Assessment, Measurement } from '../assessment.js';
import { assess } from '../finding/index.js';
import { EQUIPMENT, makeProgram, type Program, type ProgramAsk } from '../program/index.js';
import { reason } from '../reason/index.js';
import { gradedScreens } from '../screen/index.js';

export const ON = '2026-11-20';
export const PERSON = { birthDate: '1984-05-02', sex: 'female' } as const;

/** A programme from readings of one day, with half an hour and everything at hand. */
export function made(measurements: Measurement[], over: Partial<ProgramAsk> = {}, more: Partial<Assessment> = {}): Program {
  const assessment: Assessment = { person: PERSON, assessedOn: ON, measurements, ...more };
  const judgement = assess(assessment);
  const graded = gradedScreens(more.screens ?? []);
  return makeProgram({
    judgement,
    reasoned: reason({ graded, judgement }, { limits: over.limits ?? limited([], ON), station: null }),
    person: PERSON,
    on: ON,
    limits: limited([], ON),
    equipment: EQUIPMENT,
    minutesADay: 30,
    painTolerated: 3,
    order: 'stages',
    ...over,
  });
}
