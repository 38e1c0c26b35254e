import type { SigningView } from '@dial-gauge/contract';
import type { Side } from '@dial-gauge/core';
import { MoreThan } from 'typeorm';
import { Episode } from '../../records/episodes/entities.js';
import type { ChangeRow } from '../../database/change-log.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { MeasurementRow, TrialRow } from '../../records/readings/entities.js';
import { ScreenTryRow } from '../../records/screens/entities.js';
import { tryWords } from '../screens/screens.js';
import { measurementName, trialWords } from '../../records/readings/words.js';

type Change = SigningView['changes'][number];

/** What of a visit was changed after a moment, oldest first: readings added, put right or taken back, and remarks. */
export async function changesSince(work: UnitOfWork, visitId: string, since: Date): Promise<Change[]> {
  const screened = await screenChangesSince(work, visitId, since);
  const { manager, clinicId } = work;
  const rows = new Map((await manager.findBy(MeasurementRow, { clinicId, visitId })).map((row) => [row.id, row]));
  if (rows.size === 0) return inOrder(screened);
  const ids = [...rows.keys()];
  const trials = await manager
    .createQueryBuilder(TrialRow, 't')
    .where('t.clinicId = :clinicId AND t.measurementId IN (:...ids) AND (t.savedAt > :since OR t.withdrawnAt > :since)', {
      clinicId,
      ids,
      since,
    })
    .getMany();
  const remarks = await work.log.since(since, [{ subject: 'measurement', ids }]);
  const names = await work.namesOf([...trials.flatMap((t) => [t.examinerId, t.withdrawnBy]), ...remarks.map((remark) => remark.userId)]);
  const who = (id: string | null) => names.get(id ?? '') ?? '';
  const corrected = new Set(trials.map((trial) => trial.corrects));
  const about = (trial: TrialRow) => {
    const row = rows.get(trial.measurementId)!;
    return { name: measurementName(row), value: trialWords(row.motion, trial) };
  };
  const because = (why: string | undefined) => (why ? ` (${why})` : '');
  const ofTrials = trials.flatMap((trial) => {
    const { savedAt, withdrawnAt, corrects, withdrawnWhy } = trial;
    const { name, value } = about(trial);
    const old = trials.find((t) => t.id === corrects);
    return [
      ...(savedAt > since
        ? [
            {
              at: savedAt,
              by: who(trial.examinerId),
              what: corrects ? `${name}: put right to ${value}${because(old?.withdrawnWhy)}` : `${name}: ${value} added`,
            },
          ]
        : []),
      ...(withdrawnAt && withdrawnAt > since && !corrected.has(trial.id)
        ? [{ at: withdrawnAt, by: who(trial.withdrawnBy), what: `${name}: ${value} taken back${because(withdrawnWhy)}` }]
        : []),
    ];
  });
  const ofRemarks = remarks.map((remark) => ({
    at: remark.changedAt,
    by: who(remark.userId),
    what: `${measurementName(rows.get(remark.subjectId)!)}: ${fieldChange(remark)}`,
  }));
  return inOrder([...ofTrials, ...ofRemarks, ...screened]);
}

/** Tries of screens that were added, put right or taken back after a moment. */
async function screenChangesSince(work: UnitOfWork, visitId: string, since: Date): Promise<{ at: Date; by: string; what: string }[]> {
  const rows = await work.manager.findBy(ScreenTryRow, { clinicId: work.clinicId, visitId, heldAt: MoreThan(since) });
  const names = await work.namesOf(rows.map((row) => row.heldBy));
  return rows.map(({ screen, item, view, side, skipped, seen, corrects, heldBy, heldAt }) => {
    const name = tryWords({
      screen,
      item,
      view: view || undefined,
      side: (side || undefined) as Side | undefined,
      skipped: skipped ?? undefined,
    });
    return { at: heldAt, by: names.get(heldBy) ?? '', what: corrects ? `${name}: ${seen ? 'put right' : 'taken back'}` : `${name} added` };
  });
}

const GROUNDS: Readonly<Partial<Record<ChangeRow['subject'], string>>> = {
  clinic: 'what this clinic judges by',
  patient: 'who they are',
};

/** What else the findings of a visit rest on and what of that was changed after a moment: what the clinic judges by, and the intake. */
export async function groundsChangedSince(work: UnitOfWork, episodeId: Episode['id'], since: Date): Promise<Change[]> {
  const { patientId } = await work.manager.findOneByOrFail(Episode, { id: episodeId, clinicId: work.clinicId });
  const rows = await work.log.since(since, [
    { subject: 'clinic', ids: [work.clinicId] },
    { subject: 'episode', ids: [episodeId] },
    { subject: 'patient', ids: [patientId] },
  ]);
  const names = await work.namesOf(rows.map((row) => row.userId));
  return inOrder(
    rows.map((row) => ({
      at: row.changedAt,
      by: names.get(row.userId) ?? '',
      what: `${GROUNDS[row.subject] ?? 'the intake'}: ${fieldChange(row)}`,
    })),
  );
}

const fieldChange = ({ field, oldValue, newValue }: ChangeRow): string => `${field} was ${plain(oldValue)}, now ${plain(newValue)}`;

function plain(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (Array.isArray(value)) return value.every((item) => typeof item === 'string') ? fewOf(value) || 'nothing' : `${value.length} entries`;
  return typeof value === 'object' ? 'set anew' : String(value);
}

/** "a, b, c and 26 more" */
const fewOf = (names: readonly string[]): string =>
  names.length > 5 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ');

function inOrder(changes: readonly { at: Date; by: string; what: string }[]): Change[] {
  return [...changes].sort((a, b) => a.at.getTime() - b.at.getTime()).map((change) => ({ ...change, at: change.at.toISOString() }));
}
