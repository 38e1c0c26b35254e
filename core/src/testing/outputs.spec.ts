import type { Measurement, Session } from '../assessment.js';
import { evaluationReport } from '../exchange/report.js';
import { planReport } from '../exchange/plan-report.js';
import { programReport } from '../exchange/program-report.js';
import { reasonReport } from '../exchange/reason-report.js';
import { screenReport } from '../exchange/screen-report.js';
import { sftrLines } from '../exchange/sftr-lines.js';
import { documentOf } from '../exchange/document.js';
import { documentToFhir } from '../exchange/fhir/write.js';
import { assess } from '../finding/index.js';
import { itemsOfSheet, planExam } from '../plan/index.js';
import { EQUIPMENT, makeProgram, type Program } from '../program/index.js';
import { progressOf } from '../progress/index.js';
import { reason } from '../reason/index.js';
import { makeReport, REPORT_KINDS, type Report, type ReportFacts } from '../report/index.js';
import { gradedScreens, sideDifferences, SCREENS, type GradedItem, type ScreenDone } from '../screen/index.js';
import { PROTOCOLS } from '../catalogue/index.js';
import { EVERY_KIND } from './every-kind.js';
import { limited } from './limits.js';
import { hashOf, recordedLines } from './recorded.js';

const ON = '2026-11-20';
/** Three screens with faults, amounts, pain and items that were skipped. */
const SCREENED: readonly ScreenDone[] = SCREENS.slice(0, 3).map(({ id, items }) => ({
  screen: id,
  screenedOn: ON,
  items: items.map((item, at) => ({
    item: item.id,
    ...(item.sides === 'none' ? {} : { side: 'left' as const }),
    ...(at % 4 === 3
      ? { tries: [], skipped: 'no room' }
      : {
          tries: [
            {
              ...(item.answered.by === 'amount' ? { value: 3 } : { faults: item.faults.slice(0, 2).map((fault) => fault.id) }),
              pain: at % 3 === 0 ? 4 : 0,
            },
          ],
        }),
  })),
}));

/** The start of a long line, and a mark that changes with the rest of it. */
const short = (line: string): string => (line.length < 260 ? line : `${line.slice(0, 200)}… ${hashOf(line).slice(0, 10)}`);

/** A page as lines; poses are drawn and not read. */
const pageLines = ({ title, subtitle, foot, draft, blocks }: Report): string[] => [
  `# ${title} | ${subtitle} | ${foot} | draft ${draft}`,
  ...blocks.map((block) => JSON.stringify(block.kind === 'drill' ? { ...block, start: undefined, end: undefined } : block)),
];

function made(
  at: number,
  judgement: ReturnType<typeof assess>,
  graded: readonly GradedItem[],
): { program: Program; reasoned: ReturnType<typeof reason> } {
  const { person, precautions = [], procedure } = EVERY_KIND[at]!;
  const limits = limited(precautions, ON);
  const reasoned = reason({ graded, judgement }, { limits, station: null });
  const program = makeProgram({
    ...{ judgement, reasoned, person, on: ON, limits, minutesADay: 20, painTolerated: 3, order: 'stages' },
    equipment: EQUIPMENT.slice(0, 4),
    ...(procedure && { operation: procedure }),
  });
  return { program, reasoned };
}

/** What was said on a visit: everything on most, little on the second. */
const SAID = {
  most: { occupation: 'Beekeeper', complaint: 'Stiff since spring', wanted: 'Lift the hives again', summary: 'First line.\nSecond line.' },
  little: { occupation: '', complaint: '', wanted: '', summary: '' },
} as const;

