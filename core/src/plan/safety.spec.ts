import { findMotion, motion } from '../catalogue/index.js';
import type { MotionId } from '../terms.js';
import {
  allowedFor,
  cautionOutcome,
  CAUTIONS,
  cautionsFor,
  findProcedure,
  isPast,
  openEnds,
  PROCEDURES,
  usualPrecautions,
  type PlanStep,
  type Precaution,
  type StepState,
} from './index.js';
import { addWeeks, weeksBetween } from '../days.js';

const limit = (id: MotionId, at: number | null, more: Partial<Precaution> = {}): Precaution => ({
  motion: id,
  limit: at,
  until: null,
  source: 'surgeon',
  ...more,
});
const moved = (id: MotionId, mode: 'active' | 'passive' = 'passive', side: 'left' | 'right' = 'left') => ({ motion: id, mode, side });

describe('precautions', () => {
  it('stop, forbid, or say nothing', () => {
    const all = [limit('knee.flexion', 90, { side: 'left' }), limit('knee.extension', null, { mode: 'passive' })];
    expect(allowedFor(moved('knee.flexion'), all, null)).toEqual({ kind: 'stop', at: 90, by: all[0]! });
    expect(allowedFor(moved('knee.flexion', 'passive', 'right'), all, null).kind).toBe('free');
    expect(allowedFor(moved('knee.extension'), all, null).kind).toBe('forbidden');
    expect(allowedFor(moved('knee.extension', 'active'), all, null).kind).toBe('free');
  });

  it('the strictest counts, and one that has run out does not', () => {
    const all = [limit('knee.flexion', 90), limit('knee.flexion', 60, { until: '2026-12-01' })];
    expect(allowedFor(moved('knee.flexion'), all, '2026-11-30')).toEqual(jasmine.objectContaining({ at: 60 }));
    expect(allowedFor(moved('knee.flexion'), all, '2026-12-01')).toEqual(jasmine.objectContaining({ at: 90 }));
    expect(isPast(allowedFor(moved('knee.flexion'), all, '2026-11-30'), 61)).toBeTrue();
    expect(isPast(allowedFor(moved('knee.flexion'), all, '2026-11-30'), 60)).toBeFalse();
  });

  it('hold for other tests of the same movement; a tape cannot be held to degrees and is left out', () => {
    const all = [limit('knee.flexion', 90)];
    expect(allowedFor(moved('muscleLength.proneKneeBend'), all, null)).toEqual(jasmine.objectContaining({ kind: 'stop', at: 90 }));
    expect(allowedFor(moved('distance.heelToButtock'), all, null).kind).toBe('forbidden');
  });

  it('a limit of zero forbids what starts at zero, not what may lack something of it', () => {
    expect(allowedFor(moved('hip.internalRotation'), [limit('hip.internalRotation', 0)], null).kind).toBe('forbidden');
    expect(allowedFor(moved('knee.extension'), [limit('knee.extension', 0)], null).kind).toBe('stop');
    expect(allowedFor(moved('ankle.dorsiflexion'), [limit('ankle.dorsiflexion', 0)], null).kind).toBe('stop');
  });

  it('of ready sets name motions of the catalogue, with a source and a note', () => {
    for (const { id, limits, note, source } of PROCEDURES) {
      expect(note.length).withContext(id).toBeGreaterThan(20);
      expect(source.cite.length).withContext(id).toBeGreaterThan(5);
      for (const { motion: of, limit: at, untilWeek } of limits) {
        expect(findMotion(of)).withContext(`${id} ${of}`).toBeDefined();
        expect(untilWeek).toBeGreaterThan(0);
        if (at !== null) expect(at).toBeLessThanOrEqual(motion(of).limits.max);
      }
    }
    expect(new Set(PROCEDURES.map((p) => p.id)).size).toBe(PROCEDURES.length);
  });

  // Meniscus repair: 0–90 to six weeks (general guidelines, from memory).
  it('are dated from the day of the procedure, and run out', () => {
    const repair = findProcedure('meniscus-repair')!;
    expect(usualPrecautions(repair, 'left', '2026-11-02', '2026-11-23')).toEqual([
      { motion: 'knee.flexion', side: 'left', limit: 90, until: '2026-12-14', source: 'usual after meniscus repair, vertical, to week 6' },
    ]);
    expect(usualPrecautions(repair, 'left', '2026-09-01', '2026-11-23')).toEqual([]);
    const tendon = usualPrecautions(findProcedure('knee-tendon-repair')!, 'right', '2026-11-16', '2026-11-23');
    expect(allowedFor(moved('knee.flexion', 'passive', 'right'), tendon, '2026-11-23')).toEqual(jasmine.objectContaining({ at: 30 }));
    expect(allowedFor(moved('knee.flexion', 'passive', 'right'), tendon, '2026-12-01')).toEqual(jasmine.objectContaining({ at: 60 }));
  });

  it('weeks are calendar weeks, over the change of the clocks and of the year', () => {
    expect(addWeeks('2026-10-20', 1)).toBe('2026-10-27');
    expect(addWeeks('2026-12-28', 1)).toBe('2027-01-04');
    expect(weeksBetween('2026-10-20', '2026-11-02')).toBe(1);
  });
});

