import { motion } from '../catalogue/index.js';
import { bandAt, COURSES, courseOf, standingIn, type Course } from './index.js';
import { weeksSince } from '../days.js';
import { allowedFor } from '../precaution/index.js';
import { findProcedure, usualPrecautions } from '../procedure/index.js';

/**
 * The milestones entered a second time, apart from the table, as the guides
 * print them: [procedure, motion, week, from, to]; null: no upper figure.
 * Sources as in the table, all from memory.
 */
const PRINTED: readonly (readonly [procedure: string, motion: string, week: number, low: number, high: number | null])[] = [
  ['knee-replacement', 'knee.flexion', 2, 90, null],
  ['knee-replacement', 'knee.flexion', 6, 105, 110],
  ['knee-replacement', 'knee.flexion', 12, 110, 120],
  ['knee-replacement', 'knee.extension', 2, -10, -5],
  ['knee-replacement', 'knee.extension', 6, -5, 0],
  ['knee-replacement', 'knee.extension', 12, 0, null],
  ['cruciate-reconstruction', 'knee.flexion', 1, 90, null],
  ['cruciate-reconstruction', 'knee.flexion', 2, 90, 100],
  ['cruciate-reconstruction', 'knee.flexion', 4, 110, 120],
  ['cruciate-reconstruction', 'knee.flexion', 6, 120, 130],
  ['cruciate-reconstruction', 'knee.extension', 1, 0, null],
  ['hip-replacement-posterior', 'hip.flexion', 12, 100, 110],
  ['hip-replacement-anterior', 'hip.abduction', 6, 20, 30],
  ['ankle-fixation', 'ankle.dorsiflexion', 6, 0, 10],
  ['ankle-fixation', 'ankle.plantarflexion', 6, 20, 30],
  ['ankle-fixation', 'ankle.plantarflexion', 12, 40, null],
];

/** After a cuff repair: [mode, variant, week, from, to]. */
const CUFF = [
  ['shoulder.flexion', 'passive', 2, 60, 90],
  ['shoulder.flexion', 'passive', 6, 90, 120],
  ['shoulder.flexion', 'passive', 9, 130, 155],
  ['shoulder.flexion', 'active', 9, 80, 120],
] as const;

describe('usual courses and usual limits', () => {
  const OPERATED = '2026-01-05';
  const addDays = (day: string, days: number): string => new Date(Date.parse(day) + days * 86_400_000).toISOString().slice(0, 10);

  it('never ask for more than the limits of the same procedure allow: any way, any week', () => {
    let asked = 0;
    for (const course of COURSES)
      for (const mode of ['active', 'passive'] as const)
        for (let days = 0; days <= 7 * 52; days += 1) {
          const ways = motion(course.motion).protocols.filter(
            ({ variant, modes }) => (course.variants?.includes(variant) ?? true) && (modes as readonly string[]).includes(mode),
          );
          const band = bandAt(course, days / 7);
          if (!band || ways.length === 0 || (course.mode !== undefined && course.mode !== mode)) continue;
          asked += 1;
          const on = addDays(OPERATED, days);
          const limits = { precautions: usualPrecautions(findProcedure(course.procedure)!, 'left', OPERATED, on), cautions: [], on };
          const allowed = ways.map(({ id }) => allowedFor({ protocol: id, motion: course.motion, side: 'left', mode }, limits));
          const where = `${course.procedure} ${course.motion} ${mode}, day ${days}: ${band.low} to ${band.high}`;
          if (allowed.every(({ kind }) => kind === 'forbidden')) fail(`${where}: forbidden in every way`);
          for (const one of allowed)
            if (one.kind === 'stop')
              expect(band.high ?? band.low)
                .withContext(where)
                .toBeLessThanOrEqual(one.at);
        }
    expect(asked).toBeGreaterThan(1000);
  });

  it('stop at the limit where the guide goes further: hip flexion after a replacement from behind', () => {
    const course = courseOf('hip-replacement-posterior', { motion: 'hip.flexion', mode: 'passive', position: 'supine' })!;
    expect(bandAt(course, 10)!.low).toBe(90);
    expect(bandAt(course, 12)).toEqual({ low: 100, high: 110 });
  });
});

