import { AssessmentFile, ProgramFile } from '@dial-gauge/contract';
import { doseWords, recheckWords, type Program } from '@dial-gauge/core';
import { calendarText, EXPORTED, exportableOf, exportText, IMPORTED, importText, type CalendarEntry } from '@dial-gauge/files';
import { fileAndOption, print, refuse, textOf, withFile, type Outcome, type ReadText } from './input.js';
import { programOf } from './judged.js';

/** The days of a programme: the recheck, and the days of each drill until then. The file alone says whose: no name goes out. */
function daysOf(program: Program, file: ProgramFile): CalendarEntry[] {
  const { recheck, drills } = program;
  const uid = (what: string) => `${what}-${file.assessedOn}@dial-gauge.example`;
  return [
    { uid: uid('recheck'), on: recheck.on, title: 'Recheck', details: recheckWords(recheck) },
    ...drills.map(({ drill, side, dose }): CalendarEntry => ({
      uid: uid(`${drill.id}-${side}`),
      on: file.assessedOn,
      title: [drill.name, ...(side === 'midline' ? [] : [side])].join(', '),
      details: [doseWords(dose), ...drill.cues, drill.stop].join('\n'),
      repeats: { daysAWeek: dose.daysAWeek, until: recheck.on },
    })),
  ];
}

export function exported(args: readonly string[], read: ReadText): Outcome {
  const asked = fileAndOption('export', 'to', [...EXPORTED, 'ics'], args);
  if ('exitCode' in asked) return asked;
  const { file, option: to } = asked;
  if (to === 'ics')
    return withFile('export', ProgramFile, [file], read, (given) =>
      calendarText('Dial Gauge', daysOf(programOf(given), given), new Date(`${given.assessedOn}T00:00:00Z`)),
    );
  return withFile('export', AssessmentFile, [file], read, (given) => exportText(exportableOf(given), to));
}

export function imported(args: readonly string[], read: ReadText): Outcome {
  const asked = fileAndOption('import', 'from', IMPORTED, args);
  if ('exitCode' in asked) return asked;
  const { file, option: from } = asked;
  const found = textOf(file, read);
  if ('exitCode' in found) return found;
  const reading = importText(found.text, from);
  return reading.ok ? print(reading.document) : refuse(...reading.problems.map(({ path, message }) => `${path}: ${message}`));
}
