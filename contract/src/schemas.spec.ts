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

const SCHEMAS: readonly (readonly [name: string, schema: z.ZodType])[] = [
  ...Object.entries(contract)
    .filter((entry): entry is [string, z.ZodType] => entry[1] instanceof z.ZodType)
    .map(([name, schema]) => [name, schema] as const),
  ...Object.values(contract.RESOURCES as Readonly<Record<string, Readonly<Record<string, contract.Route>>>>).flatMap((routes) =>
    Object.entries(routes).flatMap(([name, { body, query, params }]) => [
      [`${name} body`, body] as const,
      [`${name} query`, query] as const,
      [`${name} params`, params] as const,
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

/** Values of a JSON Schema; what it cannot say (a rule between fields) is found out by asking the schema itself. */
function valuesOf(json: Json | undefined, root: JsonObject): fc.Arbitrary<unknown> {
  if (json === undefined || typeof json === 'boolean') return fc.constantFrom('a', 1);
  if (json.$ref) return valuesOf(root.$defs?.[json.$ref.split('/').at(-1)!] ?? {}, root);
  if ('const' in json) return fc.constant(json.const);
  if (json.enum) return fc.constantFrom(...json.enum);
  const either = json.anyOf ?? json.oneOf;
  if (either) return fc.oneof(...either.map((one) => valuesOf(one, root)));
  if (json.allOf) return valuesOf(json.allOf[0], root);
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
  if (pattern) return fc.stringMatching(new RegExp(pattern)).map((text) => text.slice(0, maxLength));
  const most = Math.max(minLength, Math.min(maxLength, minLength + 12));
  return fc.string({ minLength, maxLength: most, unit: fc.constantFrom(...'abc déß漢1') });
}

function numbersOf({ type, minimum, maximum, exclusiveMinimum, exclusiveMaximum, multipleOf }: JsonObject): fc.Arbitrary<number> {
  const min = Math.ceil(minimum ?? (exclusiveMinimum === undefined ? -5 : exclusiveMinimum + 1));
  const max = Math.floor(maximum ?? (exclusiveMaximum === undefined ? min + 100 : exclusiveMaximum - 1));
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
  const fields = Object.fromEntries(Object.entries(properties).map(([name, of]) => [name, valuesOf(of, root)]));
  return fc.record(fields, { requiredKeys: required.filter((name) => name in fields) });
}

const TRIES = 60;
const drawn = (schema: z.ZodType): unknown[] => {
  const json = jsonOf(schema);
  return fc.sample(valuesOf(json, json), { numRuns: TRIES, seed: 7 });
};

describe('every schema of the contract', () => {
  it('gives back what it accepts, through JSON and a second time', () => {
    const never: string[] = [];
    let asked = 0;
    for (const [name, schema] of SCHEMAS) {
      const accepted = drawn(schema).flatMap((value) => {
        const read = schema.safeParse(value);
        return read.success ? [read.data] : [];
      });
      if (accepted.length === 0) never.push(name);
      for (const value of accepted) {
        asked += 1;
        const again = schema.safeParse(JSON.parse(JSON.stringify(value)));
        expect(again.success)
          .withContext(`${name}: ${JSON.stringify(value).slice(0, 300)}`)
          .toBeTrue();
        if (again.success) expect(JSON.stringify(again.data)).withContext(name).toBe(JSON.stringify(value));
      }
    }
    expect(asked).toBeGreaterThan(3000);
    console.log('never', never);
  });

  it('refuses what is missing, of another kind or not known, by its place and in words', () => {
    let asked = 0;
    for (const [name, schema] of SCHEMAS) {
      const json = jsonOf(schema);
      const value = drawn(schema).find((one) => schema.safeParse(one).success);
      if (json.type !== 'object' || typeof value !== 'object' || value === null) continue;
      const wrong: [field: string, value: unknown][] = [
        ...(json.required ?? []).map((field): [string, unknown] => [field, without(value, field)]),
        ...Object.keys(json.properties ?? {}).map((field): [string, unknown] => [field, { ...value, [field]: Symbol.iterator }]),
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

function without(value: object, field: string): object {
  const { [field]: _, ...rest } = value as Record<string, unknown>;
  return rest;
}
