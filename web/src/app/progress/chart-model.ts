import type { EpisodeView, ProgressView } from '@dial-gauge/contract';
import { operationOf } from '@dial-gauge/contract';
import {
  ageOn,
  dayWords,
  findNormSet,
  type IsoDate,
  judgingSet,
  normQuery,
  precautionsFor,
  type ProgressSeries,
  protocolName,
  protocolOfId,
  shortDay,
  weeksSince,
  inWeeks,
  type When,
} from '@dial-gauge/core';
import { differenceInCalendarDays, parseISO } from 'date-fns';

/** A time in which a precaution stood. */
export interface LimitWindow {
  readonly from: IsoDate;
  /** First day without it; null: it still stands. */
  readonly until: IsoDate | null;
  readonly limit: number | null;
  readonly words: string;
}

/** How days become places on an axis: weeks since the operation, otherwise days since the first visit. */
export interface Timeline extends When {
  readonly at: (on: IsoDate) => number;
}

/** What one chart shows: a measurement over the visits with everything it is held against. */
export interface ChartModel {
  readonly main: ProgressSeries;
  /** The same side in the other mode; the other side in the same mode and in the other. */
  readonly twin: ProgressSeries | undefined;
  readonly across: readonly ProgressSeries[];
  readonly norm: { readonly low: number; readonly high: number; readonly name: string } | null;
  readonly operatedOn: IsoDate | null;
  readonly windows: readonly LimitWindow[];
  /** The same motion by another protocol: on which days, and which. */
  readonly elsewhere: readonly { readonly on: IsoDate; readonly words: string }[];
  readonly timeline: Timeline;
}

export function timelineOf(episode: EpisodeView, series: readonly ProgressSeries[]): Timeline {
  const operation = operationOf(episode);
  if (operation) return { ...inWeeks(operation.on), at: (on) => weeksSince(operation.on, on) };
  const first = series.flatMap((s) => s.points.map((p) => p.on)).sort()[0] ?? episode.openedOn;
  return { unit: 'days', at: (on) => differenceInCalendarDays(parseISO(on), parseISO(first)), words: dayWords };
}

const isTwin = (a: ProgressSeries, b: ProgressSeries) => a.protocol === b.protocol && a.digit === b.digit;

export function chartModel(main: ProgressSeries, view: ProgressView, timeline: Timeline): ChartModel {
  const { series, episode, patient } = view;
  const order = view.normSets.flatMap((id) => findNormSet(id, view.ownNormSets) ?? []);
  const last = main.points[main.points.length - 1]!;
  const norm = judgingSet(order, normQuery(main, patient.sex, ageOn(patient.birthDate, last.on)));
  const alike = series.filter((s) => isTwin(s, main) && s.key !== main.key);
  return {
    main,
    twin: alike.find((s) => s.side === main.side),
    across: alike.filter((s) => s.side !== main.side).sort((a, b) => Number(b.mode === main.mode) - Number(a.mode === main.mode)),
    norm: norm ? { ...norm.band, name: norm.set.short } : null,
    operatedOn: operationOf(episode)?.on ?? null,
    windows: precautionsFor(main, episode.precautions).map(({ limit, until, source }) => ({
      from: episode.procedureOn ?? episode.openedOn,
      until,
      limit,
      words: [limit === null ? 'not to be moved' : 'not past here', until && `until ${shortDay(until)}`, source].filter(Boolean).join(', '),
    })),
    elsewhere: main.notJoined.flatMap(({ on, protocol }) => {
      const other = protocolOfId(protocol);
      return on.map((day) => ({ on: day, words: other ? protocolName(other) : protocol }));
    }),
    timeline,
  };
}
