import { assessmentOf, normSetsOf, screenDoneOf, screensOf, type AssessmentFile, type ProgramFile } from '@dial-gauge/contract';
import { assess, makeProgram, reason, stationFor, type Limits, type Program } from '@dial-gauge/core';

export const judged = (file: AssessmentFile) => assess(assessmentOf(file), { normSets: normSetsOf(file), ranking: file.ranking });

/** A file answers no questions: it brings the precautions alone. */
const limitsIn = ({ precautions = [], assessedOn }: Pick<AssessmentFile, 'precautions' | 'assessedOn'>): Limits => ({
  precautions,
  cautions: [],
  on: assessedOn,
});

/** The patient lies, sits or stands as for the last measurement of the file. */
export function reasoned(file: AssessmentFile) {
  const last = file.measurements[file.measurements.length - 1];
  const station = last ? stationFor(last.position, last.side) : null;
  const choosing = { limits: limitsIn(file), station };
  return reason({ graded: screensOf(file), judgement: judged(file) }, choosing);
}

export function programOf(file: ProgramFile): Program {
  const { person, assessedOn, procedure, involvedSide, equipment, minutesADay, painTolerated, order } = file;
  const screens = file.screens.map((screen) => screenDoneOf(screen, assessedOn));
  const judgement = assess({ ...assessmentOf(file), screens }, { normSets: normSetsOf(file), ranking: file.ranking });
  return makeProgram({
    judgement,
    reasoned: reasoned(file),
    person,
    on: assessedOn,
    limits: limitsIn(file),
    procedure,
    involvedSide,
    equipment,
    minutesADay,
    painTolerated,
    order,
  });
}
