import type { HttpTestingController } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { until } from './until';
import { operationOf, type MeasurementView, type ProgressView, type ScreensView, type VisitRecord } from '@dial-gauge/contract';
import { DEFAULT_NORM_ORDER, findNormSet, progressOf, type Session } from '@dial-gauge/core';

export const SOME_ID = '7d444840-9dc0-41d1-b245-5ffdce74fad2';

/** A stored measurement with the readings given; hip flexion, left, active, supine where nothing else is said. */
export function storedMeasurement(over: Partial<MeasurementView>, ...ends: number[]): MeasurementView {
  const trials = ends.map((end) => ({
    id: crypto.randomUUID(),
    start: 0,
    end,
    lower: null,
    scale: null,
    sense: null,
    entered: '',
    simulated: false,
    pastLimit: null,
    clockOff: null,
    corrected: [],
    instrument: 'goniometer' as const,
    heldAt: '2026-11-20T09:00:00Z',
    examiner: 'Wren',
  }));
  return {
    motion: 'hip.flexion',
    side: 'left',
    mode: 'active',
    position: 'supine',
    instrument: 'goniometer',
    trials,
    pain: null,
    painWhere: '',
    endFeel: null,
    substitutions: [],
    notDone: null,
    notDoneWhy: '',
    note: '',
    ...over,
  };
}

/** An open visit of a man of 42 whose right side is involved. */
export function visitRecord(over: Partial<VisitRecord> = {}): VisitRecord {
  return {
    visit: { id: SOME_ID, assessedOn: '2026-11-20', examiner: 'Wren', readings: 0, simulated: 0, number: 2, signed: false },
    patient: { id: SOME_ID, givenName: 'Ilka', familyName: 'Marsh', birthDate: '1984-05-02', sex: 'male', occupation: 'Potter' },
    episode: {
      id: SOME_ID,
      complaint: 'stiff hip',
      involvedSide: 'right',
      complaintAt: null,
      openedOn: '2026-10-01',
      procedureId: null,
      procedure: '',
      procedureOn: null,
      dominantSide: null,
      wanted: '',
      precautions: [],
      dueOn: null,
      revision: 0,
    },
    normSets: [...DEFAULT_NORM_ORDER],
    ownNormSets: [],
    ownErrors: [],
    valueChecks: [],
    sheet: null,
    plan: null,
    revision: 0,
    cautions: null,
    hand: { fist: 8.5, finger: 1.9 },
    measurements: [],
    previous: null,
    odd: [],
    ...over,
  };
}

/** A visit at which nothing was screened. */
export function noScreens(): ScreensView {
  const { visit, patient, episode } = visitRecord();
  return {
    visit,
    patient,
    episode,
    ownErrors: [],
    valueChecks: [],
    cautions: null,
    plan: { screens: [], asked: [] },
    measured: [],
    tries: [],
    before: null,
    settings: { since: '0001-01-01', thresholds: {}, hidden: [], own: [] },
  };
}

/** Progress over sessions of the same patient, the last of them the visit that is open. */
export function progressView(
  sessions: readonly Session[],
  over: Partial<Omit<ProgressView, 'episode'>> & { readonly episode?: Partial<ProgressView['episode']> } = {},
): ProgressView {
  const { visit, patient, episode, normSets, ownNormSets } = visitRecord();
  const here = { ...episode, ...over.episode };
  return {
    visit,
    patient,
    normSets,
    ownNormSets,
    visits: sessions.map((s, i) => ({
      ...visit,
      id: crypto.randomUUID(),
      assessedOn: s.assessedOn,
      number: i + 1,
      readings: s.measurements.length,
    })),
    series: progressOf(sessions, {
      person: patient,
      normOrder: normSets.flatMap((id) => findNormSet(id, []) ?? []),
      involvedSide: here.involvedSide ?? undefined,
      operation: operationOf(here),
    }),
    goals: [],
    screens: [],
    ...over,
    episode: here,
  };
}

/** Nothing came from a page of the person's own; answered as soon as it is asked for. */
export function nothingLogged(http: HttpTestingController): Promise<true> {
  return until(() => {
    TestBed.tick();
    const asked = http.match(({ url }) => url.endsWith('/patient-pages'));
    for (const request of asked) request.flush({ pages: [], logged: [], steps: [] });
    return asked.length > 0 ? (true as const) : null;
  });
}
