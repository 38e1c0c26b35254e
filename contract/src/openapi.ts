import * as z from 'zod';
import * as account from './account.js';
import * as atHand from './at-hand.js';
import * as audit from './audit.js';
import * as clinic from './clinic.js';
import * as cohort from './cohort.js';
import { shapeOf } from './described.js';
import * as clips from './clips.js';
import * as episodeView from './episode-view.js';
import * as episodes from './episodes.js';
import * as goals from './goals.js';
import * as judgement from './judgement.js';
import * as judgementShape from './judgement-shape.js';
import * as norms from './norms.js';
import * as patients from './patients.js';
import * as persons from './persons.js';
import * as practice from './practice.js';
import * as problem from './problem.js';
import * as progress from './progress.js';
import * as readings from './readings.js';
import * as reliability from './reliability.js';
import * as retests from './retests.js';
import { actOf } from './may.js';
import type { Route } from './route.js';
import { RESOURCES } from './routes.js';
import * as sheet from './sheet.js';
import * as roles from './roles.js';
import * as signing from './signing.js';
import * as staff from './staff.js';
import * as story from './story.js';
import * as visitView from './visit-view.js';
import * as visits from './visits.js';

type Json = Record<string, unknown>;
type Io = 'input' | 'output';

const MODULES = [
  account, atHand, audit, clinic, clips, cohort, episodeView, episodes, goals, judgement, judgementShape, norms, patients, persons, practice, problem, progress, readings, reliability, retests, roles,
  sheet, signing, staff, story, visitView, visits,
]; // prettier-ignore

/** Every schema that has a name of its own, by it. */
function named(): Map<z.ZodType, string> {
  const all = MODULES.flatMap((module) => Object.entries(module)).filter(
    (entry): entry is [string, z.ZodType] => entry[1] instanceof z.ZodType,
  );
  // A name that two modules pass on stands for one schema.
  return new Map(all.map(([name, type]) => [type, name]));
}

const REFERENCE = '#/components/schemas/';

/** Schemas by name, as JSON Schema, referring to one another. */
function components(names: ReadonlyMap<z.ZodType, string>, io: Io): Record<string, Json> {
  const registry = z.registry<{ id: string }>();
  for (const [type, name] of names) registry.add(type, { id: name });
  const { schemas } = z.toJSONSchema(registry, {
    io,
    uri: (id) => `${REFERENCE}${id}`,
    unrepresentable: 'any',
    target: 'draft-2020-12',
    override: ({ zodSchema, jsonSchema }) => {
      const shape = shapeOf(zodSchema);
      if (!shape) return;
      const name = names.get(shape);
      Object.assign(jsonSchema, name ? { $ref: `${REFERENCE}${name}` } : plain(shape, io));
    },
  });
  return Object.fromEntries(Object.entries(schemas).map(([name, schema]) => [name, clean(schema as Json)]));
}

function plain(type: z.ZodType, io: Io): Json {
  return clean(z.toJSONSchema(type, { io, unrepresentable: 'any', target: 'draft-2020-12' }) as Json);
}

function clean({ $schema, $id, ...rest }: Json): Json {
  void [$schema, $id];
  return rest;
}

interface Shelf {
  readonly names: ReadonlyMap<z.ZodType, string>;

  readonly io: Map<string, Io>;
}

/** A schema where it is used: by its name, where it has one. */
function use(type: z.ZodType, io: Io, shelf: Shelf): Json {
  const name = shelf.names.get(type);
  if (name) {
    shelf.io.set(name, io);
    return { $ref: `${REFERENCE}${name}` };
  }
  if (type instanceof z.ZodArray) return { type: 'array', items: use(type.element as z.ZodType, io, shelf) };
  return plain(type, io);
}

const json = (schema: Json) => ({ 'application/json': { schema } });

