import { limitsOf, assessmentOfVisit, type FileView, type ReportFormat, type ReportView } from '@dial-gauge/contract';
import {
  documentOf,
  doseWords,
  drillsWith,
  findDrill,
  forbiddenDrill,
  goalWords,
  localeOf,
  makeReport,
  say,
  sayCount,
  speaking,
  type FhirContext,
  type Report,
  type ReportKind,
  type ScreenDone,
} from '@dial-gauge/core';
import { calendarText, exportText, type CalendarEntry, type Paper } from '@dial-gauge/files';
import { criteriaOf } from '../../read-models/clinic-criteria/criteria.js';
import { HttpProblem } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { screensForJudging } from '../../read-models/screens/screens.js';
import { mustBeOfAPerson } from '../../records/visits/rehearsal.js';
import { visitRecord } from '../../read-models/visit-record/record.js';
import { fileNameOf, pagesOf, printed } from './paper.js';
import { factsOf, reportGround, standingSignature, type ReportGround } from './facts.js';

interface Asked {
  readonly for: ReportKind;
  readonly paper: Paper;
  readonly locale: string;
}

const reportOf = (ground: ReportGround, { for: kind, locale }: Pick<Asked, 'for' | 'locale'>): Report =>
  speaking(localeOf(locale), () => withRehearsal(makeReport(kind, factsOf(ground)), ground.judged.visit.simulated));

/** A page of a rehearsal says so before anything else. */
function withRehearsal(report: Report, simulated: number): Report {
  if (simulated === 0) return report;
  const text = sayCount(
    simulated,
    'A rehearsal: {count} reading is a made-up number. Nothing on this page is about a person.',
    'A rehearsal: {count} readings are made-up numbers. Nothing on this page is about a person.',
  );
  return { ...report, blocks: [{ kind: 'paragraph', tone: 'warning', text }, ...report.blocks] };
}

export async function reportView(work: UnitOfWork, visitId: string, asked: Asked): Promise<ReportView> {
  const ground = await reportGround(work, visitId);
  const { visit, patient, episode, signing } = ground.judged;
  const report = reportOf(ground, asked);
  const { pages, breaks } = pagesOf(work, report, asked);
  return { visit, patient, episode, signing, report, pages, breaks: [...breaks] };
}

/** The page as PDF. */
export async function reportFile(work: UnitOfWork, visitId: string, asked: Asked): Promise<FileView> {
  const ground = await reportGround(work, visitId);
  const report = reportOf(ground, asked);
  const bytes = await printed(work, report, asked);
  return {
    fileName: fileNameOf(ground.judged, report.kind, 'pdf'),
    mediaType: 'application/pdf',
    base64: Buffer.from(bytes).toString('base64'),
  };
}

const MEDIA: Readonly<Record<ReportFormat, readonly [extension: string, mediaType: string]>> = {
  fhir: ['fhir.json', 'application/fhir+json'],
  csv: ['csv', 'text/csv; charset=utf-8'],
  sftr: ['sftr.txt', 'text/plain; charset=utf-8'],
  json: ['json', 'application/json'],
  ics: ['ics', 'text/calendar; charset=utf-8'],
};

/** A visit in one of the open formats. */
export async function exportVisit(work: UnitOfWork, visitId: string, to: ReportFormat): Promise<FileView> {
  const ground = await reportGround(work, visitId);
  mustBeOfAPerson(ground.judged.visit, 'No file was written.');
  const text = to === 'ics' ? calendarOf(work, ground) : exportText(await exportableVisit(work, ground), to, contextOf(ground));
  const [extension, mediaType] = MEDIA[to];
  return { fileName: fileNameOf(ground.judged, 'visit', extension), mediaType, base64: Buffer.from(text).toString('base64') };
}

async function exportableVisit(work: UnitOfWork, { judged }: ReportGround) {
  const record = await visitRecord(work, judged.visit.id);
  const assessment = assessmentOfVisit(record);
  const { done } = await screensForJudging(work, judged.visit.id);
  const { ranking } = await criteriaOf(work);
  // A set of the clinic's own is known to nobody who reads the file.
  const own = new Set(record.ownNormSets.map(({ id }) => id));
  const normSets = record.normSets.filter((id) => !own.has(id));
  return {
    document: documentOf({ ...assessment, ranking, normSets, screens: done.map(asEntry) }),
    measurements: assessment.measurements,
    judgement: () => judged.judgement,
  };
}

/** Items of one screen, with what was left out and why. */
const asEntry = ({ screen, items }: ScreenDone) => ({ screen, items });

/** What the record knows beside the facts of the visit. */
function contextOf({ judged, progress, program }: ReportGround): FhirContext {
  const { patient, visit } = judged;
  const signature = standingSignature(judged);
  const known = drillsWith(program?.own ?? []);
  return {
    ids: { patient: patient.id, visit: visit.id },
    name: { given: patient.givenName, family: patient.familyName },
    goals: progress.series.flatMap(({ goal, motion, side }) =>
      goal ? [{ motion, side, value: goal.value, words: goalWords(goal, motion), since: progress.visits[0]!.assessedOn }] : [],
    ),
    ...(program && {
      program: {
        drills: program.drills.map(({ drill, dose, words }) => ({
          id: drill,
          words: [findDrill(drill, known)?.name ?? drill, doseWords(dose), words].filter(Boolean).join('. '),
        })),
        recheckOn: program.recheckOn,
        givenOn: program.at.slice(0, 10),
      },
    }),
    ...(signature && { signed: { by: signature.by, at: signature.at } }),
  };
}

/** The recheck, and the days of each drill until then. No name and no complaint: calendars are read by others. */
function calendarOf({ now }: UnitOfWork, { clinic, program, judged }: ReportGround): string {
  if (!program)
    throw new HttpProblem(
      409,
      'No programme',
      'No programme was given yet, so there is no day to put into a calendar. Give one under Decide.',
    );
  const { drills, recheckOn, own } = program;
  const all = drillsWith(own);
  const limits = limitsOf(judged);
  const from = program.at.slice(0, 10);
  const entries: CalendarEntry[] = [
    { uid: `${program.id}-recheck@dial-gauge.example`, on: recheckOn, title: say('Recheck, {clinic}', { clinic }), details: '' },
    ...drills.flatMap(({ drill, side, dose, words }): CalendarEntry[] => {
      const known = findDrill(drill, all);
      // What a limit speaks against by now stands on no day.
      if (known && forbiddenDrill(known, side, limits)) return [];
      const entry = {
        uid: `${program.id}-${drill}@dial-gauge.example`,
        on: from,
        title: known?.name ?? drill,
        details: [doseWords(dose), ...(words ? [words] : (known?.cues ?? [])), known?.stop ?? ''].filter(Boolean).join('\n'),
        repeats: { daysAWeek: dose.daysAWeek, until: recheckOn },
      };
      return [entry];
    }),
  ];
  return calendarText(clinic, entries, now);
}