describe('caution questions', () => {
  it('end with referring, with care, or with measuring', () => {
    expect(cautionOutcome([])).toBe('measure');
    expect(cautionOutcome(['bone'])).toBe('measure-with-care');
    expect(cautionOutcome(['bone', 'clot'])).toBe('refer');
  });

  it('are those of the regions to be measured', () => {
    const ids = (...regions: Parameters<typeof cautionsFor>[0]) => cautionsFor(regions).map((question) => question.id);
    expect(ids('knee')).toContain('clot');
    expect(ids('knee')).not.toContain('neck-vessels');
    expect(ids('cervical')).toContain('neck-vessels');
    expect(ids('cervical')).not.toContain('clot');
    expect(new Set(CAUTIONS.map((question) => question.id)).size).toBe(CAUTIONS.length);
  });
});

describe('before the patient is turned', () => {
  const step = (mode: 'active' | 'passive', side: 'left' | 'right' = 'left'): PlanStep => ({
    protocol: 'hip.abduction/supine',
    mode,
    side,
    seconds: 20,
  });
  const state = (over: Partial<StepState>): StepState => ({ readings: 1, notDone: false, value: 30, mdc: 8, consistent: null, ...over });
  const PRONE: PlanStep = { protocol: 'hip.extension/prone', mode: 'active', side: 'left', seconds: 20 };

  it('says what is still open in this position', () => {
    const ends = openEnds([step('active'), step('passive'), PRONE], 'supine', ({ mode }) => state({ readings: mode === 'active' ? 1 : 0 }));
    expect(ends.map((end) => end.words)).toEqual(['Passive left hip abduction still open in supine']);
  });

  it('is content with what was said not to be done', () => {
    expect(openEnds([step('passive')], 'supine', () => state({ readings: 0, notDone: true }))).toEqual([]);
  });

  it('points at active beyond passive, and at readings that do not agree', () => {
    const odd = openEnds([step('active'), step('passive')], 'supine', ({ mode }) =>
      state({ value: mode === 'active' ? 45 : 30, consistent: mode === 'active' ? null : false }),
    );
    expect(odd.map((end) => [end.kind, end.words])).toEqual([
      ['odd', 'Active left hip abduction goes 15° further than passive: measure both again'],
      ['odd', 'Passive left hip abduction: the readings do not agree'],
    ]);
    expect(openEnds([step('active'), step('passive')], 'supine', ({ mode }) => state({ value: mode === 'active' ? 36 : 30 }))).toEqual([]);
  });
});
