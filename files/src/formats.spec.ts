import { readFileSync } from 'node:fs';
import { AssessmentFile } from '@dial-gauge/contract';
import { assess } from '@dial-gauge/core';
import type { Bundle, Resource } from '@medplum/fhirtypes';
import { parse as parseCsv } from 'csv-parse/sync';
import fc from 'fast-check';
import type { FhirContext } from '@dial-gauge/core';
import { exportableOf, exportText as textOf, IMPORTED, importText, type Exported, type Imported } from './formats.js';
import { anyFile } from './testing/documents.js';
import { errorsOf } from './testing/validators.js';

const example = (name: string): AssessmentFile =>
  AssessmentFile.parse(JSON.parse(readFileSync(new URL(`../../docs/formats/examples/${name}.json`, import.meta.url), 'utf8')));
const EXAMPLES = ['hip-and-back', 'what-limits-it'].map(example);

/** A file with every part: two days, an operation, a limit, a converted weight, two screens. The core is tested with it too. */
const FULL = AssessmentFile.parse(JSON.parse(readFileSync(new URL('../../core/src/testing/full-document.json', import.meta.url), 'utf8')));

const exportText = (file: AssessmentFile, to: Exported, context?: FhirContext): string => textOf(exportableOf(file), to, context);
const documentOfFile = (file: AssessmentFile) => exportableOf(file).document;
const roundTrip = (file: AssessmentFile, by: Imported) => importText(exportText(file, by), by);
/** As JSON sees it: what was not said is not there. */
const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value));