function operation(tag: string, name: string, route: Route, shelf: Shelf): Json {
  const problem = (description: string) => ({
    description,
    content: { 'application/problem+json': { schema: { $ref: `${REFERENCE}Problem` } } },
  });
  const shapes = (plain(route.params, 'input')['properties'] ?? {}) as Json;
  const query = plain(route.query, 'input') as { properties?: Json; required?: string[] };
  const parameters = [
    ...[...route.path.matchAll(/:(\w+)/g)].map(([, param]) => ({ name: param, in: 'path', required: true, schema: shapes[param!] })),
    ...Object.entries(query.properties ?? {}).map(([param, schema]) => ({
      name: param,
      in: 'query',
      required: query.required?.includes(param) ?? false,
      schema,
    })),
  ];
  const act = actOf(route);
  const hasBody = !(route.body instanceof z.ZodUndefined);
  const inPath = parameters.some((parameter) => parameter.in === 'path');
  return {
    operationId: name,
    tags: [tag],
    summary: route.summary,
    ...(act === 'door' ? {} : { description: `Whoever may ${roles.ALLOWED[act].words}: ${roles.ALLOWED[act].roles.join(', ')}` }),
    ...(parameters.length ? { parameters } : {}),
    ...(hasBody ? { requestBody: { required: true, content: json(use(route.body, 'input', shelf)) } } : {}),
    security: route.open ? [] : [{ session: [] }],
    responses: {
      200: {
        description: 'Done',
        content: route.mediaType ? { [route.mediaType]: { schema: { type: 'string' } } } : json(use(route.answer, 'output', shelf)),
      },
      ...(hasBody ? { 422: problem('A field was refused; `errors` says which, why, and what is allowed') } : {}),
      ...(hasBody && inPath
        ? { 409: problem('Changed by somebody else meanwhile, signed, or an identifier that another record carries') }
        : {}),
      ...(inPath ? { 404: problem('No such record in this clinic') } : {}),
      401: problem(route.open ? 'E-mail or password is wrong' : 'No session, or it has ended'),
      ...(route.open ? {} : { 403: problem('Not something the caller’s role may do, or sent under another name') }),
      503: problem('The database does not answer; nothing was saved'),
    },
  };
}

function make(): Json {
  const names = named();
  const shelf: Shelf = { names, io: new Map() };
  const paths: Record<string, Json> = {};
  for (const [tag, routes] of Object.entries(RESOURCES)) {
    for (const [name, route] of Object.entries(routes) as [string, Route][]) {
      const path = `/api${route.path.replace(/:(\w+)/g, '{$1}')}`;
      paths[path] = { ...paths[path], [route.method]: operation(tag, name, route, shelf) };
    }
  }
  const input = components(names, 'input');
  const output = components(names, 'output');
  shelf.io.set('Problem', 'output');
  return {
    openapi: '3.1.0',
    info: {
      title: 'Dial Gauge',
      version: '1',
      description:
        'Angles are in degrees, counted from zero, positive in the motion’s own direction. Lengths are in cm, forces in N, times in s.',
      license: { name: 'MIT', identifier: 'MIT' },
    },
    servers: [{ url: '/', description: 'Where this document comes from' }],
    tags: Object.keys(RESOURCES).map((name) => ({ name, description: `What the server keeps of: ${name}` })),
    paths,
    components: {
      schemas: reachable(paths, shelf.io, input, output),
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'dial-gauge' } },
    },
  };
}

/** The named schemas that something refers to, each as it goes in or comes out. */
function reachable(paths: Json, io: ReadonlyMap<string, Io>, input: Record<string, Json>, output: Record<string, Json>): Json {
  const found = new Map<string, Json>();
  const look = (of: unknown, as: Io): void => {
    for (const [, name] of JSON.stringify(of).matchAll(/"#\/components\/schemas\/(\w+)"/g)) {
      if (found.has(name!)) continue;
      const way = io.get(name!) ?? as;
      const schema = (way === 'input' ? input : output)[name!]!;
      found.set(name!, schema);
      look(schema, way);
    }
  };
  look(paths, 'output');
  return Object.fromEntries([...found].sort(([a], [b]) => a.localeCompare(b)));
}

let made: Json | undefined;

/** The OpenAPI 3.1 document of the whole API, made once from the list of resources. */
export const openApiDocument = (): Json => (made ??= make());
