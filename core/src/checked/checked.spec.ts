import { assess, type AssessContext } from '../finding/assess.js';
import { errorOf, errorSourceWords, PUBLISHED_ERRORS } from '../error/index.js';
import { saidOf } from '../finding/index.js';
import { checkOf, ERRORS_OF, type Figures, type ValueCheck, type ValueKind } from '../looked-up.js';
import { findNormSet, NORM_SETS } from '../norms/index.js';
import { findProcedure, PROCEDURES, usualPrecautions } from '../procedure/index.js';
import {
  checkedProcedure,
  checkedSet,
  correctionProblems,
  FIGURE_WORDS,
  figuresWords,
  VALUE_TABLES,
  valuesOf,
  type PrintedValue,
} from './index.js';

const all = VALUE_TABLES.flatMap(({ kind, of }) => valuesOf(kind, of)!);
const valueOf = (kind: ValueKind, of: string, test: (value: PrintedValue) => boolean): PrintedValue => valuesOf(kind, of)!.find(test)!;
const lookedUp = ({ kind, of, key, figures }: PrintedValue, corrected: Figures | null = null): ValueCheck => ({
  kind,
  of,
  key,
  held: figures,
  corrected,
  source: 'An invented handbook',
  edition: '3rd ed.',
  page: 'p. 41',
  by: 'Wren',
  on: '2026-12-02',
});

describe('values that can be looked up', () => {
  it('are all norms, published errors and usual limits, each once', () => {
    expect(all.filter(({ kind }) => kind === 'norms').length).toBe(NORM_SETS.reduce((sum, { entries }) => sum + entries.length, 0));
    expect(all.filter(({ kind }) => kind === 'errors').length).toBe(PUBLISHED_ERRORS.length);
    const own = PROCEDURES.filter(({ anyOf }) => !anyOf);
    expect(all.filter(({ kind }) => kind === 'procedure').length).toBe(
      own.reduce((sum, { limits, tellWhen }) => sum + limits.length + tellWhen.length, 0),
    );
    const keys = all.map(({ kind, of, key }) => `${kind} ${of} ${key}`);
    expect(keys.filter((key, at) => keys.indexOf(key) !== at)).toEqual([]);
  });

  it('have a name and bounds for each figure, and stand inside them', () => {
    for (const value of all) {
      expect(correctionProblems(value, value.figures)).withContext(value.key).toEqual([]);
      for (const name of Object.keys(value.figures)) expect(FIGURE_WORDS[name]).withContext(name).toBeDefined();
      expect(value.about).withContext(value.key).not.toBe('');
    }
    expect(valuesOf('norms', 'nothing')).toBeUndefined();
    expect(valuesOf('errors', 'nothing')).toBeUndefined();
    expect(valuesOf('procedure', 'nothing')).toBeUndefined();
    // Put together from others: looked up there.
    expect(valuesOf('procedure', 'hip-replacement')).toBeUndefined();
  });

  it('are corrected only to figures that the source can print', () => {
    const value = valueOf('norms', 'boone-azen-1979', ({ motion }) => motion === 'hip.flexion');
    expect(figuresWords(value.figures, value.allowed)).toMatch(/^mean 1\d\d(\.\d)?°, SD \d+(\.\d)?°$/);
    const wrong = (corrected: Figures) => correctionProblems(value, corrected).map(({ figure, message }) => `${figure} ${message}`);
    expect(wrong({ mean: 120 })).toEqual(['sd is missing; allowed: every figure that the source prints']);
    expect(wrong({ mean: 120, sd: 6, low: 1 })).toEqual(['low is no figure of this value; allowed: mean, sd']);
    expect(wrong({ mean: 999, sd: -1 })).toEqual([
      jasmine.stringMatching(/^mean 999 does not fit; allowed: −?\d+ to \d+°$/),
      jasmine.stringMatching(/^sd −1 does not fit; allowed: 0 to \d+°$/),
    ]);
    const range = all.find(({ figures }) => 'low' in figures)!;
    expect(correctionProblems(range, { low: range.figures['high']!, high: range.figures['low']! })[0]!.message).toContain(
      'is more than “to”',
    );
  });
});