describe('open formats', () => {
  for (const by of IMPORTED) {
    it(`give back every fact: ${by}`, () => {
      for (const file of [FULL, ...EXAMPLES]) {
        const back = roundTrip(file, by);
        expect(back)
          .withContext(JSON.stringify(back))
          .toEqual({ ok: true, document: documentOfFile(file) });
      }
    });

    it(`give back every fact of any file, and the same findings: ${by}`, () => {
      let accepted = 0;
      fc.assert(
        fc.property(anyFile, (written) => {
          const parsed = AssessmentFile.safeParse(plain(written));
          if (!parsed.success) return;
          accepted += 1;
          const document = documentOfFile(parsed.data);
          const back = roundTrip(parsed.data, by);
          expect(back).toEqual({ ok: true, document });
          if (!back.ok) return;
          const again = AssessmentFile.parse(back.document);
          expect(plain(assess({ ...again, screens: [] }))).toEqual(plain(assess({ ...parsed.data, screens: [] })));
        }),
        { numRuns: 150 },
      );
      expect(accepted).withContext('files that were accepted').toBeGreaterThan(100);
    });
  }

  it('are RFC 4180 to a second reader, and no cell runs as a formula', () => {
    const rows = parseCsv(exportText(FULL, 'csv'), { relax_column_count: false, record_delimiter: '\r\n' }) as string[][];
    expect(rows[0]).toContain('record');
    expect(rows.filter(([record]) => record === 'trial').length).toBe(5);
    const at = rows[0]!.indexOf('painWhere');
    expect(rows.map((row) => row[at])).toContain(`'-front, "deep"\nat the end`);
    expect(rows.flat().filter((cell) => /^[=+@]/.test(cell) || (cell.startsWith('-') && !/^-\d+(\.\d+)?$/.test(cell)))).toEqual([]);
  });

  it('write arcs in SFTR, and say of everything else why it is in no line', () => {
    const of = (motion: string, end: number, position = 'supine', side = 'left') => ({
      motion,
      side,
      mode: 'passive',
      position,
      instrument: 'goniometer',
      trials: [{ end }],
    });
    const file = AssessmentFile.parse({
      ...{ format: 'dial-gauge/assessment', version: 1, person: { birthDate: '1984-05-02', sex: 'female' }, assessedOn: '2026-11-20' },
      measurements: [
        ...[
          of('hip.extension', 15, 'prone'),
          of('hip.flexion', 125),
          of('hip.internalRotation', 20, 'prone'),
          of('hip.externalRotation', 45, 'prone'),
        ],
        ...[
          of('hip.internalRotation', 25, 'sitting'),
          of('knee.extension', -15),
          of('knee.flexion', 120),
          of('knee.flexion', 130, 'supine', 'right'),
        ],
        { ...of('cervical.lateralFlexion', 20, 'sitting'), mode: 'active' },
        { ...of('cervical.lateralFlexion', 30, 'sitting', 'right'), mode: 'active' },
      ],
    });
    const lines = exportText(file, 'sftr').trimEnd().split('\n');
    // The hip's and the knee's lines as the notation's own examples have them: S:15-0-125, S:0-15-120 (Gerhardt & Russe 1975, from memory).
    expect(lines.filter((line) => !line.startsWith('#'))).toEqual([
      'left hip passive S:15-0-125',
      'left hip passive R(S0):45-0-20',
      'left knee passive S:0-15-120',
      'cervical active F:20-0-30',
    ]);
    expect(lines.filter((line) => line.startsWith('#')).map((line) => line.split(':')[0])).toEqual([
      '# left hip.internalRotation passive sitting 25',
      '# right knee.flexion passive supine 130',
    ]);
  });

  it('are refused line by line, and nothing is half in', () => {
    const problems = (text: string, from: Imported) => {
      const read = importText(text, from);
      return read.ok ? [] : read.problems.map(({ path, message }) => `${path}: ${message}`);
    };
    const csv = exportText(FULL, 'csv');
    const lines = csv.split('\r\n');
    expect(problems(csv.replaceAll('knee.extension', 'knee.bend'), 'csv')[0]).toMatch(/^line \d+, measurements\.0\.motion: /);
    expect(problems(csv.replace('trial,', 'trail,'), 'csv')[0]).toMatch(/^line \d+, column record: "trail" is no record; allowed: /);
    expect(problems(lines[0]!.replace('pain,', 'hurt,') + csv.slice(lines[0]!.length), 'csv')).toContain(
      jasmine.stringMatching(/^line 1, column hurt: is not a column; allowed: record, /) as unknown as string,
    );
    expect(problems(csv.replace(/,-9,/, ',=8-16,'), 'csv')[0]).toMatch(/column end: "=8-16" is not readable; allowed: a figure/);
    expect(problems('a "broken\n', 'csv').length).toBeGreaterThan(0);
    expect(problems(`record,"open\n`, 'csv')[0]).toMatch(/^line 1: /);
    expect(problems('record,constructor,toString\nassessment,1,2', 'csv').length).toBe(2);
    expect(problems(csv.replace(/,3,("?'-front)/, ',4,$1'), 'csv')[0]).toMatch(/says something else than line \d+ of the same number/);
    expect(problems('{', 'json')[0]).toMatch(/^file: is not JSON/);
    expect(problems('{"format":"dial-gauge/assessment","version":2}', 'json')).toContain('version: is not one of the allowed: 1');
    expect(problems('{}', 'fhir')).toEqual(['resourceType: is no Bundle; allowed: a FHIR R4 Bundle']);
    expect(problems(' '.repeat(20_000_001), 'json')[0]).toContain('allowed: at most 20000000');
    const bundle = JSON.parse(exportText(FULL, 'fhir')) as Bundle;
    const strange = bundle.entry!.findIndex(({ resource }) => resource!.resourceType === 'Observation');
    (bundle.entry![strange]!.resource as { code: object }).code = { text: 'Body height' };
    expect(problems(JSON.stringify(bundle), 'fhir')[0]).toBe(
      `entry.${strange}.resource.code: has no code that is known here; allowed: a code of https://dial-gauge.example/fhir/motion or https://dial-gauge.example/fhir/screen-item`,
    );
  });
});

describe('a FHIR bundle', () => {
  it('is valid to two validators, with findings, goals, a programme and a signature', () => {
    const context = {
      ids: { patient: 'b0000000-0000-4000-8000-000000000001', visit: 'a0000000-0000-4000-8000-000000000001' },
      name: { given: 'Osric', family: 'Ferrier' },
      goals: [{ motion: 'knee.flexion' as const, side: 'left' as const, value: 120, words: 'Knee flexion 120°', since: '2026-10-30' }],
      program: { drills: [{ id: 'heel-slide', words: 'Heel slides, 2 × 12' }], recheckOn: '2026-12-04', givenOn: '2026-11-20' },
      signed: { by: 'Wren Tasker', at: '2026-11-20T10:15:00Z' },
    };
    const bundles = [exportText(FULL, 'fhir', context), ...EXAMPLES.map((file) => exportText(file, 'fhir'))].map(
      (text) => JSON.parse(text) as Bundle,
    );
    for (const bundle of bundles) {
      expect(errorsOf(bundle)).toEqual([]);
      for (const { resource } of bundle.entry!) expect(errorsOf(resource!)).withContext(resource!.resourceType).toEqual([]);
    }
    const kinds = new Set(bundles[0]!.entry!.map(({ resource }) => resource!.resourceType));
    for (const kind of [
      'Patient',
      'Encounter',
      'Practitioner',
      'Observation',
      'Device',
      'BodyStructure',
      'Procedure',
      'Condition',
      'Flag',
      'Goal',
      'CarePlan',
      'DiagnosticReport',
      'Provenance',
    ])
      expect(kinds.has(kind as Resource['resourceType']))
        .withContext(kind)
        .toBeTrue();
    expect(new Set(bundles[0]!.entry!.map(({ fullUrl }) => fullUrl)).size).toBe(bundles[0]!.entry!.length);
  });

  it('is valid whatever was written', () => {
    for (const written of fc.sample(anyFile, 40)) {
      const parsed = AssessmentFile.safeParse(plain(written));
      if (parsed.success) expect(errorsOf(JSON.parse(exportText(parsed.data, 'fhir')) as Bundle)).toEqual([]);
    }
  });

  it('would be found wrong by either where it is', () => {
    const bundle = JSON.parse(exportText(FULL, 'fhir')) as Bundle;
    const observation = bundle.entry!.map(({ resource }) => resource!).find(({ resourceType }) => resourceType === 'Observation')!;
    expect(errorsOf({ ...observation, status: 'finished' } as unknown as Resource).length).toBeGreaterThan(0);
    expect(errorsOf({ ...observation, dataAbsentReason: { text: 'x' }, valueInteger: 1 } as unknown as Resource).length).toBeGreaterThan(0);
  });

  it('is final where it was signed and preliminary everywhere else', () => {
    const statuses = (text: string) =>
      new Set(
        (JSON.parse(text) as Bundle).entry!.flatMap(({ resource }) =>
          resource!.resourceType === 'DiagnosticReport' ? [resource.status] : [],
        ),
      );
    expect(statuses(exportText(FULL, 'fhir'))).toEqual(new Set(['preliminary']));
    expect(statuses(exportText(FULL, 'fhir', { signed: { by: 'Wren', at: '2026-11-20T10:15:00Z' } }))).toEqual(new Set(['final']));
  });

  it('calls a value low only against the range that judges it, and never gives a degree as Celsius', () => {
    const text = exportText(FULL, 'fhir');
    const knee = (JSON.parse(text) as Bundle)
      .entry!.map(({ resource }) => resource!)
      .find((one) => one.resourceType === 'Observation' && one.code.text === 'Knee extension');
    expect(knee).toEqual(
      jasmine.objectContaining({
        valueQuantity: { value: -7.5, unit: 'degree', system: 'http://unitsofmeasure.org', code: 'deg' },
      }) as never,
    );
    expect(text).not.toContain('"Cel"');
    expect(text).not.toContain('"°"');
  });
});
