import { TestBed } from '@angular/core/testing';
import { seriesOf, type Measurement, type Session } from '@dial-gauge/core';
import { Chart } from 'chart.js';
import { SeriesChart, type ChartModel } from './series-chart';

const hip = (mode: 'active' | 'passive', end: number): Measurement => ({
  motion: 'hip.flexion',
  side: 'left',
  mode,
  position: 'supine',
  instrument: 'goniometer',
  trials: [{ end }],
});
const sessions: Session[] = [
  { assessedOn: '2026-10-01', measurements: [hip('passive', 96), hip('active', 88)] },
  { assessedOn: '2026-10-29', measurements: [hip('passive', 106), hip('active', 93)] },
];
const [passive, active] = seriesOf(sessions);

describe('SeriesChart', () => {
  const draw = async (over: Partial<ChartModel> = {}) => {
    const fixture = TestBed.createComponent(SeriesChart);
    fixture.componentRef.setInput('model', {
      main: passive,
      twin: active,
      expected: { low: 109, high: 134 },
      normName: 'Boone & Azen 1979',
      ...over,
    });
    document.body.append(fixture.nativeElement as HTMLElement);
    await fixture.whenStable();
    const chart = Chart.getChart((fixture.nativeElement as HTMLElement).querySelector('canvas')!)!;
    const ys = chart.data.datasets.map((d) => (d.data as { x: number; y: number }[]).map((p) => Math.round(p.y * 100) / 100));
    return { fixture, chart, ys };
  };

  it('draws the readings, the ribbon of their error, the other mode and the expected band', async () => {
    const { fixture, chart, ys } = await draw();
    expect(ys).toEqual([
      [96, 106],
      [90.12, 100.12],
      [101.88, 111.88],
      [88, 93],
      [109, 109],
      [134, 134],
    ]);
    expect((chart.data.datasets[0]!.data as { x: number }[]).map((p) => p.x))
      .withContext('days since the first visit')
      .toEqual([0, 28]);
    expect(chart.data.datasets.map((d) => (d as { fill?: unknown }).fill)).toEqual([false, false, '-1', false, false, '-1']);
    fixture.destroy();
  });

  it('leaves out what there is not', async () => {
    const { fixture, ys } = await draw({ twin: undefined, expected: null });
    expect(ys.length).toBe(3);
    expect((fixture.nativeElement as HTMLElement).querySelectorAll('.legend li').length).toBe(1);
    fixture.destroy();
  });

  it('names only the days on which something was read', async () => {
    const { fixture, chart } = await draw();
    expect(chart.scales['x']!.ticks.map((t) => t.label)).toEqual(['1 Oct', '29 Oct']);
    fixture.destroy();
  });

  it('lets go of its canvas', async () => {
    const { fixture } = await draw();
    const canvas = (fixture.nativeElement as HTMLElement).querySelector('canvas')!;
    fixture.destroy();
    expect(Chart.getChart(canvas)).toBeUndefined();
  });
});
