import type { Measurement, Session } from '../assessment.js';
import { assess } from '../finding/index.js';
import type { FindingKind } from '../finding/kinds.js';
import { seriesOf, standsSince } from './index.js';

const PERSON = { birthDate: '1968-08-19', sex: 'female' } as const;
const measurement = (end: number, pain?: number): Measurement => ({
  motion: 'hip.flexion',
  side: 'left',
  mode: 'passive',
  position: 'supine',
  instrument: 'goniometer',
  trials: [{ end }],
  ...(pain === undefined ? {} : { pain }),
});

/** What is said of the last of these readings, and since when. */
function since(kind: FindingKind, ...readings: readonly (readonly [day: string, end: number, pain?: number])[]) {
  const sessions: Session[] = readings.map(([assessedOn, end, pain]) => ({ assessedOn, measurements: [measurement(end, pain)] }));
  const last = sessions[sessions.length - 1]!;
  const previous = sessions[sessions.length - 2];
  const { findings } = assess({ person: PERSON, ...last, ...(previous ? { previous } : {}) });
  const finding = findings.find((one) => one.kind === kind);
  return finding ? standsSince(finding, seriesOf(sessions)) : undefined;
}

// The norms that judge hip flexion here expect 120° (AAOS 1965): 98° and 100° are short of it, 124° is not.
describe('since when a finding stands', () => {
  it('is the first visit after which every reading says the same', () => {
    expect(since('short-of-normal', ['2026-09-01', 124], ['2026-10-01', 98], ['2026-11-01', 100])).toEqual({
      on: '2026-10-01',
      fromFirst: false,
    });
    expect(since('short-of-normal', ['2026-09-01', 98], ['2026-10-01', 124], ['2026-11-01', 100])).toEqual({
      on: '2026-11-01',
      fromFirst: false,
    });
  });

  it('is told as the first measurement where it was so from there on: for how long before, nobody knows', () => {
    expect(since('short-of-normal', ['2026-10-01', 98], ['2026-11-01', 100])).toEqual({ on: '2026-10-01', fromFirst: true });
  });

  it('is told of pain too, and ends where none was noted', () => {
    expect(since('painful', ['2026-09-01', 98, 4], ['2026-10-01', 98], ['2026-11-01', 98, 3], ['2026-11-20', 98, 2])).toEqual({
      on: '2026-11-01',
      fromFirst: false,
    });
  });

  it('is not told from one visit, nor of what one reading alone does not say', () => {
    expect(since('short-of-normal', ['2026-11-01', 98])).toBeNull();
    expect(since('changed', ['2026-10-01', 80], ['2026-11-01', 98])).toBeNull();
  });
});
