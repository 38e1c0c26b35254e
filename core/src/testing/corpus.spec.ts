import { readFileSync, writeFileSync } from 'node:fs';
import type { Assessment } from '../assessment.js';
import { assess, RULES_VERSION } from '../finding/index.js';
import { KINDS } from '../finding/kinds.js';
import { hashOf } from './recorded.js';

/**
 * Assessments of made-up people, one a line, drawn once by a seed and kept as
 * they are: every age and either sex, one joint or many, one visit or two,
 * with and without an operation, limits, pain, end feels, substitutions, two
 * sites, fingers and screens.
 */
const ASSESSMENTS = readFileSync(new URL('corpus.jsonl', import.meta.url), 'utf8')
  .trimEnd()
  .split('\n')
  .map((line) => JSON.parse(line) as Assessment);
/** A line each: what a judgement comes to, short enough to be looked through when it has changed. */
const FILE = new URL('corpus.txt', import.meta.url);

describe('a corpus of assessments with their judgement', () => {
  const judged = ASSESSMENTS.map((assessment) => assess(assessment));
  // The version is not part of what it guards.
  const lines = judged.map((judgement, at) => {
    const { findings, measurements } = judgement;
    const short = hashOf(JSON.stringify({ ...judgement, rules: '' })).slice(0, 12);
    return `${at + 1} | ${measurements.length} measurements, ${findings.length} findings | ${short}`;
  });
  const whole = `rules ${RULES_VERSION} | ${hashOf(lines.join('\n'))}`;

  it('stands with the version of the rules: what is judged otherwise has another version', () => {
    // `WRITE=1` before the test command writes it anew, once RULES_VERSION has been raised.
    if (process.env['WRITE']) {
      const [before = ''] = readFileSync(FILE, 'utf8').split('\n');
      const [rules, of] = before.split(' | ');
      if (of !== whole.split(' | ')[1] && rules === `rules ${RULES_VERSION}`) fail('What is judged has changed: raise RULES_VERSION first');
      else writeFileSync(FILE, `${[whole, ...lines].join('\n')}\n`);
    }
    const [stood, ...each] = readFileSync(FILE, 'utf8').trimEnd().split('\n');
    expect(lines.filter((line, at) => line !== each[at])).toEqual([]);
    expect(whole).withContext('What is judged has changed: raise RULES_VERSION, then write the corpus anew with WRITE=1').toBe(stood!);
  });

  it('holds all kinds of findings, and silence too', () => {
    expect(ASSESSMENTS.length).toBe(300);
    const found = new Map<string, number>();
    for (const { kind } of judged.flatMap(({ findings }) => findings)) found.set(kind, (found.get(kind) ?? 0) + 1);
    expect(Object.keys(KINDS).filter((kind) => !found.has(kind))).toEqual([]);
    expect(judged.filter(({ findings }) => findings.length === 0).length).toBeGreaterThan(0);
    expect(judged.flatMap(({ notJudged }) => notJudged).length).toBeGreaterThan(100);
  });
});
