import { assess, type Judgement } from '@dial-gauge/core';
import { createConfig, lintFromString } from '@redocly/openapi-core';
import { FindingShape, JudgementShape, openApiDocument, RESOURCES, type Route } from './index.js';

interface Operation {
  readonly operationId: string;
  readonly security: readonly unknown[];
  readonly tags: readonly string[];
  readonly requestBody?: unknown;
}
const document = openApiDocument() as {
  paths: Record<string, Record<string, Operation>>;
  components: { schemas: Record<string, unknown> };
};
const routes = Object.entries(RESOURCES).flatMap(([resource, all]) =>
  (Object.entries(all) as [string, Route][]).map(([name, route]) => ({ resource, name, route })),
);

describe('OpenAPI document', () => {
  it('holds every route once, under its resource, and asks for a session on all but the doors', () => {
    const operations = Object.values(document.paths).flatMap((path) => Object.values(path));
    expect(operations.map((o) => `${o.tags[0]} ${o.operationId}`).sort()).toEqual(routes.map((r) => `${r.resource} ${r.name}`).sort());
    expect(operations.filter((o) => o.security.length === 0).map((o) => o.operationId)).toEqual([
      'signIn',
      // A code that the server printed; a link that a lead made.
      ...['found', 'openLink', 'join'],
      // The person's own page asks for its own key.
      ...['redeem', 'openPage', 'ownPage', 'logDay'],
    ]);
  });

  it('keeps the rules that a linter recommends', async () => {
    const config = await createConfig({ extends: ['recommended'] });
    const problems = await lintFromString({ source: JSON.stringify(document), absoluteRef: 'openapi.json', config });
    expect(problems.map(({ ruleId, message, location }) => `${ruleId}: ${message} ${location[0]?.pointer ?? ''}`)).toEqual([]);
    const broken = JSON.stringify(document).replace('#/components/schemas/VisitRecord', '#/components/schemas/Nowhere');
    expect((await lintFromString({ source: broken, absoluteRef: 'openapi.json', config })).length)
      .withContext('a broken one is told')
      .toBeGreaterThan(0);
  });

  it('names its schemas, refers to them, and is made once', () => {
    expect(openApiDocument()).toBe(document as never);
    for (const name of ['NewReading', 'VisitRecord', 'FindingShape', 'JudgementView', 'Problem'])
      expect(Object.keys(document.components.schemas)).toContain(name);
    // It grows with the operations there are, and not with how often a schema is used.
    const operations = Object.values(document.paths).flatMap((path) => Object.values(path));
    expect(JSON.stringify(document).length / operations.length).toBeLessThan(3_200);
    const body = JSON.stringify(document.paths['/api/visits/{id}/readings']?.['post']?.requestBody);
    expect(body).toContain('#/components/schemas/NewReading');
    expect(JSON.stringify(document.components.schemas['NewReading'])).toContain('goniometer');
  });

  it('describes findings as they are', () => {
    const trials = [{ end: 60 }, { end: 62 }];
    const way = { motion: 'hip.flexion', mode: 'passive', position: 'supine', instrument: 'goniometer' } as const;
    const judgement: Judgement = assess({
      person: { birthDate: '1970-01-01', sex: 'female' },
      assessedOn: '2026-11-20',
      measurements: [
        { ...way, side: 'left', trials, pain: 4 },
        { ...way, side: 'right', trials: [{ end: 115 }] },
      ],
    });
    expect(judgement.findings.length).toBeGreaterThan(2);
    const strict = FindingShape.strict();
    for (const finding of judgement.findings)
      expect(strict.safeParse(JSON.parse(JSON.stringify(finding))).error)
        .withContext(finding.kind)
        .toBeUndefined();
    expect(JudgementShape.safeParse(JSON.parse(JSON.stringify(judgement))).error).toBeUndefined();
  });
});

describe('every route', () => {
  it('has an address and a method of its own', () => {
    const addresses = routes.map(({ route }) => `${route.method} ${route.path}`);
    expect(new Set(addresses).size).toBe(addresses.length);
  });

  it('bounds every figure that comes in', () => {
    const unbounded = (schema: unknown, path: string): string[] => {
      if (typeof schema !== 'object' || schema === null) return [];
      const { type, ...rest } = schema as Record<string, unknown>;
      const isFigure = type === 'number' || type === 'integer';
      const isBound = ['minimum', 'exclusiveMinimum'].some((k) => k in rest) && ['maximum', 'exclusiveMaximum'].some((k) => k in rest);
      const here = isFigure && !isBound && !('const' in rest) && !('enum' in rest) ? [path] : [];
      return [...here, ...Object.entries(rest).flatMap(([name, value]) => unbounded(value, `${path}.${name}`))];
    };
    const bodies = Object.keys(document.components.schemas).filter((name) =>
      /^(New|Correction|PlanChange|IntakeChange|GoalChange|MarkerReading|StudyReading|HandWidths|NormsChange|Cautions$|Remark$)/.test(name),
    );
    expect(bodies.length).toBeGreaterThan(12);
    const found = bodies.flatMap((name) => unbounded(document.components.schemas[name], name));
    // What these can be depends on the motion and the instrument: `figureProblems` and `Precaution` bound them by it, and are tested so.
    const byMotion = /^(NewReading|Correction|Remark)\.|precautions/;
    expect(found.filter((path) => !byMotion.test(path))).toEqual([]);
  });
});
