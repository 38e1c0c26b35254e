import { randomUUID } from 'node:crypto';
import { rmSync } from 'node:fs';
import { cp, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { NewPatient, NewReading, Role } from '@dial-gauge/contract';
import type { Express } from 'express';
import { pino } from 'pino';
import request, { type Agent, type Test } from 'supertest';
import type { DataSource } from 'typeorm';
import { PrivateDatabase } from '../../../bin/lib/database.mjs';
import { freePort } from '../../../bin/lib/ports.mjs';
import { User } from '../records/identity/entities.js';
import { hashPassword } from '../records/identity/password.js';
import { composeServer, type ComposedServer, type ServerSettings } from '../compose.js';
import { Clinic } from '../records/clinic/entities.js';
import { asSchemaAccount, connect, createDataSource, migrate } from '../database/database.js';
import type { SessionSettings } from '../records/identity/session-store.js';
import type { Services } from '../http/services.js';
import { ENTITIES } from '../http/endpoints/index.js';
import { readSettings } from '../settings.js';

export const TODAY = new Date().toISOString().slice(0, 10);

/** What second factors are kept with, in tests. */
export const KEY = Buffer.alloc(32, 7);

type Changed = Omit<Partial<ServerSettings>, 'session'> & { session?: Partial<SessionSettings> };

/** Connects to a database of tests, and brings its schema up to date. */
async function migrated(database: PrivateDatabase) {
  const settings = readSettings({ ...database.environment(), DIAL_GAUGE_PORT: '1' });
  const dataSource = await connect(createDataSource(settings.database, ENTITIES));
  await asSchemaAccount(settings, dataSource, (schema, account) => migrate(schema, account)).catch(async (error: unknown) => {
    // Nothing is left running where it does not begin.
    await dataSource.destroy();
    await database.stop();
    throw error;
  });
  return { settings, dataSource };
}

let pattern: Promise<string> | undefined;

/** The folder of a database with the schema and nothing in it, stopped: made once, and copied for each that is wanted. */
async function newPattern(): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), 'dial-gauge-pattern-'));
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
  const database = new PrivateDatabase(folder, await freePort());
  await database.start();
  const { dataSource } = await migrated(database);
  await dataSource.destroy();
  await database.stop();
  return folder;
}

/** A throw-away MariaDB of its own, migrated, with the app over it. */
export async function startHarness() {
  const folder = await mkdtemp(join(tmpdir(), 'dial-gauge-test-'));
  await cp(await (pattern ??= newPattern()), folder, { recursive: true });
  const database = new PrivateDatabase(folder, await freePort());
  await database.start();
  const { settings, dataSource } = await migrated(database);
  const lines: string[] = [];
  const logger = pino({ level: 'info' }, { write: (line: string) => void lines.push(line) });
  const composed = new WeakMap<Express, ComposedServer>();
  const appWith = ({ session, ...changed }: Changed = {}): Express => {
    const server = composeServer({
      ...{ dataSource, logger, key: KEY, checksAnswers: true, refusalDelayMs: 0, ...changed },
      session: { ...settings.session, ...session },
    });
    composed.set(server.app, server);
    return server.app;
  };
  return {
    dataSource,
    database,
    settings,
    appWith,
    /** What an app of `appWith` is composed of. */
    servicesOf: (app: Express): Services => composed.get(app)!.services,
    /** A statement of the account of the schema: what the server's own account may not do. */
    asSchema: <T = unknown[]>(sql: string, values: unknown[] = []): Promise<T> =>
      asSchemaAccount(settings, dataSource, (schema) => schema.query<T>(sql, values)),
    /** Everything the app has logged so far. */
    log: () => lines.join(''),
    async stop() {
      await dataSource.destroy().catch(() => {});
      await database.discard();
      await rm(folder, { recursive: true, force: true });
    },
  };
}

export type Harness = Awaited<ReturnType<typeof startHarness>>;