function factsOf(at: number, signed: ReportFacts['signed']): ReportFacts {
  const { person, assessedOn, involvedSide, procedure, precautions = [], measurements, previous } = EVERY_KIND[at]!;
  const { occupation, ...said } = at === 1 ? SAID.little : SAID.most;
  const graded = gradedScreens(SCREENED.slice(0, at));
  const judgement = assess({ ...EVERY_KIND[at]!, ...(at > 0 && { screens: SCREENED.slice(0, at) }) });
  const sessions: Session[] = [...(previous ? [previous] : []), { assessedOn, measurements }];
  const { program } = made(at, judgement, graded);
  return {
    clinic: 'Saltmarsh Lane Physiotherapy',
    person: { givenName: 'Osric', familyName: 'Ferrier', birthDate: person.birthDate, occupation },
    ...said,
    ...(involvedSide && { involvedSide }),
    ...(procedure?.on && { operation: { id: procedure.id, on: procedure.on } }),
    operationWords: at === 2 ? 'Something older' : '',
    limits: limited([...precautions, { motion: 'hip.flexion', side: 'left', limit: 90, until: '2026-12-24', source: 'surgeon' }], ON),
    assessedOn,
    visitNumber: at + 1,
    examiner: 'Wren Calloway',
    judgement,
    series: progressOf(sessions, {
      person,
      ...(involvedSide && { involvedSide }),
      ...(procedure?.on && { operation: { id: procedure.id, on: procedure.on } }),
    }),
    firstOn: sessions[0]!.assessedOn,
    program:
      at === 1
        ? null
        : {
            drills: program.drills.map(({ drill, side, dose }, nth) => ({
              drill: drill.id,
              side,
              dose,
              words: nth === 0 ? 'Own words' : '',
            })),
            recheckOn: '2026-12-11',
            note: at === 0 ? 'slowly' : '',
            by: 'Wren Calloway',
            on: ON,
          },
    signed,
  };
}

/**
 * What goes out of the program, of the visits that have every kind of finding:
 * pages, tables and files, as they were recorded from the program. It shows
 * change, not correctness.
 */
describe('what goes out', () => {
  for (const kind of REPORT_KINDS)
    it(`on paper is what was recorded: ${kind}`, () => {
      const lines = EVERY_KIND.flatMap((_, at) => [
        ...pageLines(makeReport(kind, factsOf(at, null))),
        ...(at === 0
          ? pageLines(
              makeReport(
                kind,
                factsOf(at, { by: 'Rook Ansty', on: ON, number: 3, countersigned: { by: 'Wren Calloway', on: '2026-11-21' } }),
              ),
            ).slice(0, 4)
          : []),
      ]);
      expect(lines).toEqual(recordedLines(new URL(`outputs-${kind}.txt`, import.meta.url), lines));
    });

  it('as data is what was recorded', () => {
    const lines = EVERY_KIND.flatMap((assessment, at) => {
      const graded = gradedScreens(SCREENED.slice(0, at));
      const judgement = assess(assessment);
      const { program, reasoned } = made(at, judgement, graded);
      const { findings, ...evaluated } = evaluationReport(judgement);
      const fhir = documentToFhir(documentOf(assessment), { judgement });
      return [
        `# visit ${at + 1}`,
        ...findings.map((finding) => JSON.stringify(finding)),
        JSON.stringify(evaluated),
        JSON.stringify(programReport(program)),
        JSON.stringify(reasonReport(reasoned, graded)),
        JSON.stringify(screenReport(graded, sideDifferences(graded))),
        ...sftrLines(assessment.measurements as readonly Measurement[]),
        ...fhir.entry!.map(({ resource }) => JSON.stringify(resource)),
      ];
    });
    const protocols = PROTOCOLS.filter(({ variant }) => variant === null).filter((_, at) => at % 9 === 0);
    const plan = planExam({
      items: itemsOfSheet(protocols.map(({ id }) => ({ protocol: id }))),
      involved: 'left',
      limits: limited([{ motion: 'knee.flexion', side: 'left', limit: 60, until: null, source: 'surgeon' }], ON),
    });
    lines.push('# a plan', JSON.stringify(planReport(plan)));
    const shown = lines.map(short);
    expect(shown).toEqual(recordedLines(new URL('outputs-data.txt', import.meta.url), shown));
  });
});
