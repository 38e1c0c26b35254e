import type { ClipPageView, ClipReviewView, ClipsView, FileView, NewClipReview, NewStill, StillView } from '@dial-gauge/contract';
import { checkReview, clipReport, localeOf, speaking, type ClipStill, type Report } from '@dial-gauge/core';
import type { Paper } from '@dial-gauge/files';
import { In, IsNull } from 'typeorm';
import { Clinic } from '../../records/clinic/entities.js';
import { Episode } from '../../records/episodes/entities.js';
import { Patient } from '../../records/patients/entities.js';
import { same } from '../../database/change-log.js';
import { hashOf } from '../../shared/hash.js';
import { changedMeanwhile, notFound, refused } from '../../shared/problems.js';
import { isDuplicate, type UnitOfWork } from '../../database/unit-of-work.js';
import { fileNameOf, pagesOf, printed } from '../documents/paper.js';
import { screensOn } from '../../read-models/screens/screens.js';
import { Visit } from '../../records/visits/entities.js';
import { openVisit } from '../../records/visits/open.js';
import { ClipReviewRow, StillRow } from '../../records/clips/entities.js';
import { plainPicture } from '../../records/clips/picture.js';

/** More clips and stills than this belong to no visit. */
const MOST_CLIPS = 20;
const MOST_STILLS = 60;
/** So many of the latest are shown to the sender. */
const SHOWN_TO_SENDER = 3;

export async function clipsView(work: UnitOfWork, visitId: string): Promise<ClipsView> {
  const { manager, clinicId } = work;
  await work.one(Visit, visitId, 'visit');
  const [reviews, stills] = await Promise.all([
    newestReviews(work, [visitId]),
    manager.find(StillRow, { where: { clinicId, visitId, removedAt: IsNull() }, order: { attachedAt: 'ASC' } }),
  ]);
  const names = await work.namesOf([...reviews.map(({ madeBy }) => madeBy), ...stills.map(({ attachedBy }) => attachedBy)]);
  return {
    reviews: reviews.map(({ clipId, version, file, view, marks, isShared, madeBy, madeAt }): ClipReviewView => ({
      clip: clipId,
      version,
      file,
      view,
      marks: marks.map((mark) => ({ ...mark })) as ClipReviewView['marks'],
      isShared,
      by: names.get(madeBy) ?? '',
      at: madeAt.toISOString(),
    })),
    stills: stills.map(({ id, words, width, height, attachedBy, attachedAt }): StillView => ({
      id,
      words,
      width,
      height,
      by: names.get(attachedBy) ?? '',
      at: attachedAt.toISOString(),
    })),
  };
}

/** The newest version of each clip of some visits, newest clip first. */
async function newestReviews({ manager, clinicId }: UnitOfWork, visitIds: readonly string[]): Promise<ClipReviewRow[]> {
  if (visitIds.length === 0) return [];
  return manager
    .createQueryBuilder(ClipReviewRow, 'c')
    .where('c.clinicId = :clinicId AND c.visitId IN (:...visitIds)', { clinicId, visitIds })
    .andWhere('NOT EXISTS (SELECT 1 FROM clip_review n WHERE n.clip_id = c.clip_id AND n.version > c.version)')
    .orderBy('c.madeAt', 'DESC')
    .getMany();
}

/** The newest version of one clip of this clinic. */
async function reviewOf({ manager, clinicId }: UnitOfWork, clipId: string): Promise<ClipReviewRow> {
  const [row] = await manager.find(ClipReviewRow, { where: { clinicId, clipId }, order: { version: 'DESC' }, take: 1 });
  if (!row) throw notFound('clip');
  return row;
}

