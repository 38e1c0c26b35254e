import {
  measurementsOf,
  type CaseloadRow,
  type EpisodeView,
  type MeasurementView,
  type NewPatient,
  type PatientRecord,
  type PatientView,
  type ProgressView,
  type VisitRecord,
  type VisitView,
} from '@dial-gauge/contract';
import { ASSUMED_HAND, MOTIONS, NORM_SETS, type IsoDate, type Session } from '@dial-gauge/core';
import { In, type DataSource } from 'typeorm';
import { Clinic, Episode, MeasurementRow, Patient, TrialRow, Visit } from './entities/index.js';
import { Goals } from './goals.js';
import { JudgingStore } from './judging.js';
import { notFound } from '../problem.js';
import { measurementView, namesOf, trialViews } from './views.js';

/** Reads one clinic's records. Every query names the clinic; there is no other way in. */
export class Records {
  constructor(
    private readonly dataSource: DataSource,
    readonly clinicId: string,
  ) {}

  async caseload(): Promise<CaseloadRow[]> {
    const { clinicId } = this;
    const [patients, episodes, visits] = await Promise.all([
      this.dataSource.getRepository(Patient).findBy({ clinicId }),
      this.dataSource.getRepository(Episode).findBy({ clinicId }),
      this.visitViews(await this.dataSource.getRepository(Visit).findBy({ clinicId })),
    ]);
    const byPatient = new Map(patients.map((patient) => [patient.id, patient]));
    return episodes
      .map((episode) => {
        const own = visits.get(episode.id) ?? [];
        return {
          patient: patientView(byPatient.get(episode.patientId)!),
          episode: episodeView(episode),
          visits: own.length,
          lastVisit: own[own.length - 1] ?? null,
        };
      })
      .sort(
        (a, b) =>
          (b.lastVisit?.assessedOn ?? '').localeCompare(a.lastVisit?.assessedOn ?? '') ||
          a.patient.familyName.localeCompare(b.patient.familyName),
      );
  }

  async patient(id: string): Promise<PatientRecord> {
    const { clinicId } = this;
    const patient = await this.dataSource.getRepository(Patient).findOneBy({ id, clinicId });
    if (!patient) throw notFound('patient');
    const episodes = await this.dataSource.getRepository(Episode).find({ where: { patientId: id, clinicId }, order: { openedOn: 'DESC' } });
    const visits = await this.visitViews(await this.visitsOf(episodes.map((e) => e.id)));
    return { patient: patientView(patient), episodes: episodes.map((e) => ({ ...episodeView(e), visits: visits.get(e.id) ?? [] })) };
  }

  /** Adds a patient and the first episode of care. Sending it again changes nothing. */
  async addPatient(body: NewPatient, today: IsoDate): Promise<PatientRecord> {
    const { clinicId } = this;
    const { episode, ...patient } = body;
    await this.dataSource.transaction(async (manager) => {
      if (await manager.findOneBy(Patient, { id: patient.id, clinicId })) return;
      await manager.insert(Patient, { ...patient, clinicId });
      await manager.insert(Episode, { ...episode, clinicId, patientId: patient.id, openedOn: today });
    });
    return this.patient(patient.id);
  }

  async visit(id: string): Promise<VisitRecord> {
    const { visits, at, ...rest } = await this.timeline(id);
    const before = visits
      .slice(0, at)
      .filter((v) => v.readings > 0)
      .pop();
    const measurements = await this.measurements([id, ...(before ? [before.id] : [])]);
    return {
      ...rest,
      measurements: measurements.get(id) ?? [],
      previous: before ? { assessedOn: before.assessedOn, measurements: measurements.get(before.id) ?? [] } : null,
    };
  }

  /** A visit and those before it as the core reads them, oldest first. */
  async history(id: string): Promise<Omit<ProgressView, 'series'> & Pick<VisitRecord, 'ownErrors'> & { sessions: Session[] }> {
    const { visits: all, at, visit, patient, episode, normSet, ownNormSet, ownErrors } = await this.timeline(id);
    const visits = all.slice(0, at + 1);
    const measurements = await this.measurements(visits.map((v) => v.id));
    return {
      visit,
      patient,
      episode,
      normSet,
      ownNormSet,
      ownErrors,
      goals: await new Goals(this.dataSource, this.clinicId).of(episode.id),
      visits,
      sessions: visits.map((v) => ({ assessedOn: v.assessedOn, measurements: measurementsOf(measurements.get(v.id) ?? []) })),
    };
  }

  /** A visit among all visits of its episode, with whose they are and what they are judged by. */
  private async timeline(id: string) {
    const { clinicId } = this;
    const visit = await this.dataSource.getRepository(Visit).findOneBy({ id, clinicId });
    if (!visit) throw notFound('visit');
    const episode = await this.dataSource.getRepository(Episode).findOneByOrFail({ id: visit.episodeId, clinicId });
    const patient = await this.dataSource.getRepository(Patient).findOneByOrFail({ id: episode.patientId, clinicId });
    const clinic = await this.dataSource.getRepository(Clinic).findOneByOrFail({ id: clinicId });
    const visits = (await this.visitViews(await this.visitsOf([episode.id]))).get(episode.id) ?? [];
    const at = visits.findIndex((v) => v.id === id);
    const ownNormSet = await this.ownNormSet(clinic.normSet);
    const ownErrors = await new JudgingStore(this.dataSource, clinicId).ownErrors();
    return {
      visit: visits[at]!,
      patient: patientView(patient),
      episode: episodeView(episode),
      normSet: clinic.normSet,
      ownNormSet,
      ownErrors,
      sheet: visit.sheet,
      plan: visit.plan,
      revision: visit.revision,
      cautions: visit.cautions,
      hand: clinic.handWidths ?? ASSUMED_HAND,
      visits,
      at,
    };
  }

