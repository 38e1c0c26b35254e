import { parseArgs } from 'node:util';
import { AssessmentFile, assessmentOf, normSetsOf, explain, PlanFile, planRequestOf } from '@dial-gauge/contract';
import {
  assess,
  evaluationReport,
  JOINTS,
  planExam,
  planReport,
  readSftr,
  reliability,
  reliabilityReport,
  SftrError,
  StudyError,
  studyFromRows,
} from '@dial-gauge/core';
import Papa from 'papaparse';
import type * as z from 'zod';

export type Outcome = { readonly exitCode: 0; readonly output: string } | { readonly exitCode: 2; readonly problems: readonly string[] };

/** Reads a file by name, or standard input for `-`. */
export type ReadText = (file: string) => string;

const USAGE = [
  'usage: gauge evaluate FILE.json   judge an assessment (- reads standard input)',
  '       gauge plan FILE.json       order an exam: fewest turns, nothing forbidden',
  '       gauge icc FILE.csv         reliability: subjects in rows, raters in columns',
  '       gauge sftr "S:0-15-120" --joint knee   read SFTR notation',
];

const print = (result: unknown): Outcome => ({ exitCode: 0, output: JSON.stringify(result, null, 2) });
const refuse = (...problems: string[]): Outcome => ({ exitCode: 2, problems });

/** The terminal face: arguments in, text and an exit code out. */
export function run(args: readonly string[], read: ReadText): Outcome {
  const [command, ...rest] = args;
  switch (command) {
    case 'evaluate':
      return evaluate(rest, read);
    case 'plan':
      return plan(rest, read);
    case 'icc':
      return icc(rest, read);
    case 'sftr':
      return sftr(rest);
    case 'help':
    case '--help':
      return { exitCode: 0, output: USAGE.join('\n') };
    default:
      return refuse(
        `command: ${command === undefined ? 'is missing' : `"${command}" is not known`}; allowed: evaluate, plan, icc, sftr`,
        ...USAGE,
      );
  }
}

function evaluate(args: readonly string[], read: ReadText): Outcome {
  return withFile('evaluate', AssessmentFile, args, read, (file) =>
    evaluationReport(assess(assessmentOf(file), { normSets: normSetsOf(file), ranking: file.ranking })),
  );
}

function plan(args: readonly string[], read: ReadText): Outcome {
  return withFile('plan', PlanFile, args, read, (file) => planReport(planExam(planRequestOf(file))));
}

/** Reads one JSON file, holds it to its schema, and prints what it comes to. */
function withFile<S extends z.ZodType>(
  command: string,
  schema: S,
  args: readonly string[],
  read: ReadText,
  answer: (file: z.output<S>) => unknown,
): Outcome {
  const [file, ...extra] = args;
  if (file === undefined || extra.length > 0) return refuse(`${command}: takes one file, or - for standard input`);
  let json: unknown;
  try {
    json = JSON.parse(read(file));
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    return refuse(
      error instanceof SyntaxError ? `${file}: is not JSON (${why}); allowed: one JSON object` : `${file}: cannot be read (${why})`,
    );
  }
  const parsed = schema.safeParse(json);
  return parsed.success ? print(answer(parsed.data)) : refuse(...explain(parsed.error).map((p) => `${p.path}: ${p.message}`));
}

function icc(args: readonly string[], read: ReadText): Outcome {
  const [file, ...extra] = args;
  if (file === undefined || extra.length > 0) return refuse('icc: takes one file, or - for standard input');
  let text: string;
  try {
    text = read(file);
  } catch (error) {
    return refuse(`${file}: cannot be read (${error instanceof Error ? error.message : String(error)})`);
  }
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { delimitersToGuess: [',', ';', '\t'] });
  const reading = studyFromRows(data);
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