describe('usual courses', () => {
  it('rise in weeks, and stay in what a body can do', () => {
    for (const c of COURSES) {
      const { min, max } = motion(c.motion).limits;
      c.milestones.forEach((m, at) => {
        if (at > 0) expect(m.week).toBeGreaterThan(c.milestones[at - 1]!.week);
        expect(m.low >= min && (m.high ?? m.low) <= max && m.low <= (m.high ?? m.low))
          .withContext(`${c.procedure} ${c.motion}`)
          .toBeTrue();
      });
      expect(c.source.fromMemory && c.source.cite.length > 10).toBeTrue();
    }
  });

  it('hold what was entered a second time', () => {
    for (const [procedure, id, week, low, high] of PRINTED) {
      const course = COURSES.find((c) => c.procedure === procedure && c.motion === id)!;
      expect(course.milestones).withContext(`${procedure} ${id} week ${week}`).toContain({ week, low, high });
    }
    for (const [id, mode, week, low, high] of CUFF) {
      const course = COURSES.find((c) => c.procedure === 'rotator-cuff-repair' && c.motion === id && c.mode === mode)!;
      expect(course.milestones).toContain({ week, low, high });
    }
  });

  it('ask for the surgeon where the guides do: a knee bent less than 90° six weeks after a replacement, a shoulder less than 100°', () => {
    const asks = COURSES.filter((c) => c.ask).map((c) => `${c.procedure} ${c.motion} ${c.ask!.fromWeek} ${c.ask!.below}`);
    expect(asks).toEqual([
      'knee-replacement knee.flexion 6 90',
      'knee-replacement knee.extension 6 -10',
      'cruciate-reconstruction knee.flexion 4 90',
      'cruciate-reconstruction knee.extension 4 -5',
      'rotator-cuff-repair shoulder.flexion 6 100',
      'rotator-cuff-repair shoulder.externalRotation 6 10',
    ]);
  });

  it('run straight between milestones and say nothing outside them', () => {
    const flexion = courseOf('knee-replacement', { motion: 'knee.flexion', mode: 'active', position: 'supine' })!;
    expect(bandAt(flexion, 4)!.low).toBeCloseTo(97.5, 9);
    expect(bandAt(flexion, 12)).toEqual({ low: 110, high: 120 });
    expect(bandAt(flexion, 13)).toBeUndefined();
    expect(bandAt(flexion, 0)).toBeUndefined();
  });

  it('leave the upper end open before the first guide that states one, and never put it below the lower', () => {
    const course: Course = {
      procedure: 'knee-replacement',
      motion: 'knee.flexion',
      milestones: [
        { week: 1, low: 60, high: null },
        { week: 2, low: 80, high: 85 },
        { week: 4, low: 100, high: null },
        { week: 6, low: 104, high: 110 },
      ],
      confidence: 'low',
      source: { cite: 'made up for this check', fromMemory: false },
    };
    expect(bandAt(course, 1.5)).toEqual({ low: 70, high: null });
    expect(bandAt(course, 2)).toEqual({ low: 80, high: 85 });
    expect(bandAt(course, 4)).toEqual({ low: 100, high: 100 });
    expect(bandAt(course, 5)).toEqual({ low: 102, high: 103.75 });
  });

  it('tell active from passive and one way of measuring from another where the source does', () => {
    const first = (mode: 'active' | 'passive') =>
      courseOf('rotator-cuff-repair', { motion: 'shoulder.flexion', mode, position: 'supine' })!.milestones[0]!.week;
    expect([first('passive'), first('active')]).toEqual([2, 9]);
    expect(courseOf('knee-replacement', { motion: 'hip.flexion', mode: 'active', position: 'supine' })).toBeUndefined();
    expect(courseOf('achilles-repair', { motion: 'ankle.dorsiflexion', mode: 'passive', position: 'prone' })).toBeUndefined();
  });

  it('count weeks with their fraction, over a change of the clocks and a leap day', () => {
    expect(weeksSince('2026-10-20', '2026-11-03')).toBe(2);
    expect(weeksSince('2028-02-22', '2028-03-07')).toBe(2);
    expect(weeksSince('2026-11-03', '2026-11-07')).toBeCloseTo(4 / 7, 12);
    expect(weeksSince('2026-11-10', '2026-11-03')).toBe(-1);
  });

  it('call a reading ahead or behind only when it is clear of the band by its error', () => {
    const band = { low: 90, high: 110 };
    const standing = (value: number) => standingIn(band, value, 6);
    expect([83.9, 84, 90, 100, 116, 116.1].map(standing)).toEqual(['behind', 'on', 'on', 'on', 'on', 'ahead']);
    expect(standingIn({ low: 90, high: null }, 150, 6))
      .withContext('nobody says what is too much')
      .toBe('on');
  });
});
