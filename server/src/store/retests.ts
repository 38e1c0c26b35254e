import type { MarkerReading, NewRetest, NewRound, RetestsView, RetestView } from '@dial-gauge/contract';
import { operationOf } from '@dial-gauge/contract';
import { checkValue, judgeRetest, protocolOfId, rememberDrills, type ErrorContext, type JudgedRound, type Marker } from '@dial-gauge/core';
import { In, type DataSource } from 'typeorm';
import type { Caller } from '../caller.js';
import { HttpProblem, notFound, refused } from '../problem.js';
import { Episode, RetestReadingRow, RetestRoundRow, RetestRow, Visit } from './entities/index.js';
import { Records } from './records.js';
import { namesOf } from './views.js';

/** Retests within a visit. Readings are appended; the latest of a marker and round counts. */
export class Retests {
  constructor(
    private readonly dataSource: DataSource,
    private readonly caller: Caller,
  ) {}

  async view(visitId: string): Promise<RetestsView> {
    const { clinicId } = this.caller;
    const { visit, patient, episode, ownErrors, measurements } = await new Records(this.dataSource, clinicId).visit(visitId);
    const context = { own: ownErrors, procedure: operationOf(episode)?.id };
    const measured = measurements.filter((m) => m.trials.length > 0);
    const retests = (await this.of([visitId])).map(({ view }) => view);
    return {
      visit,
      patient,
      episode,
      ownErrors,
      measured,
      retests,
      memory: rememberDrills(await this.earlier(visitId, patient.id, context)),
    };
  }

  async start(visitId: string, { id, markers }: NewRetest): Promise<void> {
    const { clinicId, userId } = this.caller;
    const { manager } = this.dataSource;
    if (!(await manager.existsBy(Visit, { id: visitId, clinicId }))) throw notFound('visit');
    if (await manager.existsBy(RetestRow, { id, clinicId })) return;
    await manager.save(
      RetestRow,
      { id, clinicId, visitId, markers, startedBy: userId, startedAt: new Date(), finishedAt: null },
      { reload: false },
    );
  }

  /** @returns the visit it belongs to */
  async noteDrill(retestId: string, { id, number, drill }: NewRound): Promise<string> {
    const { clinicId, userId } = this.caller;
    const retest = await this.open(retestId);
    const rounds = this.dataSource.getRepository(RetestRoundRow);
    const there = await rounds.findOneBy({ clinicId, retestId, number });
    if (there && there.id !== id) throw taken(`round ${number} has its drill already: ${there.drill}`);
    if (!there && number !== 1 + (await rounds.countBy({ clinicId, retestId })))
      throw refused('number', 'is out of turn; allowed: the next round');
    if (!there) await rounds.save({ id, clinicId, retestId, number, drill, notedBy: userId, notedAt: new Date() }, { reload: false });
    return retest.visitId;
  }

  async read(retestId: string, { id, round, marker, value }: MarkerReading): Promise<string> {
    const { clinicId, userId } = this.caller;
    const retest = await this.open(retestId);
    const of = retest.markers[marker];
    if (!of) throw refused('marker', `is not one of the ${retest.markers.length} markers; allowed: 0 to ${retest.markers.length - 1}`);
    const wrong = checkValue(protocolOfId(of.protocol)!.motion, of.instrument, value);
    if (wrong) throw refused('value', wrong);
    if (round > (await this.dataSource.getRepository(RetestRoundRow).countBy({ clinicId, retestId })))
      throw refused('round', 'has no drill yet; allowed: the baseline, or a round whose drill is noted');
    const rows = this.dataSource.getRepository(RetestReadingRow);
    if (!(await rows.existsBy({ id, clinicId })))
      await rows.save({ id, clinicId, retestId, round, marker, value, heldBy: userId, heldAt: new Date() }, { reload: false });
    return retest.visitId;
  }

  async finish(retestId: string): Promise<string> {
    const { clinicId } = this.caller;
    const retest = await this.find(retestId);
    if (!retest.finishedAt) await this.dataSource.getRepository(RetestRow).update({ id: retestId, clinicId }, { finishedAt: new Date() });
    return retest.visitId;
  }

  private async find(id: string): Promise<RetestRow> {
    const retest = await this.dataSource.getRepository(RetestRow).findOneBy({ id, clinicId: this.caller.clinicId });
    if (!retest) throw notFound('retest');
    return retest;
  }

  private async open(id: string): Promise<RetestRow> {
    const retest = await this.find(id);
    if (retest.finishedAt) throw taken('this retest is finished; begin another one');
    return retest;
  }

  private async of(visitIds: readonly string[]): Promise<{ visitId: string; view: RetestView }[]> {
    const { clinicId } = this.caller;
    const { manager } = this.dataSource;
    if (visitIds.length === 0) return [];
    const rows = await manager.find(RetestRow, { where: { clinicId, visitId: In([...visitIds]) }, order: { startedAt: 'ASC' } });
    if (rows.length === 0) return [];
    const where = { clinicId, retestId: In(rows.map((row) => row.id)) };
    const rounds = await manager.find(RetestRoundRow, { where, order: { number: 'ASC' } });
    const readings = await manager.find(RetestReadingRow, { where, order: { heldAt: 'ASC' } });
    const names = await namesOf(manager, clinicId);
    return rows.map((row) => {
      const drills = ['', ...rounds.filter((round) => round.retestId === row.id).map((round) => round.drill)];
      const own = readings.filter((reading) => reading.retestId === row.id);
      const latest = (round: number, marker: number) => own.filter((r) => r.round === round && r.marker === marker).pop()?.value ?? null;
      return {
        visitId: row.visitId,
        view: {
          id: row.id,
          markers: row.markers,
          rounds: drills.map((drill, round) => ({ drill, values: row.markers.map((_, marker) => latest(round, marker)) })),
          by: names.get(row.startedBy) ?? '',
          startedAt: row.startedAt.toISOString(),
          finishedAt: row.finishedAt?.toISOString() ?? null,
        },
      };
    });
  }

  /** What was tried with this patient before, judged. */
  private async earlier(visitId: string, patientId: string, context: ErrorContext): Promise<JudgedRound[][]> {
    const { clinicId } = this.caller;
    const episodes = await this.dataSource.getRepository(Episode).findBy({ clinicId, patientId });
    const visits = await this.dataSource.getRepository(Visit).findBy({ clinicId, episodeId: In(episodes.map((e) => e.id)) });
    // One that is still being done at this visit says nothing yet.
    const retests = (await this.of(visits.map((v) => v.id))).filter((r) => r.visitId !== visitId || r.view.finishedAt !== null);
    return retests.map(({ view }) => judgeRetest(view.markers.map(markerOf), view.rounds, context));
  }
}

/** A marker as the core reads it. */
function markerOf(marker: RetestView['markers'][number]): Marker {
  return { ...marker, motion: protocolOfId(marker.protocol)!.motion };
}

const taken = (message: string): HttpProblem => new HttpProblem(409, 'Changed meanwhile', `Nothing was saved: ${message}.`);