/** Keeps another version. Sent twice it is kept once; one made from an older version than there is now is refused. */
export async function keepReview(work: UnitOfWork, visitId: string, body: NewClipReview): Promise<void> {
  const { manager, clinicId, caller, now } = work;
  const { id, clip, version, file, view, marks, isShared } = body;
  const row: ClipReviewRow = {
    ...{ id, clinicId, visitId, clipId: clip, version, file, view, isShared },
    marks: marks.map((mark) => ({ ...mark })) as ClipReviewRow['marks'],
    madeBy: caller.userId,
    madeAt: now,
  };
  const facts = ['visitId', 'clipId', 'version', 'file', 'view', 'marks', 'isShared'] as const;
  if (!(await manager.existsBy(ClipReviewRow, { id }))) {
    const visit = await openVisit(work, visitId);
    const [last] = await manager.find(ClipReviewRow, { where: { clipId: clip }, order: { version: 'DESC' }, take: 1 });
    if (last?.version === version && facts.every((fact) => same(last[fact], row[fact]))) return;
    await mustFollow(work, row, last);
    const [wrong] = checkReview({ file, view, marks: row.marks }, await screensOn(work, visit.assessedOn));
    if (wrong) throw refused(wrong.path.join('.'), wrong.message);
    await mustHaveStills(work, visitId, row);
  }
  try {
    await work.insertFact(ClipReviewRow, row, 'review', facts);
  } catch (error) {
    if (isDuplicate(error)) throw changedMeanwhile(`What was marked in ${file}`, 'somebody else');
    throw error;
  }
}

/** @throws where the version does not follow the last one of its clip, or is the first of one clip too many */
async function mustFollow(work: UnitOfWork, { visitId, version, file }: ClipReviewRow, last: ClipReviewRow | undefined): Promise<void> {
  const { clinicId, caller } = work;
  if (last && (last.clinicId !== clinicId || last.visitId !== visitId))
    throw refused('clip', 'belongs to another visit; allowed: an identifier that was not used before, or one of this visit');
  if (version !== (last?.version ?? 0) + 1)
    throw changedMeanwhile(`What was marked in ${file}`, await work.nameOf(last?.madeBy ?? caller.userId));
  if (!last && (await newestReviews(work, [visitId])).length >= MOST_CLIPS)
    throw refused('clip', `is one too many; allowed: ${MOST_CLIPS} clips a visit`);
}

/** A mark shows stills of its own visit, and such as are there. */
async function mustHaveStills({ manager, clinicId }: UnitOfWork, visitId: string, { marks }: ClipReviewRow): Promise<void> {
  const wanted = [...new Set(marks.flatMap(({ still }) => still ?? []))];
  if (wanted.length === 0) return;
  const there = await manager.find(StillRow, { where: { clinicId, visitId, id: In(wanted), removedAt: IsNull() }, select: { id: true } });
  const at = marks.findIndex(({ still }) => still !== null && !there.some(({ id }) => id === still));
  if (at >= 0) throw refused(`marks.${at}.still`, 'is no still of this visit; allowed: one that is attached to it, or none');
}

/** What goes out about a clip, in the language that is asked for. */
async function pageOf(work: UnitOfWork, row: ClipReviewRow, locale: string): Promise<{ report: Report; patient: Patient; visit: Visit }> {
  const { manager, clinicId } = work;
  const visit = await work.one(Visit, row.visitId, 'visit');
  const { patientId } = await work.one(Episode, visit.episodeId, 'episode of care');
  const [patient, { name: clinic }, by, screens, stills] = await Promise.all([
    manager.findOneByOrFail(Patient, { id: patientId, clinicId }),
    manager.findOneByOrFail(Clinic, { id: clinicId }),
    work.nameOf(row.madeBy),
    screensOn(work, visit.assessedOn),
    stillsOf(work, row),
  ]);
  const { file, view, marks } = row;
  const facts = {
    clinic,
    givenName: patient.givenName,
    by,
    on: row.madeAt.toISOString().slice(0, 10),
    review: { file, view, marks },
    stills,
  };
  return { report: speaking(localeOf(locale), () => clipReport(facts, screens)), patient, visit };
}

