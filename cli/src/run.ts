import { parseArgs } from 'node:util';
import { AssessmentFile, gradedOf, PlanFile, planRequestOf, ProgramFile, ScreenFile, screenDoneOf, screensOf } from '@dial-gauge/contract';
import {
  evaluationReport,
  JOINTS,
  planExam,
  planReport,
  programReport,
  readSftr,
  reasonReport,
  reliability,
  reliabilityReport,
  screenReport,
  SftrError,
  sideDifferences,
  StudyError,
  studyFromRows,
  type GradedItem,
} from '@dial-gauge/core';
import { tableRows } from '@dial-gauge/files';
import { angle, tilt } from './angles.js';
import { exported, imported } from './exchange.js';
import { print, refuse, textOf, withFile, type Outcome, type ReadText } from './input.js';
import { judged, programOf, reasoned } from './judged.js';

const USAGE = [
  'usage: gauge evaluate FILE.json   judge an assessment (- reads standard input)',
  '       gauge screen FILE.json     grade a movement screen: quality and pain apart',
  '       gauge reason FILE.json     what could limit what fell short, and the next best test',
  '       gauge program FILE.json    at most five drills for what was found, within the minutes of a day',
  '       gauge plan FILE.json       order an exam: fewest turns, nothing forbidden',
  '       gauge export FILE.json --to fhir|csv|sftr|ics|json   an assessment in an open format',
  '       gauge import FILE --from csv|fhir|json               an assessment file from an open format',
  '       gauge angle "120,80 150,200 260,210"                  the angle in a picture, from 2, 3 or 4 points',
  '       gauge tilt FILE.csv --motion knee.flexion --side left   one movement from a stream of gravity',
  '       gauge icc FILE.csv         reliability: subjects in rows, raters in columns',
  '       gauge sftr "S:0-15-120" --joint knee   read SFTR notation',
];

/** The terminal face: arguments in, text and an exit code out. */
export function run(args: readonly string[], read: ReadText): Outcome {
  const [command, ...rest] = args;
  switch (command) {
    case 'evaluate':
      return evaluate(rest, read);
    case 'screen':
      return screen(rest, read);
    case 'reason':
      return reasonAbout(rest, read);
    case 'program':
      return program(rest, read);
    case 'plan':
      return plan(rest, read);
    case 'export':
      return exported(rest, read);
    case 'import':
      return imported(rest, read);
    case 'angle':
      return angle(rest);
    case 'tilt':
      return tilt(rest, read);
    case 'icc':
      return icc(rest, read);
    case 'sftr':
      return sftr(rest);
    case 'help':
    case '--help':
      return { exitCode: 0, output: USAGE.join('\n') };
    default:
      return refuse(
        `command: ${command === undefined ? 'is missing' : `"${command}" is not known`}; allowed: evaluate, screen, reason, program, plan, export, import, angle, tilt, icc, sftr`,
        ...USAGE,
      );
  }
}

function evaluate(args: readonly string[], read: ReadText): Outcome {
  return withFile('evaluate', AssessmentFile, args, read, (file) =>
    file.screens.length === 0 ? evaluation(file) : { ...evaluation(file), screens: graded(screensOf(file)) },
  );
}

const evaluation = (file: AssessmentFile) => evaluationReport(judged(file));
const graded = (items: GradedItem[]) => screenReport(items, sideDifferences(items));

function screen(args: readonly string[], read: ReadText): Outcome {
  return withFile('screen', ScreenFile, args, read, (file) => graded(gradedOf(screenDoneOf(file, file.screenedOn))));
}

function reasonAbout(args: readonly string[], read: ReadText): Outcome {
  return withFile('reason', AssessmentFile, args, read, (file) => reasonReport(reasoned(file), screensOf(file)));
}

function program(args: readonly string[], read: ReadText): Outcome {
  return withFile('program', ProgramFile, args, read, (file) => programReport(programOf(file)));
}

function plan(args: readonly string[], read: ReadText): Outcome {
  return withFile('plan', PlanFile, args, read, (file) => planReport(planExam(planRequestOf(file))));
}

function icc(args: readonly string[], read: ReadText): Outcome {
  const [file, ...extra] = args;
  if (file === undefined || extra.length > 0) return refuse('icc: takes one file, or - for standard input');
  const found = textOf(file, read);
  if ('exitCode' in found) return found;
  const reading = studyFromRows(tableRows(found.text).rows);
  if (!reading.ok)
    return refuse(
      ...reading.refused.map(({ line, column, message }) =>
        line === null ? `${file}: ${message}` : `line ${line}, column ${column}: ${message}`,
      ),
    );
  try {
    return print(reliabilityReport(reliability(reading.table)));
  } catch (error) {
    if (error instanceof StudyError) return refuse(`${file}: ${error.message}`);
    throw error;
  }
}

function sftr(args: readonly string[]): Outcome {
  try {
    const { values, positionals } = parseArgs({ args: [...args], options: { joint: { type: 'string' } }, allowPositionals: true });
    const [text, ...extra] = positionals;
    if (text === undefined || extra.length > 0) return refuse('sftr: takes one quoted record, as "S:0-15-120"');
    const joint = JOINTS.find((j) => j === values.joint);
    if (!joint)
      return refuse(
        `--joint: ${values.joint === undefined ? 'is missing' : `"${values.joint}" is not a joint`}; allowed: ${JOINTS.join(', ')}`,
      );
    return print(readSftr(text, joint));
  } catch (error) {
    if (error instanceof SftrError) return refuse(`sftr: ${error.message}`);
    if (error instanceof TypeError) return refuse(`arguments: ${error.message}`);
    throw error;
  }
}
