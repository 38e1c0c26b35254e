import { endFigure, formatNumber, motion, rounded, type ProgressSeries, apartShort } from '@dial-gauge/core';
import type { Chart, ChartDataset, Plugin } from 'chart.js';
import type { AnnotationOptions } from 'chartjs-plugin-annotation';
import { faint, type Ink } from '../ui/chart-ink';
import type { ChartModel } from './chart-model';

export type Line = ChartDataset<'line', { x: number; y: number }[]>;

/** The hatched fill of a band; the expected band leans one way, as on the dial, the usual course the other. */
function hatch(colour: string, lean: 1 | -1): CanvasPattern | string {
  const size = 8;
  const tile = document.createElement('canvas');
  tile.width = tile.height = size;
  const context = tile.getContext('2d');
  if (!context) return 'transparent';
  context.strokeStyle = colour;
  context.globalAlpha = 0.35;
  if (lean < 0) {
    context.translate(size, 0);
    context.scale(-1, 1);
  }
  context.beginPath();
  for (const [x, y, toX, toY] of [
    [-2, 10, 10, -2],
    [-2, 2, 2, -2],
    [6, 10, 10, 6],
  ] as const) {
    context.moveTo(x, y);
    context.lineTo(toX, toY);
  }
  context.stroke();
  return context.createPattern(tile, 'repeat') ?? 'transparent';
}

const HIDDEN = { pointRadius: 0, borderWidth: 0 } as const;

/** Readings that take part in the trend are joined; the others stand beside the line. */
const joined = ({ points }: ProgressSeries) => points.filter((p) => p.apart === null);
const apart = ({ points }: ProgressSeries) => points.filter((p) => p.apart !== null);

/** Everything that is drawn as a line or a fill. The first lies on top. */
export function linesOf({ main, twin, across, norm, timeline: { at } }: ChartModel, ink: Ink, span: { min: number; max: number }): Line[] {
  const xy = (points: ProgressSeries['points'], shift = 0) => points.map((p) => ({ x: at(p.on), y: p.value + shift * p.error }));
  const flat = (y: number) => [
    { x: span.min, y },
    { x: span.max, y },
  ];
  const band = (low: Line['data'], high: Line['data'], fill: CanvasPattern | string, edge: Partial<Line>): Line[] => [
    { ...HIDDEN, data: low, fill: false, ...edge },
    { ...HIDDEN, data: high, fill: '-1', backgroundColor: fill, ...edge },
  ];
  const { course } = main;
  const milestones = course?.points ?? [];
  const withHigh = milestones.flatMap(({ on, high }) => (high === null ? [] : [{ x: at(on), y: high }]));
  return [
    {
      label: main.mode,
      data: xy(joined(main)),
      borderColor: ink.petrol,
      backgroundColor: ink.petrol,
      pointRadius: 5,
      borderWidth: 2.5,
      fill: false,
    },
    {
      ...HIDDEN,
      label: 'apart',
      data: xy(apart(main)),
      showLine: false,
      pointRadius: 5,
      pointBorderWidth: 2,
      pointBorderColor: ink.soft,
      pointBackgroundColor: ink.ground,
      fill: false,
    },
    ...(twin
      ? [
          {
            label: twin.mode,
            data: xy(twin.points),
            borderColor: ink.petrol,
            backgroundColor: ink.ground,
            pointRadius: 3,
            borderWidth: 1.5,
            borderDash: [6, 4],
            fill: false,
          } satisfies Line,
        ]
      : []),
    ...across.map((series): Line => ({
      label: `${series.side}, ${series.mode}`,
      data: xy(series.points),
      borderColor: faint(ink.slate, 0.75),
      backgroundColor: ink.ground,
      pointRadius: 2.5,
      borderWidth: 1.25,
      ...(series.mode === main.mode ? {} : { borderDash: [6, 4] }),
      fill: false,
    })),
    ...band(xy(joined(main), -1), xy(joined(main), 1), faint(ink.brass, 0.26), { label: 'error' }),
    ...(norm
      ? band(flat(norm.low), flat(norm.high), hatch(ink.petrol, 1), { borderWidth: 1, borderColor: ink.petrol, label: 'norm' })
      : []),
    ...(course
      ? band(
          milestones.map(({ on, low }) => ({ x: at(on), y: low })),
          withHigh,
          hatch(ink.ochre, -1),
          { borderWidth: 1, borderColor: faint(ink.ochre, 0.6), label: 'course' },
        )
      : []),
  ];
}

