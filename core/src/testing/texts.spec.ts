import { readFileSync, writeFileSync } from 'node:fs';
import { PUBLISHED_ERRORS, semOf } from '../error/index.js';
import { CAPSULAR_PATTERNS, FROM_THE_GROUND, jointsApart, TELLING_END_FEELS, TWO_JOINT_PAIRS } from '../finding/index.js';
import { CAUTIONS, EXAM_SETS, NOT_A_DIAGNOSIS, STOP_DURING } from '../plan/index.js';

const named = (of: object): string =>
  Object.entries(of)
    .map(
      ([name, value]) =>
        `${name}: ${Array.isArray(value) ? value.join(' ') : typeof value === 'object' ? JSON.stringify(value) : String(value)}`,
    )
    .join(' | ');

/** What is said and asked for safety's sake, and the small tables that rules are made of, a line each. */
const LINES: readonly string[] = [
  NOT_A_DIAGNOSIS,
  STOP_DURING,
  ...CAUTIONS.map(named),
  ...Object.entries(TELLING_END_FEELS).map(([felt, of]) => `${felt} | ${named(of)}`),
  ...EXAM_SETS.map(
    ({ id, name, items }) =>
      `${id} | ${name} | ${items.map(({ protocol, digit }) => [protocol, digit].filter(Boolean).join(' ')).join(', ')}`,
  ),
  ...CAPSULAR_PATTERNS.map(({ joint, words, steps, equalWithin, also, source }) =>
    named({ joint, words, steps: steps.map((step) => step.join('=')).join(' > '), equalWithin, also: also ?? [], source: source.cite }),
  ),
  ...TWO_JOINT_PAIRS.map(named),
  ...PUBLISHED_ERRORS.map((row) => `${named(row)} | SEM ${semOf(row).toFixed(3)}`),
  ...FROM_THE_GROUND.map((from) => `${from} to: ${FROM_THE_GROUND.map((to) => `${to} ${jointsApart(from, to)}`).join(', ')}`),
];

describe('texts and small tables', () => {
  /** Read through by hand when it was written, and whenever it changes; `WRITE=1` before the test command writes it anew. */
  it('are what was read through', () => {
    const file = new URL('texts.txt', import.meta.url);
    if (process.env['WRITE']) writeFileSync(file, LINES.join('\n') + '\n');
    expect(LINES).toEqual(readFileSync(file, 'utf8').trimEnd().split('\n'));
  });
});
