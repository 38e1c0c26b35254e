import { readFileSync } from 'node:fs';
import { DEFAULT_THRESHOLDS, DRILLS } from '@dial-gauge/core';
import fc from 'fast-check';
import * as z from 'zod';
import * as contract from './index.js';

/*
 * Every schema of the contract, from its own JSON Schema: what it accepts comes
 * back from JSON as it was, and what lies outside is refused with a place and a
 * code that a person can be told.
 */

type Json = z.core.JSONSchema._JSONSchema;
type JsonObject = Exclude<Json, boolean>;

type Named = readonly [name: string, schema: z.ZodType];
const EXPORTED = Object.entries(contract as Readonly<Record<string, unknown>>);

const SCHEMAS: readonly Named[] = [
  ...EXPORTED.flatMap(([name, schema]): Named[] => (schema instanceof z.ZodType ? [[name, schema]] : [])),
  ...Object.values(contract.RESOURCES as Readonly<Record<string, Readonly<Record<string, contract.Route>>>>).flatMap((routes) =>
    Object.entries(routes).flatMap(([name, { body, query, params }]): Named[] => [
      [`${name} body`, body],
      [`${name} query`, query],
      [`${name} params`, params],
    ]),
  ),
].filter(([, schema]) => !(schema instanceof z.ZodUndefined));

const jsonOf = (schema: z.ZodType): JsonObject => z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) as JsonObject;

const FORMATS: Readonly<Record<string, fc.Arbitrary<string>>> = {
  uuid: fc.uuid({ version: 4 }),
  date: fc
    .date({ min: new Date('1990-01-01'), max: new Date('2026-11-20'), noInvalidDate: true })
    .map((day) => day.toISOString().slice(0, 10)),
  'date-time': fc.date({ min: new Date('2025-01-01'), max: new Date('2026-11-20'), noInvalidDate: true }).map((at) => at.toISOString()),
  email: fc.constantFrom('wren@saltmarsh.example', 'rook@saltmarsh.example'),
};

/** What fits together where a field names something of the catalogue: a rule between fields is kept by these. */
const KNOWN: Readonly<Record<string, readonly unknown[]>> = {
  motion: ['hip.flexion'],
  protocol: ['hip.flexion/supine'],
  side: ['left', 'right'],
  mode: ['passive'],
  position: ['supine'],
  instrument: ['goniometer'],
  normSet: ['boone-azen-1979'],
};

/** Values of a JSON Schema; what it cannot say (a rule between fields) is found out by asking the schema itself. */
function valuesOf(json: Json | undefined, root: JsonObject): fc.Arbitrary<unknown> {
  if (json === undefined || typeof json === 'boolean') return fc.constantFrom('a', 1);
  if (json.$ref) return valuesOf(root.$defs?.[json.$ref.split('/').at(-1)!] ?? {}, root);
  if ('const' in json) return fc.constant(json.const);
  if (json.enum) return fc.constantFrom(...json.enum);
  const either = json.anyOf ?? json.oneOf ?? typesOf(json);
  if (either) return fc.oneof(...either.map((one) => valuesOf(one, root)));
  return ofType(json, root);
}

/** Of several types, a schema each. */
const typesOf = (json: JsonObject): Json[] | undefined =>
  Array.isArray(json.type) ? (json.type as JsonObject['type'][]).map((type) => ({ ...json, type }) as Json) : undefined;

function ofType(json: JsonObject, root: JsonObject): fc.Arbitrary<unknown> {
  switch (json.type) {
    case 'string':
      return stringsOf(json);
    case 'integer':
    case 'number':
      return numbersOf(json);
    case 'boolean':
      return fc.boolean();
    case 'null':
      return fc.constant(null);
    case 'array':
      return arraysOf(json, root);
    case 'object':
      return objectsOf(json, root);
    default:
      return fc.constantFrom('a', 1);
  }
}