/** Goal, limits and the day of the operation. */
export function annotationsOf({ main, windows, operatedOn, timeline: { at } }: ChartModel, ink: Ink): Record<string, AnnotationOptions> {
  const font = { family: ink.words, size: 13, weight: 'normal' as const };
  const label = (content: string, colour: string, position: 'start' | 'center' | 'end') => ({
    display: true,
    content,
    color: colour,
    font,
    backgroundColor: faint(ink.ground, 0.8),
    padding: 3,
    position,
  });
  return {
    ...(main.goal
      ? {
          goal: {
            type: 'line' as const,
            yMin: main.goal.value,
            yMax: main.goal.value,
            borderColor: ink.ink,
            borderWidth: 2,
            borderDash: [2, 4],
            label: { ...label(`goal ${endFigure(rounded(main.goal.value), motion(main.motion))}`, ink.ink, 'start'), yAdjust: -11 },
          },
        }
      : {}),
    ...(operatedOn
      ? {
          operation: {
            type: 'line' as const,
            xMin: at(operatedOn),
            xMax: at(operatedOn),
            borderColor: ink.soft,
            borderWidth: 2,
            label: { ...label('operation', ink.soft, 'start'), rotation: -90, xAdjust: 12 },
          },
        }
      : {}),
    ...Object.fromEntries(
      windows.map((window, index) => [
        `limit${index}`,
        {
          type: 'box' as const,
          xMin: at(window.from),
          ...(window.until ? { xMax: at(window.until) } : {}),
          ...(window.limit === null ? {} : { yMin: window.limit }),
          backgroundColor: faint(ink.ochre, 0.13),
          borderColor: ink.ochre,
          borderWidth: 1,
          borderDash: [2, 3],
          drawTime: 'beforeDatasetsDraw' as const,
          // Each on a line of its own: limits begin at the same place.
          label: {
            ...label(window.words, ink.ochre, 'start'),
            position: { x: 'start' as const, y: 'start' as const },
            yAdjust: index * LABEL_HEIGHT,
          },
        },
      ]),
    ),
  };
}

const LINE_HEIGHT = 15;
/** Of a label with its background. */
const LABEL_HEIGHT = 22;

/** Words at the ends of the lines, readings that stand apart with their error, and how long nothing moved. */
export function marksOf({ main, twin, across, elsewhere, timeline }: ChartModel, ink: Ink): Plugin<'line'> {
  return {
    id: 'marks',
    afterDatasetsDraw: (chart) => {
      const { ctx, chartArea, scales } = chart;
      const x = (on: string) => scales['x']!.getPixelForValue(timeline.at(on));
      const y = (value: number) => scales['y']!.getPixelForValue(value);
      ctx.save();
      ctx.textBaseline = 'middle';
      endLabels(chart, main, twin, across, ink, y);
      ctx.font = `13px ${ink.words}`;
      for (const point of apart(main)) {
        const at = x(point.on);
        const [top, bottom] = [y(point.value + point.error), y(point.value - point.error)];
        ctx.strokeStyle = ink.soft;
        ctx.fillStyle = ink.soft;
        ctx.lineWidth = 1.5;
        stroke(ctx, [at, top, at, bottom], [at - 5, top, at + 5, top], [at - 5, bottom, at + 5, bottom]);
        ctx.textAlign = 'left';
        ctx.fillText(apartShort(point), at + 9, bottom - 4);
      }
      ctx.textAlign = 'center';
      for (const { on, words } of elsewhere) {
        const at = Math.min(Math.max(x(on), chartArea.left + 60), chartArea.right - 60);
        ctx.fillStyle = ink.soft;
        ctx.fillText('×', x(on), chartArea.bottom - 8);
        ctx.fillText(`${words}: not compared`, at, chartArea.bottom - 24);
      }
      if (main.plateau) {
        const { from, to, weeks } = main.plateau;
        const run = main.points.filter((p) => p.on >= from && p.on <= to);
        const under = Math.min(chartArea.bottom - 22, Math.max(...run.map((p) => y(p.value - p.error))) + 10);
        ctx.strokeStyle = ink.ochre;
        ctx.fillStyle = ink.ochre;
        ctx.lineWidth = 2;
        stroke(ctx, [x(from), under - 6, x(from), under], [x(from), under, x(to), under], [x(to), under, x(to), under - 6]);
        ctx.font = `bold 13px ${ink.words}`;
        const words = `no real change for ${formatNumber(Math.round(weeks))} weeks`;
        const half = ctx.measureText(words).width / 2;
        ctx.fillText(words, Math.min((x(from) + x(to)) / 2, chartArea.right - half), under + 12);
      }
      ctx.restore();
    },
  };
}

function endLabels(
  { ctx, chartArea }: Chart,
  main: ProgressSeries,
  twin: ProgressSeries | undefined,
  across: readonly ProgressSeries[],
  ink: Ink,
  y: (value: number) => number,
): void {
  const inDegrees = motion(main.motion).unit === 'deg';
  const named = (series: ProgressSeries) =>
    [series.side === main.side ? '' : series.side, inDegrees ? series.mode : series.side === main.side ? 'now' : '']
      .filter(Boolean)
      .join(' ');
  const ends = [main, ...(twin ? [twin] : []), ...across]
    .map((series) => ({
      text: named(series),
      y: y(series.points[series.points.length - 1]!.value),
      isMain: series === main,
      isOwn: series.side === main.side,
    }))
    .sort((a, b) => a.y - b.y);
  for (let at = 1; at < ends.length; at++) ends[at]!.y = Math.max(ends[at]!.y, ends[at - 1]!.y + LINE_HEIGHT);
  const over = (ends[ends.length - 1]?.y ?? 0) - (chartArea.bottom - 6);
  ctx.textAlign = 'left';
  for (const end of ends) {
    ctx.font = `${end.isMain ? 'bold ' : ''}13px ${ink.words}`;
    ctx.fillStyle = end.isOwn ? ink.petrol : ink.soft;
    ctx.fillText(end.text, chartArea.right + 8, over > 0 ? end.y - over : end.y);
  }
}

function stroke(ctx: CanvasRenderingContext2D, ...lines: readonly (readonly [number, number, number, number])[]): void {
  ctx.beginPath();
  for (const [fromX, fromY, toX, toY] of lines) {
    ctx.moveTo(fromX, fromY);
    ctx.lineTo(toX, toY);
  }
  ctx.stroke();
}
