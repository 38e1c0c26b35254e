import type { EpisodeView, LoggedDayView } from '@dial-gauge/contract';
import {
  drillsWith,
  laddersWith,
  walkLadder,
  type DrillSide,
  type Equipment,
  type LoggedDay,
  type Walked,
  type Limits,
} from '@dial-gauge/core';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import type { StandingProgram } from '../programmes/programmes.js';
import { PatientDayRow } from '../../records/patient-pages/entities.js';

/** How far back a page and its clinic look. */
const MOST_DAYS = 120;

/** What was logged of an episode, newest first: of several for one day the last that came. */
export async function loggedDays({ manager, clinicId }: UnitOfWork, episodeId: string): Promise<LoggedDayView[]> {
  const rows = await manager.find(PatientDayRow, {
    where: { clinicId, episodeId },
    order: { on: 'DESC', receivedAt: 'DESC', id: 'DESC' },
    take: MOST_DAYS * 4,
  });
  const newest = new Map<string, PatientDayRow>();
  for (const row of rows) if (!newest.has(row.on)) newest.set(row.on, row);
  return [...newest.values()].slice(0, MOST_DAYS).map(({ id, on, done, easy, pain, swelling, worse, note, receivedAt }) => ({
    ...{ id, on, done, easy, pain, swelling, worse, note },
    receivedAt: receivedAt.toISOString(),
  }));
}

export interface WalkedDrill extends Walked {
  readonly side: DrillSide;
}

/** Where each drill of a programme stands, by what was logged since it was given. */
export function walkedDrills(
  program: StandingProgram,
  episode: EpisodeView,
  /** Of the latest visit. */
  limits: Limits,
  logged: readonly LoggedDayView[],
  today: string,
): WalkedDrill[] {
  const drills = drillsWith(program.own);
  const ladders = laddersWith(program.own, drills);
  const since = logged.filter(({ on }) => on >= program.at.slice(0, 10));
  return program.drills.map(({ drill, side }) => {
    const days = since.map(({ on, done, easy, pain, swelling, worse }): LoggedDay => ({
      on,
      done: done.includes(drill),
      easy,
      pain,
      swelling,
      worse,
    }));
    const walked = walkLadder(
      drill,
      days,
      {
        side,
        limits,
        equipment: program.choices.equipment as Equipment[],
        tolerated: program.choices.painTolerated,
        ...(episode.procedureId ? { operation: { id: episode.procedureId, on: episode.procedureOn } } : {}),
        on: today,
        givenOn: program.at.slice(0, 10),
        drills,
      },
      ladders,
    );
    return { ...walked, side };
  });
}
