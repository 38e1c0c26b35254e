import { TestBed } from '@angular/core/testing';
import { progressOf, type Measurement, type Session } from '@dial-gauge/core';
import { Chart } from 'chart.js';
import { progressView } from '../testing/records';
import { chartModel, timelineOf, type ChartModel } from './chart-model';
import { MotionChart } from './motion-chart';
import { tilesOf } from './tiles';

const hip = (mode: 'active' | 'passive', end: number, over: Partial<Measurement> = {}): Measurement => ({
  motion: 'hip.flexion',
  side: 'left',
  mode,
  position: 'supine',
  instrument: 'goniometer',
  trials: [{ end }],
  examiner: 'Wren',
  ...over,
});
const sessions: Session[] = [
  { assessedOn: '2026-10-01', measurements: [hip('passive', 96), hip('active', 88), hip('passive', 120, { side: 'right' })] },
  { assessedOn: '2026-10-29', measurements: [hip('passive', 106), hip('active', 93), hip('passive', 121, { side: 'right' })] },
];

function modelOf(of: readonly Session[], over: Parameters<typeof progressView>[1] = {}): ChartModel {
  const view = progressView(of, over);
  const main = view.series.find((s) => s.side === 'left' && s.mode === 'passive')!;
  return chartModel(main, view, timelineOf(view.episode, view.series));
}

describe('MotionChart', () => {
  const draw = async (model: ChartModel) => {
    const fixture = TestBed.createComponent(MotionChart);
    fixture.componentRef.setInput('model', model);
    document.body.append(fixture.nativeElement as HTMLElement);
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    const chart = Chart.getChart(element.querySelector('canvas')!)!;
    const lines = new Map(
      chart.data.datasets.map((d, at) => [
        `${d.label}${at}`,
        (d.data as { x: number; y: number }[]).map((p) => [p.x, Math.round(p.y * 100) / 100]),
      ]),
    );
    const named = (label: string) => [...lines].filter(([name]) => name.replace(/\d+$/, '') === label).map(([, data]) => data);
    const annotations = chart.options.plugins!.annotation!.annotations as unknown as Record<string, Record<string, unknown>>;
    return { fixture, chart, element, named, annotations };
  };

  it('draws both sides in both modes, the ribbon of the error and the expected band', async () => {
    const { fixture, named } = await draw(modelOf(sessions));
    expect(named('passive')[0]).toEqual([
      [0, 96],
      [28, 106],
    ]);
    expect(named('active')[0]!.map(([, y]) => y)).toEqual([88, 93]);
    expect(named('right, passive')[0]!.map(([, y]) => y)).toEqual([120, 121]);
    expect(named('error').map((line) => line.map(([, y]) => y))).toEqual([
      [90.12, 100.12],
      [101.88, 111.88],
    ]);
    expect(named('norm').length).toBe(2);
    fixture.destroy();
  });

  it('counts weeks after an operation, and draws its day, the limit, the goal and the usual course', async () => {
    const knee = (end: number) => hip('passive', end, { motion: 'knee.flexion' });
    const after: Session[] = [
      { assessedOn: '2026-08-15', measurements: [knee(74)] },
      { assessedOn: '2026-09-12', measurements: [knee(98)] },
    ];
    const { fixture, named, annotations, element } = await draw(
      modelOf(after, {
        episode: {
          procedureId: 'knee-replacement',
          procedureOn: '2026-08-01',
          involvedSide: 'left',
          precautions: [
            { motion: 'knee.flexion', limit: 90, until: '2026-08-22', source: 'surgeon' },
            { motion: 'knee.flexion', limit: 110, until: '2026-09-05', source: 'surgeon' },
          ],
        },
      }),
    );
    expect(named('passive')[0]!.map(([x]) => x)).toEqual([2, 6]);
    expect(named('course')[0]!.map(([x, y]) => [Math.round(x!), y])).toEqual([
      [0, 70],
      [2, 90],
      [6, 105],
      [12, 110],
    ]);
    expect(annotations['operation']!['xMin']).toBe(0);
    expect([annotations['limit0']!['yMin'], annotations['limit0']!['xMax']]).toEqual([90, 3]);
    // Their labels begin at the same corner: one below the other.
    const labelAt = (id: string) => (annotations[id]!['label'] as { yAdjust: number }).yAdjust;
    expect(labelAt('limit1') - labelAt('limit0')).toBeGreaterThan(15);
    expect(element.querySelector('canvas')!.getAttribute('aria-label')).toContain('limit 90° not past here, until 22 Aug, surgeon');
    fixture.destroy();
  });

  it('takes a reading of another examiner out of the line, and keeps it on the chart', async () => {
    const odd: Session = { assessedOn: '2026-10-15', measurements: [hip('passive', 101, { examiner: 'Rook' })] };
    const { fixture, named, element } = await draw(modelOf([...sessions, odd]));
    expect(named('passive')[0]!.map(([, y]) => y)).toEqual([96, 106]);
    expect(named('apart')[0]).toEqual([[14, 101]]);
    expect(element.querySelector('canvas')!.getAttribute('aria-label')).toBe(
      'passive readings, degrees: 1 Oct 96, 15 Oct 101 (another examiner (Rook)), 29 Oct 106; error plus or minus 6; expected 120 to 120.',
    );
    fixture.destroy();
  });

  it('names only days that have room, the last one always', async () => {
    const days = ['2026-10-01', '2026-10-02', '2026-10-28', '2026-10-29'];
    const { fixture, chart } = await draw(modelOf(days.map((assessedOn) => ({ assessedOn, measurements: [hip('passive', 96)] }))));
    const labels = chart.scales['x']!.ticks.map((t) => t.label);
    expect(labels).toEqual(['1 Oct', '29 Oct']);
    fixture.destroy();
  });

  it('lets go of its canvas', async () => {
    const { fixture, element } = await draw(modelOf(sessions));
    const canvas = element.querySelector('canvas')!;
    fixture.destroy();
    expect(Chart.getChart(canvas)).toBeUndefined();
  });
});

describe('tiles', () => {
  const view = progressView(sessions);
  const tiles = tilesOf(progressOf(sessions, { person: view.patient }), timelineOf(view.episode, view.series));

  it('makes one of each side, both on the scale of the motion', () => {
    expect(tiles.map((t) => [t.name, t.value, t.word])).toEqual([
      ['Left hip flexion', '106', 'better'],
      ['Right hip flexion', '121', 'within error'],
    ]);
    expect(tiles[1]!.last.y).withContext('the larger value stands higher').toBeLessThan(tiles[0]!.last.y);
    expect(tiles.map((t) => t.keys.length)).toEqual([2, 1]);
  });
});
