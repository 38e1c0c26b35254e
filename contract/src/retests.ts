import type { DrillMemory } from '@dial-gauge/core';
import { MARKERS } from '@dial-gauge/core/names';
import * as z from 'zod';
import { described } from './described.js';
import { eachOnce } from './each-once.js';
import { EpisodeView } from './episode-view.js';
import { Id, Instrument } from './ids.js';
import { PatientView } from './patients.js';
import { MeasurementView } from './readings.js';
import { OwnErrors } from './reliability.js';
import { ValueChecks } from './value-checks.js';
import { ById, none, nothing, route } from './route.js';
import { VisitView } from './visit-view.js';
import { protocolWay, wayProblem } from './way.js';

export const Marker = z.strictObject({ ...protocolWay, instrument: Instrument }).superRefine((marker, context) => {
  const wrong = wayProblem(marker, marker.instrument);
  if (wrong) context.addIssue({ code: 'custom', path: [wrong.field], message: wrong.message });
});
export type Marker = z.infer<typeof Marker>;

/** Begins a retest with its markers. */
export const NewRetest = z.strictObject({
  id: Id,
  markers: z
    .array(Marker)
    .min(MARKERS.least)
    .max(MARKERS.most)
    .superRefine((markers, context) => {
      eachOnce(markers, ({ protocol, digit, side, mode }) => [protocol, digit, side, mode].join(' '), context, 'is a marker already');
    }),
});
export type NewRetest = z.infer<typeof NewRetest>;

/** What was done before the readings of a round. Round 0 is the baseline and has none. */
export const NewRound = z.strictObject({ id: Id, number: z.int().min(1).max(30), drill: z.string().trim().min(2).max(120) });
export type NewRound = z.infer<typeof NewRound>;

/** One marker read in one round. Another reading of the same replaces it; the first stays on record. */
export const MarkerReading = z.strictObject({
  id: Id,
  round: z.int().min(0).max(30),
  marker: z
    .int()
    .min(0)
    .max(MARKERS.most - 1),
  value: z.number().min(-999).max(9999),
});
export type MarkerReading = z.infer<typeof MarkerReading>;

export const RetestView = z.object({
  id: Id,
  markers: z.array(z.object({ ...protocolWay, instrument: Instrument })),
  rounds: z.array(z.object({ drill: z.string(), values: z.array(z.number().nullable()) })),
  by: z.string(),
  startedAt: z.iso.datetime(),
  finishedAt: z.iso.datetime().nullable(),
});
export type RetestView = z.infer<typeof RetestView>;

/** Retests of a visit, and what helped this patient before. */
export const RetestsView = z.object({
  visit: VisitView,
  patient: PatientView,
  episode: EpisodeView,
  ownErrors: OwnErrors,
  /** Values that the clinic looked up, as far as they are needed here. */
  valueChecks: ValueChecks,
  /** Ways that were measured at this visit: the markers are chosen from them. */
  measured: z.array(MeasurementView),
  retests: z.array(RetestView),
  memory: z.array(described<DrillMemory>(z.looseObject({ drill: z.string() }))),
});
export type RetestsView = z.infer<typeof RetestsView>;

/** Markers read before and after drills within one visit. */
export const RETESTS = {
  retests: route({
    method: 'get',
    path: '/visits/:id/retests',
    keep: true,
    summary: 'Retests of a visit, and what helped this patient before',
    params: ById,
    body: nothing,
    answer: RetestsView,
  }),
  startRetest: route({
    method: 'post',
    path: '/visits/:id/retests',
    summary: 'Begin a retest with its markers',
    params: ById,
    body: NewRetest,
    answer: RetestsView,
  }),
  noteDrill: route({
    method: 'post',
    path: '/retests/:id/rounds',
    summary: 'Note what was done before the next readings',
    params: ById,
    body: NewRound,
    answer: RetestsView,
  }),
  readMarker: route({
    method: 'post',
    path: '/retests/:id/readings',
    summary: 'Save one reading of one marker; answered once it is committed',
    params: ById,
    body: MarkerReading,
    answer: RetestsView,
  }),
  finishRetest: route({
    method: 'post',
    path: '/retests/:id/finish',
    summary: 'Finish a retest',
    params: ById,
    body: none,
    answer: RetestsView,
  }),
} as const;
