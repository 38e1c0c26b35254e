import { NewReading } from '@dial-gauge/contract';
import express from 'express';
import { pino } from 'pino';
import request from 'supertest';
import { HttpProblem } from '../shared/problems.js';
import { problemHandler } from './problem-handler.js';

describe('problems', () => {
  const lines: string[] = [];
  const answer = (error: unknown) => {
    const app = express();
    app.get('/', () => {
      throw error;
    });
    app.use(problemHandler(pino({ level: 'error' }, { write: (line: string) => void lines.push(line) })));
    return request(app).get('/');
  };
  beforeEach(() => lines.splice(0));

  it('are always of one shape', async () => {
    const errors = [new HttpProblem(404, 'Not found', 'There is nothing.'), new Error('x'), 'a string', undefined, null, { code: 'EPIPE' }];
    for (const error of errors.filter((e) => e !== undefined && e !== null)) {
      const { body, headers, status } = await answer(error);
      expect(headers['content-type']).toContain('application/problem+json');
      expect(body).toEqual(jasmine.objectContaining({ type: `urn:dial-gauge:problem:${status}`, status }));
      expect(body.title.length).toBeGreaterThan(3);
      expect(body.detail.length).toBeGreaterThan(10);
    }
  });

  it('never tell what went wrong inside', async () => {
    const error = Object.assign(new Error("Duplicate entry 'Marsh' for key"), { sql: 'INSERT INTO patient', parameters: ['Marsh'] });
    const { status, text } = await answer(error);
    expect(status).toBe(500);
    for (const secret of ['Marsh', 'INSERT', '    at ', 'node_modules']) expect(text).not.toContain(secret);
    expect(text).toContain('What you typed stays on the screen');
  });

  it('write down the fault without the values of the query', async () => {
    const error = Object.assign(new Error('gone'), {
      name: 'QueryFailedError',
      driverError: { code: 'PROTOCOL_CONNECTION_LOST' },
      parameters: ['Marsh'],
    });
    await answer(error).expect(503);
    expect(lines.join()).toContain('The database does not answer');
    expect(lines.join()).not.toContain('Marsh');
  });

  for (const code of ['ECONNREFUSED', 'PROTOCOL_CONNECTION_LOST', 'ER_SERVER_SHUTDOWN', 'ETIMEDOUT']) {
    it(`take ${code} for a database that is away, bare or wrapped`, async () => {
      await answer({ code }).expect(503).expect('Retry-After', '2');
      await answer({ driverError: { code } }).expect(503);
    });
  }

  it('take a repeated key for a conflict', async () => {
    const { body } = await answer({ driverError: { code: 'ER_DUP_ENTRY' } }).expect(409);
    expect(body.detail).toContain('Nothing was saved');
  });

  it('name every refused field', async () => {
    const { error } = NewReading.safeParse({ end: 'much' });
    const { body } = await answer(error).expect(422);
    expect(body.errors.length).toBeGreaterThan(3);
    expect(body.errors).toContain({ path: 'end', message: 'is not of the right kind; allowed: number' });
  });

  it('tell a body that is too large from one that cannot be read', async () => {
    await answer({ type: 'entity.too.large', status: 413 }).expect(413);
    await answer({ type: 'entity.parse.failed', status: 400 }).expect(400);
    await answer({ type: 'charset.unsupported', status: 415 }).expect(415);
  });

  it('are written down only where the fault is ours', async () => {
    await answer(new HttpProblem(404, 'Not found', 'There is nothing.')).expect(404);
    expect(lines).toEqual([]);
  });
});
