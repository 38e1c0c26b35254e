import {
  changeWord,
  endFigure,
  motion,
  rounded,
  say,
  sidedName,
  worseningOf,
  type MeasurementKey,
  type ProgressSeries,
} from '@dial-gauge/core';
import type { Timeline } from './chart-model';

/** One motion and side as a small chart: both modes, the error round the main one, goal, latest figure. */
export interface Tile {
  readonly key: string;
  /** The series a press on it opens. */
  readonly opens: MeasurementKey;
  readonly keys: readonly MeasurementKey[];
  readonly name: string;
  readonly value: string;
  /** "better", "within error" …; what the last reading says against the first. */
  readonly word: string;
  readonly line: string;
  readonly ribbon: string;
  readonly twin: string;
  readonly goalY: number | null;
  readonly last: { readonly x: number; readonly y: number };
}

export const TILE = { width: 132, height: 46, edge: 4 } as const;

/**
 * All motions as small charts over the same days. The sides of a motion share
 * their scale, so that a glance compares them.
 */
export function tilesOf(series: readonly ProgressSeries[], { at }: Timeline): Tile[] {
  const days = series.flatMap((s) => s.points.map((p) => at(p.on)));
  const [first, last] = [Math.min(...days), Math.max(...days)];
  const x = scale(first, last, TILE.edge, TILE.width - TILE.edge);
  const ways = group(series, (s) => `${s.protocol}|${s.digit ?? ''}`);
  return [...ways.values()].flatMap((way) => {
    const reach = way.flatMap((s) => s.points.flatMap((p) => [p.value - p.error, p.value + p.error]));
    const y = scale(Math.min(...reach), Math.max(...reach), TILE.height - TILE.edge, TILE.edge);
    return [...group(way, (s) => s.side)].map(([side, own]) => tile(side, own, (on) => x(at(on)), y));
  });
}

function tile(side: string, own: readonly ProgressSeries[], x: (on: string) => number, y: (value: number) => number): Tile {
  const main = own.find((s) => s.mode === 'passive') ?? own[0]!;
  const twin = own.find((s) => s !== main);
  const about = motion(main.motion);
  const path = (points: readonly (readonly [number, number])[]) => points.map(([px, py]) => `${fixed(px)} ${fixed(py)}`).join('L');
  const usable = main.points.filter((p) => p.apart === null);
  const over = usable.map((p) => [x(p.on), y(p.value + p.error)] as const);
  const under = usable.map((p) => [x(p.on), y(p.value - p.error)] as const).reverse();
  const end = main.points[main.points.length - 1]!;
  const goal = main.goal ? y(main.goal.value) : null;
  const name = sidedName(main.motion, main.side, main.digit);
  const value = endFigure(rounded(end.value, about.unit), about);
  const word = own.some((one) => worseningOf(one)) ? say('worse') : main.sinceFirst ? changeWord(main.sinceFirst) : 'one reading';
  return {
    key: `${main.protocol}|${main.digit ?? ''}|${side}`,
    opens: main.key,
    keys: own.map((s) => s.key),
    name,
    value,
    word,
    line: `M${path(usable.map((p) => [x(p.on), y(p.value)]))}`,
    ribbon: `M${path([...over, ...under])}Z`,
    twin: twin ? `M${path(twin.points.map((p) => [x(p.on), y(p.value)]))}` : '',
    goalY: goal !== null && goal >= 0 && goal <= TILE.height ? goal : null,
    last: { x: x(end.on), y: y(end.value) },
  };
}

const fixed = (value: number): string => value.toFixed(1);

function group<T>(all: readonly T[], by: (one: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const one of all) groups.set(by(one), [...(groups.get(by(one)) ?? []), one]);
  return groups;
}

function scale(from: number, to: number, first: number, last: number): (value: number) => number {
  return to === from ? () => (first + last) / 2 : (value) => first + ((value - from) / (to - from)) * (last - first);
}
