import { limitsToday } from '../../read-models/visit-record/limits.js';
import { randomBytes, randomInt, randomUUID } from 'node:crypto';
import type { MadePage, NewPatientPage, PatientPagesView } from '@dial-gauge/contract';
import { drillsWith, findDrill, walkedWords } from '@dial-gauge/core';
import { verify } from '@node-rs/argon2';
import { IsNull } from 'typeorm';
import { hashPassword } from '../../records/identity/password.js';
import { Episode } from '../../records/episodes/entities.js';
import { episodeView } from '../../records/episodes/views.js';
import { hashOf } from '../../shared/hash.js';
import { HttpProblem, idTaken } from '../../shared/problems.js';
import { isDuplicate, type UnitOfWork } from '../../database/unit-of-work.js';
import { standingProgram } from '../../read-models/programmes/programmes.js';
import { Visit } from '../../records/visits/entities.js';
import { PatientPageKeyRow, PatientPageRow } from '../../records/patient-pages/entities.js';
import { loggedDays, walkedDrills } from '../../read-models/patient-log/logged.js';

const DAY = 86_400_000;
/** Digits of a code: typed by thumb, told on the telephone. */
const CODE_DIGITS = 6;

/** Makes a page. Its link and its code are told now and never again. */
export async function makePage(work: UnitOfWork, episodeId: string, { id, days }: NewPatientPage): Promise<MadePage> {
  const { manager, clinicId, caller, now } = work;
  const episode = await work.one(Episode, episodeId, 'episode of care');
  const token = randomBytes(18).toString('base64url');
  const code = String(randomInt(10 ** CODE_DIGITS)).padStart(CODE_DIGITS, '0');
  const expiresAt = new Date(now.getTime() + days * DAY);
  const row: PatientPageRow = {
    ...{ id, clinicId, episodeId: episode.id },
    tokenHash: hashOf(token),
    codeHash: await hashPassword(code),
    madeBy: caller.userId,
    madeAt: now,
    expiresAt,
    revokedAt: null,
    revokedBy: null,
  };
  try {
    await manager.insert(PatientPageRow, row);
  } catch (error) {
    if (isDuplicate(error)) throw idTaken('page');
    throw error;
  }
  await work.log.write('episode', episodeId, [['patientPage', null, { id, until: expiresAt.toISOString() }]]);
  return { id, token, code, expiresAt: expiresAt.toISOString() };
}

/** Closes a page at once. Closed twice it is closed once. */
export async function revokePage(work: UnitOfWork, id: string): Promise<void> {
  const { manager, clinicId, caller, now } = work;
  const page = await work.one(PatientPageRow, id, 'page');
  const { affected } = await manager.update(
    PatientPageRow,
    { id, clinicId, revokedAt: IsNull() },
    { revokedAt: now, revokedBy: caller.userId },
  );
  if (affected) await work.log.write('episode', page.episodeId, [['patientPage', { id }, null]]);
}

export async function patientPagesView(work: UnitOfWork, episodeId: string): Promise<PatientPagesView> {
  const { manager, clinicId, now } = work;
  const episode = await work.one(Episode, episodeId, 'episode of care');
  const [pages, logged, visit] = await Promise.all([
    manager.find(PatientPageRow, { where: { clinicId, episodeId }, order: { madeAt: 'DESC' }, take: 50 }),
    loggedDays(work, episodeId),
    latestVisit(work, episodeId),
  ]);
  const program = visit && (await standingProgram(work, visit.id));
  const known = drillsWith(program?.own ?? []);
  const nameOf = (id: string) => findDrill(id, known)?.name ?? id;
  const names = await work.namesOf(pages.map(({ madeBy }) => madeBy));
  const opened = new Map<string, Date>();
  if (pages.length > 0) {
    const keys = await manager.find(PatientPageKeyRow, { where: pages.map(({ id: pageId }) => ({ clinicId, pageId })) });
    for (const { pageId, openedAt } of keys) if (openedAt > (opened.get(pageId) ?? new Date(0))) opened.set(pageId, openedAt);
  }
  const today = now.toISOString().slice(0, 10);
  return {
    pages: pages.map(({ id, madeBy, madeAt, expiresAt, revokedAt }) => ({
      id,
      madeBy: names.get(madeBy) ?? '',
      madeAt: madeAt.toISOString(),
      expiresAt: expiresAt.toISOString(),
      revokedAt: revokedAt?.toISOString() ?? null,
      openedAt: opened.get(id)?.toISOString() ?? null,
    })),
    logged,
    steps: (program ? walkedDrills(program, episodeView(episode), limitsToday(episode, visit, today), logged, today) : []).map(
      (walked) => ({
        given: walked.given,
        givenName: nameOf(walked.given),
        side: walked.side,
        drill: walked.drill,
        drillName: nameOf(walked.drill),
        move: walked.last?.move ?? 'stay',
        words: walkedWords(walked),
        on: walked.last?.on ?? null,
        rests: walked.rests,
      }),
    ),
  };
}

export const latestVisit = ({ manager, clinicId }: UnitOfWork, episodeId: string): Promise<Visit | null> =>
  manager.findOne(Visit, { where: { clinicId, episodeId }, order: { assessedOn: 'DESC', startedAt: 'DESC', id: 'DESC' } });

/** Wrong link, wrong code, closed and run out are told alike. */
export const notOpened = (): HttpProblem =>
  new HttpProblem(401, 'Not opened', 'The link or the code is not right, or the page was closed. Check the code, or ask your clinic.');

// Checked when no such page exists, so that both answers take as long.
let decoy: Promise<string> | undefined;

/** The page of a link, where the code is right and it still stands. */
export async function pageByCode({ manager, now }: UnitOfWork, token: string, code: string): Promise<PatientPageRow | null> {
  const page = await manager.findOneBy(PatientPageRow, { tokenHash: hashOf(token) });
  const matches = await verify(page?.codeHash ?? (await (decoy ??= hashPassword('no such page'))), code.replace(/\s+/g, ''));
  return page && matches && stands(page, now) ? page : null;
}

/** Another device holds a key from now on. */
export async function newKey({ manager, now }: UnitOfWork, { id: pageId, clinicId }: PatientPageRow): Promise<string> {
  const key = randomBytes(32).toString('base64url');
  await manager.insert(PatientPageKeyRow, { id: randomUUID(), clinicId, pageId, keyHash: hashOf(key), openedAt: now });
  return key;
}

export const stands = ({ revokedAt, expiresAt }: PatientPageRow, now: Date): boolean => revokedAt === null && expiresAt > now;