/** A clinic with one person who may sign in. */
export async function addClinic(dataSource: DataSource, clinicId: string, userId: string, email: string, password: string): Promise<void> {
  await dataSource.getRepository(Clinic).insert({ id: clinicId, name: `Clinic of ${email}`, normSet: 'boone-azen-1979' });
  await addUser(dataSource, clinicId, userId, email, password);
}

export async function addUser(
  dataSource: DataSource,
  clinicId: string,
  userId: string,
  email: string,
  password: string,
  role: Role = 'lead',
): Promise<void> {
  await dataSource
    .getRepository(User)
    .insert({ id: userId, clinicId, email, name: email.split('@')[0]!, role, passwordHash: await hashPassword(password) });
}

export const newReading = (over: Partial<NewReading> = {}): NewReading => ({
  id: randomUUID(),
  motion: 'hip.flexion',
  side: 'left',
  mode: 'passive',
  position: 'supine',
  instrument: 'goniometer',
  start: 0,
  end: 107,
  heldAt: new Date().toISOString(),
  ...over,
});

export const newPatient = (over: Partial<NewPatient> = {}): NewPatient => ({
  gender: '',
  fileNumber: '',
  id: randomUUID(),
  givenName: 'Ilka',
  familyName: 'Marsh',
  birthDate: '1970-04-01',
  sex: 'female',
  occupation: 'Potter',
  episode: { id: randomUUID(), complaint: 'stiff left hip', involvedSide: 'left' },
  ...over,
});

/** Two clinics over one database: ours with two examiners, and another; and what a test of the HTTP interface does again and again. */
export async function startClinics() {
  const harness = await startHarness();
  const app = harness.appWith();
  const ours = randomUUID();
  const ids = { ours: randomUUID(), second: randomUUID(), other: randomUUID() };
  await addClinic(harness.dataSource, ours, ids.ours, 'ours@clinic.example', 'ours-password');
  await addUser(harness.dataSource, ours, ids.second, 'second@clinic.example', 'second-password');
  await addClinic(harness.dataSource, randomUUID(), ids.other, 'other@clinic.example', 'other-password');

  const signIn = async (who: string, to: Express = app): Promise<Agent> => {
    const agent = request.agent(to);
    await agent
      .post('/api/session')
      .send({ email: `${who}@clinic.example`, password: `${who}-password` })
      .expect(200);
    return agent;
  };
  const [agent, second, stranger] = [await signIn('ours'), await signIn('second'), await signIn('other')];

  const startVisit = async (by: Agent = agent): Promise<{ visitId: string; episodeId: string; patientId: string }> => {
    const patient = newPatient();
    await by.post('/api/patients').send(patient).expect(200);
    const visitId = randomUUID();
    await by.post(`/api/episodes/${patient.episode.id}/visits`).send({ id: visitId, assessedOn: TODAY }).expect(200);
    return { visitId, episodeId: patient.episode.id, patientId: patient.id };
  };
  const hold = (visitId: string, over: Partial<NewReading> = {}, by: Agent = agent): Test =>
    by.post(`/api/visits/${visitId}/readings`).send(newReading(over));
  /** Somebody else of our clinic, signed in. */
  const somebody = async (role: Role = 'examiner') => {
    const [id, name] = [randomUUID(), `n${randomUUID().slice(0, 8)}`];
    const who = { id, name, email: `${name}@clinic.example`, password: `${name}-password` };
    await addUser(harness.dataSource, ours, id, who.email, who.password, role);
    return { ...who, agent: await signIn(name) };
  };
  /** Signs what is there now. */
  const sign = async (visitId: string, by: Agent = agent, id: string = randomUUID()) => {
    const { body } = await by.get(`/api/visits/${visitId}/judgement`).expect(200);
    return by.post(`/api/visits/${visitId}/signatures`).send({ id, summary: 'As found.', seen: body.seen });
  };
  return { ...harness, harness, app, agent, second, stranger, clinicId: ours, ids, signIn, startVisit, hold, sign, somebody };
}

export type Clinics = Awaited<ReturnType<typeof startClinics>>;