function stringsOf({ format, pattern, minLength = 0, maxLength = 40 }: JsonObject): fc.Arbitrary<string> {
  if (format && FORMATS[format]) return FORMATS[format];
  if (pattern) return fc.stringMatching(new RegExp(pattern)).filter((text) => text.length <= Math.max(maxLength, 80));
  const most = Math.max(minLength, Math.min(maxLength, minLength + 12));
  return fc.string({ minLength, maxLength: most, unit: fc.constantFrom(...'abc déß漢1') });
}

function numbersOf({ type, minimum, maximum, exclusiveMinimum, exclusiveMaximum, multipleOf }: JsonObject): fc.Arbitrary<number> {
  const min = Math.ceil(minimum ?? (typeof exclusiveMinimum === 'number' ? exclusiveMinimum + 1 : -5));
  const max = Math.floor(maximum ?? (typeof exclusiveMaximum === 'number' ? exclusiveMaximum - 1 : min + 100));
  const whole = fc.integer({ min: Math.max(min, -1e6), max: Math.max(min, Math.min(max, 1e6)) });
  return type === 'integer' || multipleOf !== undefined ? whole : fc.oneof(whole, fc.constantFrom(minimum ?? min, maximum ?? max));
}

function arraysOf({ items, prefixItems, minItems = 0, maxItems = 3 }: JsonObject, root: JsonObject): fc.Arbitrary<unknown> {
  if (prefixItems) return fc.tuple(...prefixItems.map((one) => valuesOf(one, root)));
  return fc.array(valuesOf(items as Json, root), { minLength: minItems, maxLength: Math.max(minItems, Math.min(maxItems, 3)) });
}

function objectsOf(
  { properties = {}, required = [], additionalProperties, propertyNames }: JsonObject,
  root: JsonObject,
): fc.Arbitrary<unknown> {
  if (Object.keys(properties).length === 0 && typeof additionalProperties === 'object')
    return fc.dictionary(
      valuesOf(propertyNames ?? { type: 'string', minLength: 1 }, root) as fc.Arbitrary<string>,
      valuesOf(additionalProperties, root),
      {
        maxKeys: 3,
      },
    );
  const fields = Object.fromEntries(
    Object.entries(properties).map(([name, of]) => [name, KNOWN[name] ? fc.constantFrom(...KNOWN[name]) : valuesOf(of, root)]),
  );
  return fc.record(fields, { requiredKeys: required.filter((name) => name in fields) });
}

const example = (name: string): unknown =>
  JSON.parse(readFileSync(new URL(`../../docs/formats/examples/${name}.json`, import.meta.url), 'utf8'));
const ID = '7d444840-9dc0-41d1-b245-5ffdce74fad2';
const reading = {
  ...{ id: ID, motion: 'hip.flexion', side: 'left', mode: 'passive', position: 'supine', instrument: 'goniometer' },
  ...{ end: 107, heldAt: '2026-11-20T09:30:00Z' },
};
/** As a clinic would write it: without what follows from the rest. */
const FOLLOWS = ['doseSource', 'source', 'is', 'traits', 'onlyWhere'];
const ownDrill = {
  ...Object.fromEntries(Object.entries(DRILLS[0]!).filter(([field]) => !FOLLOWS.includes(field))),
  ...{ id: 'own-made-up', version: 1 },
};

/** Where fields have rules between them that are not drawn by chance: one that is known to fit. */
const EXAMPLES: Readonly<Record<string, unknown>> = {
  AssessmentFile: example('hip-and-back'),
  PlanFile: example('knee-plan'),
  ProgramFile: example('programme'),
  ScreenFile: example('squat-check'),
  ScreenInFile: { screen: 'squatCheck', items: [{ item: 'squat', tries: [{ meets: true }] }] },
  Motion: 'hip.flexion',
  NewReading: reading,
  'holdReading body': reading,
  GivenDrill: { drill: 'heel-slide', side: 'left', dose: DRILLS[0]!.dose },
  OwnDrillBody: ownDrill,
  NewDrillVersion: { drill: ownDrill, inUse: true },
  'keepDrill body': { drill: ownDrill, inUse: true },
  Thresholds: DEFAULT_THRESHOLDS,
  PairingCode: '123 456',
  'redeem body': { code: '123 456' },
};

