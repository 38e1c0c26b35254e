import { assessmentOf, normSetsOf, screenDoneOf, screensOf, type AssessmentFile, type ProgramFile } from '@dial-gauge/contract';
import { assess, makeProgram, reason, stationFor, type Program } from '@dial-gauge/core';

export const judged = (file: AssessmentFile) => assess(assessmentOf(file), { normSets: normSetsOf(file), ranking: file.ranking });

/** The patient lies, sits or stands as for the last measurement of the file. */
export function reasoned(file: AssessmentFile) {
  const last = file.measurements[file.measurements.length - 1];
  const station = last ? stationFor(last.position, last.side) : null;
  const choosing = { precautions: file.precautions ?? [], on: file.assessedOn, station };
  return reason({ graded: screensOf(file), judgement: judged(file) }, choosing);
}

export function programOf(file: ProgramFile): Program {
  const { person, assessedOn, procedure, involvedSide, precautions = [], equipment, minutesADay, painTolerated, order } = file;
  const screens = file.screens.map((screen) => screenDoneOf(screen, assessedOn));
  const judgement = assess({ ...assessmentOf(file), screens }, { normSets: normSetsOf(file), ranking: file.ranking });
  return makeProgram({
    judgement,
    reasoned: reasoned(file),
    person,
    on: assessedOn,
    precautions,
    procedure,
    involvedSide,
    equipment,
    minutesADay,
    painTolerated,
    order,
  });
}