async function stillsOf({ manager, clinicId }: UnitOfWork, { marks, visitId }: ClipReviewRow): Promise<ReadonlyMap<string, ClipStill>> {
  const ids = marks.flatMap(({ still }) => still ?? []);
  if (ids.length === 0) return new Map();
  const rows = await manager.find(StillRow, {
    where: { clinicId, visitId, id: In(ids), removedAt: IsNull() },
    select: { id: true, width: true, height: true, bytes: true },
  });
  return new Map(
    rows.flatMap(({ id, width, height, bytes }) => (bytes ? [[id, { jpeg: bytes.toString('base64'), width, height }] as const] : [])),
  );
}

interface Asked {
  readonly paper: Paper;
  readonly locale: string;
}

export async function clipPage(work: UnitOfWork, clipId: string, asked: Asked): Promise<ClipPageView> {
  const row = await reviewOf(work, clipId);
  const { report } = await pageOf(work, row, asked.locale);
  const { pages, breaks } = pagesOf(work, report, asked);
  return { report, pages, breaks: [...breaks], isShared: row.isShared };
}

export async function clipFile(work: UnitOfWork, clipId: string, asked: Asked): Promise<FileView> {
  const { report, patient, visit } = await pageOf(work, await reviewOf(work, clipId), asked.locale);
  const bytes = await printed(work, report, asked);
  return {
    fileName: fileNameOf({ patient, visit }, 'clip', 'pdf'),
    mediaType: 'application/pdf',
    base64: Buffer.from(bytes).toString('base64'),
  };
}

/** Pages that the sender sees on a page of their own: of the latest clips of an episode that are shared. */
export async function clipPagesForSender(work: UnitOfWork, episodeId: string, locale: string): Promise<Report[]> {
  const { manager, clinicId } = work;
  const visits = await manager.find(Visit, { where: { clinicId, episodeId }, select: { id: true } });
  const reviews = await newestReviews(
    work,
    visits.map(({ id }) => id),
  );
  const shared = reviews.filter(({ isShared }) => isShared).slice(0, SHOWN_TO_SENDER);
  const pages: Report[] = [];
  for (const row of shared) pages.push((await pageOf(work, row, locale)).report);
  return pages;
}

/** Attaches a still. Sent twice it is attached once. */
export async function attachStill(work: UnitOfWork, visitId: string, { id, words, base64 }: NewStill): Promise<void> {
  const { manager, clinicId, caller, now } = work;
  const sent = Buffer.from(base64, 'base64');
  const sentHash = hashOf(sent);
  const there = await manager.findOneBy(StillRow, { id });
  // The same again needs no second look at the picture.
  const { jpeg, width, height } =
    there?.sentHash === sentHash ? { jpeg: null, width: there.width, height: there.height } : await plainPicture(sent);
  if (!there) {
    await openVisit(work, visitId);
    if ((await manager.countBy(StillRow, { clinicId, visitId })) >= MOST_STILLS)
      throw refused('id', `is one too many; allowed: ${MOST_STILLS} stills a visit`, 'Nothing was attached.');
  }
  const row: StillRow = {
    ...{ id, clinicId, visitId, words, width, height, bytes: jpeg, sentHash },
    attachedBy: caller.userId,
    attachedAt: now,
    removedBy: null,
    removedAt: null,
  };
  await work.insertFact(StillRow, row, 'still', ['visitId', 'words', 'sentHash']);
}

export async function stillFile({ manager, clinicId }: UnitOfWork, id: string): Promise<FileView> {
  const row = await manager.findOne(StillRow, {
    where: { id, clinicId, removedAt: IsNull() },
    select: { id: true, bytes: true },
  });
  if (!row?.bytes) throw notFound('still');
  return { fileName: 'still.jpg', mediaType: 'image/jpeg', base64: row.bytes.toString('base64') };
}

/** The picture is gone at once; that it was there stays on record. @returns the visit it belonged to */
export async function removeStill(work: UnitOfWork, id: string): Promise<string> {
  const { manager, clinicId, caller, now } = work;
  const row = await work.one(StillRow, id, 'still', 'pessimistic_write');
  if (!row.removedAt) await manager.update(StillRow, { id, clinicId }, { bytes: null, removedAt: now, removedBy: caller.userId });
  return row.visitId;
}