  /** The clinic's norm set, where it is not one of the program's. */
  private async ownNormSet(id: string): Promise<VisitRecord['ownNormSet']> {
    return NORM_SETS.some((set) => set.id === id) ? null : new JudgingStore(this.dataSource, this.clinicId).find(id);
  }

  private visitsOf(episodeIds: readonly string[]): Promise<Visit[]> {
    return episodeIds.length === 0
      ? Promise.resolve([])
      : this.dataSource.getRepository(Visit).findBy({ clinicId: this.clinicId, episodeId: In([...episodeIds]) });
  }

  /** Visits by episode, oldest first and numbered, with how many readings each holds. */
  private async visitViews(visits: readonly Visit[]): Promise<Map<string, VisitView[]>> {
    const { clinicId } = this;
    if (visits.length === 0) return new Map();
    const examiners = await namesOf(this.dataSource.manager, this.clinicId);
    const counts = await this.dataSource
      .createQueryBuilder(TrialRow, 't')
      .innerJoin(MeasurementRow, 'm', 'm.id = t.measurementId')
      .select('m.visitId', 'visitId')
      .addSelect('COUNT(*)', 'readings')
      .where('t.clinicId = :clinicId AND t.withdrawnAt IS NULL AND m.visitId IN (:...ids)', { clinicId, ids: visits.map((v) => v.id) })
      .groupBy('m.visitId')
      .getRawMany<{ visitId: string; readings: string }>();
    const readings = new Map(counts.map((c) => [c.visitId, Number(c.readings)]));
    const byEpisode = new Map<string, VisitView[]>();
    const oldestFirst = [...visits].sort(
      (a, b) => a.assessedOn.localeCompare(b.assessedOn) || a.startedAt.getTime() - b.startedAt.getTime(),
    );
    for (const visit of oldestFirst) {
      const own = byEpisode.get(visit.episodeId) ?? [];
      own.push({
        id: visit.id,
        assessedOn: visit.assessedOn,
        examiner: examiners.get(visit.examinerId) ?? '',
        readings: readings.get(visit.id) ?? 0,
        number: own.length + 1,
        signed: visit.signed,
      });
      byEpisode.set(visit.episodeId, own);
    }
    return byEpisode;
  }

  /** Measurements by visit, with their standing trials in the order held. */
  private async measurements(visitIds: readonly string[]): Promise<Map<string, MeasurementView[]>> {
    const { clinicId } = this;
    if (visitIds.length === 0) return new Map();
    const rows = await this.dataSource.getRepository(MeasurementRow).findBy({ clinicId, visitId: In([...visitIds]) });
    const trials = rows.length
      ? await this.dataSource.getRepository(TrialRow).find({
          where: { clinicId, measurementId: In(rows.map((r) => r.id)) },
          order: { heldAt: 'ASC', savedAt: 'ASC' },
        })
      : [];
    const examiners = await namesOf(this.dataSource.manager, this.clinicId);
    const byVisit = new Map<string, MeasurementView[]>();
    rows.sort(byCatalogue);
    for (const row of rows) {
      const own = trialViews(
        trials.filter((t) => t.measurementId === row.id),
        examiners,
      );
      byVisit.set(row.visitId, [...(byVisit.get(row.visitId) ?? []), measurementView(row, own)]);
    }
    return byVisit;
  }
}

const PLACE = new Map(MOTIONS.map((known, index) => [known.id, index]));

/** The order of a report: by catalogue, then left before right, active before passive. */
function byCatalogue(a: MeasurementRow, b: MeasurementRow): number {
  return (
    (PLACE.get(a.motion) ?? 0) - (PLACE.get(b.motion) ?? 0) ||
    a.protocol.localeCompare(b.protocol) ||
    a.digit - b.digit ||
    a.side.localeCompare(b.side) ||
    a.mode.localeCompare(b.mode)
  );
}

export function patientView({ id, givenName, familyName, birthDate, sex, occupation }: Patient): PatientView {
  return { id, givenName, familyName, birthDate, sex, occupation };
}

export function episodeView(episode: Episode): EpisodeView {
  const {
    id,
    complaint,
    involvedSide,
    complaintAt,
    openedOn,
    procedureId,
    procedure,
    procedureOn,
    dominantSide,
    wanted,
    precautions,
    revision,
  } = episode;
  return {
    id,
    complaint,
    involvedSide,
    complaintAt,
    openedOn,
    procedureId,
    procedure,
    procedureOn,
    dominantSide,
    wanted,
    precautions: precautions ?? [],
    revision,
  };
}