describe('a value that was looked up', () => {
  const hip = valueOf('norms', 'boone-azen-1979', ({ motion, key }) => motion === 'hip.flexion' && key.includes('|20-'));
  const set = findNormSet('boone-azen-1979')!;
  const assessment = {
    person: { birthDate: '1990-03-04', sex: 'male' as const },
    assessedOn: '2026-12-02',
    measurements: [
      {
        motion: 'hip.flexion',
        side: 'left',
        mode: 'active',
        position: 'supine',
        instrument: 'goniometer',
        trials: [{ start: 0, end: 98 }],
      } as never,
    ],
  };
  const judged = (context: AssessContext) => {
    const judgement = assess(assessment, context);
    return { judgement, short: judgement.findings.find(({ kind }) => kind === 'short-of-normal')! };
  };

  it('as it is printed: loses its flag, keeps its figure, and says where it stands', () => {
    const [before, now] = [judged({}), judged({ checks: [lookedUp(hip)] })];
    expect(now.short.expected).toBe(before.short.expected);
    const because = (one: typeof now) => saidOf(one.short).because.find((line) => line.startsWith('Boone'))!;
    expect(because(before)).toContain('(from memory); confidence');
    expect(because(now)).not.toContain('from memory');
    expect(because(now)).toContain('looked up in An invented handbook, 3rd ed., p. 41 by Wren, 2 Dec 2026');
  });

  it('that is printed otherwise: the clinic judges by what it found, and the old figure stays on record', () => {
    const corrected = { mean: hip.figures['mean']! - 5, sd: hip.figures['sd']! };
    const now = judged({ checks: [lookedUp(hip, corrected)] });
    expect(now.short.expected).toBe(corrected.mean);
    const entry = now.judgement.measurements[0]!.norms.find(({ set: id }) => id === set.id)!;
    expect(entry.lookedUp!.programHad).toEqual(hip.figures);
    // Another set, and another value of the same set, are as they were.
    const other = checkedSet(set, [lookedUp(hip, corrected)]);
    expect(other.entries.filter((one, at) => one !== set.entries[at]).length).toBe(1);
    expect(checkedSet(findNormSet('aaos-1965')!, [lookedUp(hip, corrected)])).toBe(findNormSet('aaos-1965')!);
  });

  it('has to be looked up anew where the program holds another figure since', () => {
    const old = { ...lookedUp(hip, { mean: 90, sd: 4 }), held: { mean: 1, sd: 1 } };
    expect(checkOf([old], hip)).toBeNull();
    expect(judged({ checks: [old] }).short.expected).toBe(judged({}).short.expected);
  });

  it('of an error is used in every place that asks for it', () => {
    const row = PUBLISHED_ERRORS.find(({ forEveryone, protocol }) => forEveryone && protocol === undefined)!;
    const value = valuesOf('errors', ERRORS_OF)!.find(({ key }) => key.startsWith(row.motions.join('+')) && key.includes(row.cite))!;
    const query = { motion: row.motions[0]!, instrument: row.instruments[0]! };
    const before = errorOf(query, row.examiners === 'same');
    expect(errorSourceWords(before.source)).toContain('(from memory)');
    const amount = row.amount * 2;
    const now = errorOf(query, row.examiners === 'same', { checks: [lookedUp(value, { amount })] });
    expect(now.sem).toBeCloseTo(before.sem * 2, 10);
    expect(errorSourceWords(now.source)).toContain('looked up in An invented handbook');
    expect(errorSourceWords(now.source)).not.toContain('memory');
  });

  it('of a procedure changes what is proposed after it, also where it is not known which it was', () => {
    const meniscus = findProcedure('meniscus-repair')!;
    const limit = valueOf(
      'procedure',
      'meniscus-repair',
      ({ figures }) => figures['limit'] !== undefined && figures['untilWeek'] !== undefined,
    );
    const checks = [lookedUp(limit, { limit: limit.figures['limit']! - 10, untilWeek: limit.figures['untilWeek']! + 2 })];
    const at = checkedProcedure(meniscus, checks).limits.findIndex(({ lookedUp: one }) => one);
    const found = usualPrecautions(checkedProcedure(meniscus, checks), 'left', '2026-11-30', '2026-12-02')[at]!;
    expect(found.limit).toBe(limit.figures['limit']! - 10);
    expect(found.source).toContain(`to week ${limit.figures['untilWeek']! + 2} (looked up in An invented handbook`);
    expect(usualPrecautions(meniscus, 'left', '2026-11-30', '2026-12-02')[at]!.source).toContain('from memory');
    const either = findProcedure('meniscus-repair-unknown')!;
    expect(checkedProcedure(either, checks).limits.filter(({ lookedUp: one }) => one).length).toBe(1);
    expect(checkedProcedure(either, checks).limits.length).toBe(either.limits.length);
  });

  it('of what the surgeon is told changes from where on', () => {
    const tell = valueOf('procedure', 'knee-replacement', ({ key, motion }) => key.startsWith('tell') && motion === 'knee.flexion');
    const knee = (checks: readonly ValueCheck[]) =>
      assess(
        {
          ...assessment,
          involvedSide: 'left',
          procedure: { id: 'knee-replacement', on: '2026-10-01' },
          measurements: [
            {
              motion: 'knee.flexion',
              side: 'left',
              mode: 'active',
              position: 'supine',
              instrument: 'goniometer',
              trials: [{ start: 0, end: 95 }],
            } as never,
          ],
        },
        { checks },
      ).findings.flatMap(({ steps }) => steps.filter(({ step }) => step === 'told')).length;
    expect(tell.figures).toEqual({ fromWeek: 6, below: 90 });
    expect(knee([])).toBe(0);
    expect(knee([lookedUp(tell, { fromWeek: 6, below: 100 })])).toBeGreaterThan(0);
    expect(knee([lookedUp(tell, { fromWeek: 30, below: 100 })])).toBe(0);
  });
});
