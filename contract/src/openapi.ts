import * as z from 'zod';
import { Problem } from './records.js';
import type { Route } from './route.js';
import { ROUTES } from './routes.js';

type Json = Record<string, unknown>;

function schema(type: z.ZodType, io: 'input' | 'output'): Json {
  const { $schema, ...rest } = z.toJSONSchema(type, { io, unrepresentable: 'any', target: 'draft-2020-12' }) as Json;
  void $schema;
  return rest;
}

const json = (content: Json) => ({ 'application/json': { schema: content } });

function operation(name: string, route: Route): Json {
  const problem = (description: string) => ({
    description,
    content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
  });
  const shapes = (schema(route.params, 'input')['properties'] ?? {}) as Json;
  const params = [...route.path.matchAll(/:(\w+)/g)].map(([, param]) => ({
    name: param,
    in: 'path',
    required: true,
    schema: shapes[param!],
  }));
  const hasBody = !(route.body instanceof z.ZodUndefined);
  return {
    operationId: name,
    summary: route.summary,
    ...(params.length ? { parameters: params } : {}),
    ...(hasBody ? { requestBody: { required: true, content: json(schema(route.body, 'input')) } } : {}),
    security: route.open ? [] : [{ session: [] }],
    responses: {
      200: { description: 'Done', content: json(schema(route.answer, 'output')) },
      ...(hasBody ? { 422: problem('A field was refused; `errors` says which, why, and what is allowed') } : {}),
      ...(params.length ? { 404: problem('No such record in this clinic') } : {}),
      401: problem(route.open ? 'E-mail or password is wrong' : 'No session, or it has expired'),
      503: problem('The database does not answer; nothing was saved'),
    },
  };
}

/** The OpenAPI 3.1 document of the whole API, made from the route table. */
export function openApiDocument(): Json {
  const paths: Record<string, Json> = {};
  for (const [name, route] of Object.entries(ROUTES) as [string, Route][]) {
    const path = `/api${route.path.replace(/:(\w+)/g, '{$1}')}`;
    paths[path] = { ...paths[path], [route.method]: operation(name, route) };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Dial Gauge',
      version: '1',
      description: 'Angles are in degrees, counted from zero, positive in the motion’s own direction.',
    },
    paths,
    components: {
      schemas: { Problem: schema(Problem, 'output') },
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'dial-gauge' } },
    },
  };
}
