import type { Measurement, Session } from '../assessment.js';
import { errorSourceWords } from '../error/index.js';
import { changeAt, seriesOf } from './index.js';

const visit = (assessedOn: string, end: number, over: Partial<Measurement> = {}): Session => ({
  assessedOn,
  measurements: [
    { motion: 'hip.flexion', side: 'left', mode: 'passive', position: 'supine', instrument: 'goniometer', trials: [{ end }], ...over },
  ],
});

describe('series over visits', () => {
  it('sorts by day and compares the last with the one before and with the first', () => {
    const [series] = seriesOf([visit('2026-11-20', 107), visit('2026-09-01', 95), visit('2026-10-20', 101)]);
    expect(series!.points.map((p) => p.value)).toEqual([95, 101, 107]);
    expect(series!.sinceLast).toEqual(jasmine.objectContaining({ change: 6, verdict: 'within-error' }));
    expect(series!.sinceFirst).toEqual(jasmine.objectContaining({ change: 12, verdict: 'more' }));
    expect(series!.points[0]!.error).toBeCloseTo(1.96 * 3, 9);
  });

  it('knows which motions the last visit holds', () => {
    const both = [visit('2026-10-20', 101), visit('2026-11-20', 30, { motion: 'hip.extension', position: 'prone' })];
    expect(seriesOf(both).map((s) => [s.motion, s.isCurrent])).toEqual([
      ['hip.flexion', false],
      ['hip.extension', true],
    ]);
  });

  it('takes for usual who took most, not who took the last', () => {
    const by = (...who: string[]) =>
      seriesOf(who.map((examiner, at) => visit(`2026-0${at + 1}-20`, 90 + at, { examiner })))[0]!.points.map((p) => p.apart);
    expect(by('Wren', 'Wren', 'Rook')).toEqual([null, null, 'other-examiner']);
    expect(by('Wren', 'Rook', 'Rook')).toEqual(['other-examiner', null, null]);
    // As many by two: whoever took the later of them.
    expect(by('Wren', 'Rook', 'Wren', 'Rook')).toEqual(['other-examiner', null, 'other-examiner', null]);
    expect(by('Wren', 'Rook', 'Rook', 'Wren')).toEqual([null, 'other-examiner', 'other-examiner', null]);
    const [nobody] = seriesOf([visit('2026-01-20', 90), visit('2026-02-20', 91), visit('2026-03-20', 92, { instrument: 'inclinometer' })]);
    expect(nobody!.points.map((p) => p.apart)).toEqual([null, null, 'other-instrument']);
  });

  it('has no change to tell with one reading', () => {
    expect(seriesOf([visit('2026-11-20', 107)])[0]).toEqual(jasmine.objectContaining({ sinceLast: null, sinceFirst: null }));
  });

  it('never joins two positions', () => {
    const both = seriesOf([
      visit('2026-10-20', 30, { motion: 'hip.internalRotation', position: 'sitting' }),
      visit('2026-11-20', 31, { motion: 'hip.internalRotation', position: 'prone' }),
    ]);
    expect(both.map((s) => s.points.length)).toEqual([1, 1]);
  });

  it('says when two instruments were used, and carries both errors', () => {
    const [series] = seriesOf([visit('2026-10-20', 100, { instrument: 'visual' }), visit('2026-11-20', 112)]);
    expect(series!.sinceLast!.caveats.length).toBe(1);
    expect(series!.sinceLast!.mdc).toBeCloseTo(1.96 * Math.hypot(3, 6), 9);
    expect(series!.sinceLast!.verdict).toBe('within-error');
  });

  it('tells the change since any visit from the readings, whoever took them', () => {
    const days = ['2026-08-20', '2026-09-20', '2026-10-20', '2026-11-20'];
    const [series] = seriesOf(days.map((on, i) => visit(on, 90 + 6 * i, { examiner: i % 2 === 0 ? 'Wren' : 'Rook' })));
    expect(days.map((_, at) => changeAt(series!, at)?.mdc ?? 0).map((mdc) => +mdc.toFixed(6))).toEqual([
      +(1.96 * Math.hypot(5, 5)).toFixed(6),
      +(1.96 * Math.hypot(3, 3)).toFixed(6),
      +(1.96 * Math.hypot(5, 5)).toFixed(6),
      0,
    ]);
    expect(changeAt(series!, 0)).toEqual(jasmine.objectContaining({ before: 90, now: 108, verdict: 'more' }));
    expect(changeAt(series!, 1)!.caveats).toEqual([]);
    const { errorSource, ...sinceLast } = series!.sinceLast!;
    expect(errorSourceWords(errorSource)).toContain('two examiners');
    expect(changeAt(series!, 2)).toEqual(sinceLast);
  });

  it('leaves out what has no trial yet', () => {
    expect(seriesOf([visit('2026-11-20', 1, { trials: [] })])).toEqual([]);
  });
});
