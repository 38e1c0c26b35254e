import { limitsToday } from '../../read-models/visit-record/limits.js';
import type { DayLog, OwnPage } from '@dial-gauge/contract';
import { drillBlock, drillsWith, findDrill, localeOf, progressSentences, speaking, walkedWords } from '@dial-gauge/core';
import { clipPagesForSender } from '../clips/clips.js';
import { Clinic } from '../../records/clinic/entities.js';
import { hashOf } from '../../shared/hash.js';
import { HttpProblem, refused } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { standingProgram } from '../../read-models/programmes/programmes.js';
import { progressView } from '../../read-models/progress/progress.js';
import { Episode } from '../../records/episodes/entities.js';
import { episodeView } from '../../records/episodes/views.js';
import { Patient } from '../../records/patients/entities.js';
import { PatientDayRow, PatientPageKeyRow, PatientPageRow } from '../../records/patient-pages/entities.js';
import { loggedDays, walkedDrills } from '../../read-models/patient-log/logged.js';
import { latestVisit, notOpened, stands } from './pages.js';

const DAY = 86_400_000;
/** More than anybody logs in half a year. */
const MOST_LOGGED = 1_000;
/** So many days of what was logged are shown again. */
const SHOWN = 14;

/** The page a key belongs to, and a unit of work that sees its clinic and is nobody there. */
async function opened(work: UnitOfWork, key: string): Promise<{ page: PatientPageRow; own: UnitOfWork }> {
  const found = await work.manager.findOneBy(PatientPageKeyRow, { keyHash: hashOf(key) });
  const page = found && (await work.manager.findOneBy(PatientPageRow, { id: found.pageId, clinicId: found.clinicId }));
  if (!page || !stands(page, work.now)) throw notOpened();
  return { page, own: work.as({ ...work.caller, clinicId: page.clinicId }) };
}

/** What the person sees: drills as they stand by what was logged, and what has changed, in plain words. */
export async function ownPage(work: UnitOfWork, key: string, locale: string): Promise<OwnPage> {
  const { page, own } = await opened(work, key);
  const { manager, clinicId } = own;
  const episode = await own.one(Episode, page.episodeId, 'episode of care');
  const [{ name: clinic }, patient, logged, visit, clips] = await Promise.all([
    manager.findOneByOrFail(Clinic, { id: clinicId }),
    manager.findOneByOrFail(Patient, { id: episode.patientId, clinicId }),
    loggedDays(own, page.episodeId),
    latestVisit(own, page.episodeId),
    clipPagesForSender(own, page.episodeId, locale),
  ]);
  const program = visit && (await standingProgram(own, visit.id));
  const series = visit ? (await progressView(own, visit.id)).series : [];
  const today = own.now.toISOString().slice(0, 10);
  const known = drillsWith(program?.own ?? []);
  const walked = program ? walkedDrills(program, episodeView(episode), limitsToday(episode, visit, today), logged, today) : [];
  return speaking(localeOf(locale), () => {
    const { better, same, less } = progressSentences(series);
    return {
      clinic,
      name: patient.givenName,
      expiresAt: page.expiresAt.toISOString(),
      recheckOn: program?.recheckOn ?? null,
      drills: walked.flatMap((one, at) => {
        const given = program!.drills[at]!;
        const isAsGiven = one.drill === one.given;
        const drill = findDrill(one.drill, known);
        if (!drill) return [];
        const block = drillBlock(
          {
            drill: one.drill,
            side: one.side,
            dose: isAsGiven ? given.dose : drill.dose,
            words: isAsGiven ? given.words : '',
          },
          known,
        );
        return block ? [{ given: one.given, step: one.last ? walkedWords(one) : '', rests: one.rests, limited: one.limited, block }] : [];
      }),
      better,
      less,
      clips,
      same: same.length,
      logged: logged.slice(0, SHOWN).map(({ receivedAt: _receivedAt, ...day }) => day),
    };
  });
}

/** Keeps a day. The clock of a telephone may be a day off; what lies further away is refused. */
export async function logDay(work: UnitOfWork, key: string, day: DayLog): Promise<void> {
  const { page, own } = await opened(work, key);
  const { manager, clinicId, now } = own;
  const around = (ms: number) => new Date(ms).toISOString().slice(0, 10);
  const [first, last] = [around(page.madeAt.getTime() - DAY), around(now.getTime() + DAY)];
  if (day.on < first || day.on > last)
    throw refused('day.on', `${day.on} lies outside of what this page is for; allowed: ${first} to ${last}`);
  if ((await manager.countBy(PatientDayRow, { clinicId, pageId: page.id })) >= MOST_LOGGED)
    throw new HttpProblem(409, 'Full', 'This page holds as much as it can. Ask your clinic for a new one.');
  const row: PatientDayRow = { ...day, clinicId, pageId: page.id, episodeId: page.episodeId, receivedAt: now };
  work.markStale('episode', page.episodeId);
  await own.insertFact(PatientDayRow, row, 'day', ['pageId', 'on', 'done', 'easy', 'pain', 'swelling', 'worse', 'note']);
}
