import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('../../../', import.meta.url));
const PLACES = ['core/src', 'contract/src', 'files/src', 'server/src', 'web/src/app', 'cli/src'];

/** Fields that tell somebody to do something: what an exercise is done by, what is said at an item, what is advised instead. */
const INSTRUCTS = /\.(cues|setUp|instead)\b|\bitem(\(\))?\.say\b/;

/**
 * Every file that shows an instruction, and how it is held to the limits: by the
 * judge that the file asks itself, by one that asks for it, or because it speaks
 * to nobody in particular.
 */
const HELD: Readonly<Record<string, { readonly asks: RegExp; readonly in?: string } | 'of no person'>> = {
  'core/src/report/patient.ts': { asks: /forbiddenDrill\(drill, side, limits\)/ },
  'core/src/program/drills/define.ts': 'of no person',
  'core/src/exchange/program-report.ts': { asks: /forbiddenDrill\(/, in: 'core/src/program/choose.ts' },
  'cli/src/exchange.ts': { asks: /forbiddenDrill\(/, in: 'core/src/program/choose.ts' },
  'server/src/use-cases/documents/reports.ts': { asks: /forbiddenDrill\(/ },
  'files/src/pdf.ts': { asks: /forbiddenDrill\(/, in: 'core/src/report/patient.ts' },
  'web/src/app/decide/decide.html': { asks: /forbiddenDrill\(/, in: 'server/src/use-cases/treating/programmes.ts' },
  'web/src/app/own/own-page.html': { asks: /one\.rests/ },
  'web/src/app/report/sheet.html': { asks: /forbiddenDrill\(/, in: 'core/src/report/patient.ts' },
  'web/src/app/class/class.html': { asks: /allowedDoing\(item/, in: 'web/src/app/class/class-run.ts' },
  'web/src/app/screen/screen.html': { asks: /allowedDoing\(step\.item/, in: 'web/src/app/screen/screening.ts' },
  'web/src/app/screens/at-home.ts': 'of no person',
  'web/src/app/drills/drills.html': 'of no person',
  'web/src/app/drills/write.html': 'of no person',
  'web/src/app/drills/write.ts': 'of no person',
};

/** Words that are the same and no instruction: another instrument in the place of one. */
const NOT_MEANT = new Set(['web/src/app/measure/record/tools.ts']);

const filesIn = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return filesIn(path);
    return /\.(ts|html)$/.test(entry.name) && !entry.name.endsWith('.spec.ts') ? [path] : [];
  });
const textOf = (path: string): string => readFileSync(join(ROOT, path), 'utf8');

describe('whatever tells a person to do something', () => {
  const showing = PLACES.flatMap((place) => filesIn(join(ROOT, place)))
    .map((path) => relative(ROOT, path))
    .filter((path) => INSTRUCTS.test(textOf(path)) && !NOT_MEANT.has(path));

  it('is known, file by file: a new place has to say how it is held to the limits', () => {
    expect(showing.sort()).toEqual(Object.keys(HELD).sort());
  });

  it('asks the one judge of limits', () => {
    for (const [path, held] of Object.entries(HELD)) {
      if (held === 'of no person') continue;
      expect(held.asks.test(textOf(held.in ?? path)))
        .withContext(path)
        .toBeTrue();
    }
  });

  it('is judged by nobody else: limits are read in the judge alone', () => {
    const others = PLACES.flatMap((place) => filesIn(join(ROOT, place)))
      .map((path) => relative(ROOT, path))
      .filter((path) => !path.startsWith('core/src/precaution/') && /\bcautionSays\(|\bkindOf\(by\)|\bby\.limit\b/.test(textOf(path)));
    expect(others).toEqual([]);
  });
});