/** Answers that hold what the core computes: the server holds each one against its schema whenever it answers in a test. */
const ANSWERS = /View$|Shape$|^VisitRecord$|^SignedCopy$|^OwnNormSet$/;

/** Files that are read into another form than they are written in. */
const READ_INTO: readonly string[] = ['PlanFile'];

const TRIES = 60;
const drawn = (name: string, schema: z.ZodType): unknown[] => {
  const json = jsonOf(schema);
  return [...(name in EXAMPLES ? [EXAMPLES[name]] : []), ...fc.sample(valuesOf(json, json), { numRuns: TRIES, seed: 7 })];
};

describe('every schema of the contract', () => {
  it('gives back what it accepts, through JSON and a second time', () => {
    const never: string[] = [];
    let asked = 0;
    for (const [name, schema] of SCHEMAS) {
      const accepted = drawn(name, schema).flatMap((value) => {
        const read = schema.safeParse(value);
        return read.success ? [[value, read.data] as const] : [];
      });
      if (accepted.length === 0 && !ANSWERS.test(name)) never.push(name);
      for (const [value, read] of accepted) {
        asked += 1;
        // As it was sent; and as it was taken, where a file is not read into another form.
        for (const sent of READ_INTO.includes(name) ? [value] : [value, read]) {
          const again = schema.safeParse(JSON.parse(JSON.stringify(sent)));
          expect(again.success)
            .withContext(`${name}: ${JSON.stringify(sent).slice(0, 300)}`)
            .toBeTrue();
          if (again.success) expect(JSON.stringify(again.data)).withContext(name).toBe(JSON.stringify(read));
        }
      }
    }
    expect(never).withContext('not one value was drawn that they accept').toEqual([]);
    expect(asked).toBeGreaterThan(3000);
  });

  it('refuses what is missing, of another kind or not known, by its place and in words', () => {
    let asked = 0;
    for (const [name, schema] of SCHEMAS) {
      const json = jsonOf(schema);
      const value = drawn(name, schema).find((one) => schema.safeParse(one).success);
      if (json.type !== 'object' || typeof value !== 'object' || value === null) continue;
      const wrong: [field: string, value: unknown][] = [
        ...(json.required ?? []).map((field): [string, unknown] => [field, without(value, field)]),
        ...Object.entries(json.properties ?? {})
          .filter(([, of]) => !takesAnything(of))
          .map(([field]): [string, unknown] => [field, { ...value, [field]: Symbol.iterator }]),
        ...(json.additionalProperties === false ? [['unknownField', { ...value, unknownField: 1 }] as [string, unknown]] : []),
      ];
      for (const [field, input] of wrong) {
        asked += 1;
        const read = schema.safeParse(input);
        if (read.success) {
          fail(`${name} takes ${field} as ${String((input as Record<string, unknown>)[field])}`);
          continue;
        }
        for (const issue of read.error.issues) expect(issue.code).withContext(`${name} ${field}`).toBeTruthy();
        const problems = contract.explain(read.error);
        expect(problems.some(({ path }) => path === field || path.startsWith(`${field}.`)))
          .withContext(`${name} ${field}: ${JSON.stringify(problems)}`)
          .toBeTrue();
        for (const { message } of problems) expect(message.length).withContext(`${name} ${field}`).toBeGreaterThan(8);
      }
    }
    expect(asked).toBeGreaterThan(500);
  });
});

/** Of what the core computes only that it is there. */
const takesAnything = (of: Json): boolean =>
  typeof of === 'boolean' || Object.keys(of).every((key) => key === 'description' || key === 'default');

const without = (value: object, field: string): object => Object.fromEntries(Object.entries(value).filter(([name]) => name !== field));
