import { randomUUID } from 'node:crypto';
import type { FileView, ReportView } from '@dial-gauge/contract';
import { importText } from '@dial-gauge/files';
import { assess, type Block } from '@dial-gauge/core';
import { AssessmentFile, assessmentOf, normSetsOf, screenDoneOf } from '@dial-gauge/contract';
import type { Bundle } from '@medplum/fhirtypes';
import { parse as parseCsv } from 'csv-parse/sync';
import ICAL from 'ical.js';
import request, { type Agent } from 'supertest';
import readability from 'text-readability';
import { readPdf } from '../../../../files/src/testing/pdf-text.js';
import { errorsOf } from '../../../../files/src/testing/validators.js';
import { DEMO_USER } from '../../demo/clinic.js';
import { seedDemo } from '../../demo/seed.js';
import { addClinic, newPatient, startClinics, startHarness, TODAY, type Clinics, type Harness } from '../../testing/harness.js';

const bytesOf = ({ base64 }: FileView): Buffer => Buffer.from(base64, 'base64');

/** Words of a page for the person, each heading and line a sentence of its own. */
function proseOf({ report }: ReportView): string {
  const lines = (block: Block): readonly string[] => {
    switch (block.kind) {
      case 'heading':
      case 'paragraph':
        return [block.text];
      case 'list':
        return block.items;
      case 'drill':
        return [block.title, block.dose, ...block.cues, block.stop];
      case 'facts':
      case 'table':
      case 'picture':
        return fail('no table or photograph on this page for the person') as never;
    }
  };
  return [report.title, ...report.blocks.flatMap(lines)].map((line) => (/[.!?]$/.test(line) ? line : `${line}.`)).join(' ');
}

/** Words of the trade that say nothing to the person. */
const JARGON =
  /flexion|extension|abduction|adduction|rotation|pronation|supination|passive|active|lateral|deviation|\bnorm|MDC|SEM|error|deficit|excursion|°/i;

describe('pages about the people of the demo', () => {
  let harness: Harness;
  let agent: Agent;
  let visits: { id: string; name: string }[];
  beforeAll(async () => {
    harness = await startHarness();
    await seedDemo(harness.dataSource, new Date());
    agent = request.agent(harness.appWith());
    await agent.post('/api/session').send({ email: DEMO_USER.email, password: DEMO_USER.password }).expect(200);
    visits = await harness.dataSource.query(
      'SELECT v.id, p.family_name AS name FROM visit v JOIN episode e ON e.id = v.episode_id JOIN patient p ON p.id = e.patient_id WHERE e.ended_on IS NULL',
    );
  });
  afterAll(() => harness.stop());

  const last = async (name: string): Promise<string> =>
    (await agent.get(`/api/caseload?find=${name}`).expect(200)).body.rows[0].lastVisit.id;
  const page = async (id: string, kind: string): Promise<ReportView> =>
    (await agent.get(`/api/visits/${id}/report?for=${kind}&locale=en-GB`).expect(200)).body;
  const pdf = async (id: string, kind: string, paper = 'a4') =>
    readPdf(bytesOf((await agent.get(`/api/visits/${id}/report/pdf?for=${kind}&paper=${paper}`).expect(200)).body));
  const file = async (id: string, to: string): Promise<FileView> => (await agent.get(`/api/visits/${id}/export?to=${to}`).expect(200)).body;

  it('read as easily as grade 6 or less, at every visit of everybody, without a word of the trade', async () => {
    expect(visits.length).toBeGreaterThan(12);
    for (const { id, name } of visits) {
      const text = proseOf(await page(id, 'patient'));
      // Flesch–Kincaid; it needs three sentences to say anything.
      expect(text.split('. ').length).withContext(name).toBeGreaterThanOrEqual(3);
      expect(readability.fleschKincaidGrade(text)).withContext(`${name}: ${text}`).toBeLessThanOrEqual(6);
      expect(JARGON.exec(text)?.[0]).withContext(`${name}: ${text}`).toBeUndefined();
    }
  });

  it('are one page for the referrer, on either paper, with what was found, and a draft', async () => {
    for (const { id, name } of visits) {
      const { report } = await page(id, 'referrer');
      const found = report.blocks.flatMap((block) => (block.kind === 'table' ? block.rows.map((row) => row[0]!) : []));
      for (const paper of ['a4', 'letter']) {
        const { pages } = await pdf(id, 'referrer', paper);
        expect(pages.length).withContext(`${name}, ${paper}`).toBe(1);
        const text = pages[0]!.replace(/\s+/g, ' ');
        // Two of the demo are signed; all others say on their page that they are not.
        expect(text.includes('DRAFT, not signed')).withContext(name).toBe(report.draft);
        expect(report.draft).withContext(name).toBe(!['Oare', 'Strake'].includes(name));
        for (const words of found) expect(text).withContext(name).toContain(words.replace(/\s+/g, ' ').slice(0, 12));
      }
    }
  });

  it('hold all evidence where all is asked for: every finding and every reading', async () => {
    const id = await last('Linnet');
    const { judgement } = (await agent.get(`/api/visits/${id}/judgement`).expect(200)).body;
    const { report } = await page(id, 'evidence');
    const strong = report.blocks.filter((block) => block.kind === 'paragraph' && block.tone === 'strong');
    expect(strong.length).toBe(judgement.findings.length);
    const readings = report.blocks.find((block) => block.kind === 'table' && block.head.length === 7 && block.head[2] === 'Trials');
    expect(readings?.kind === 'table' && readings.rows.length).toBe(judgement.measurements.length);
    expect((await pdf(id, 'evidence')).pages.length).toBeGreaterThan(2);
  });

  it('show the person what to do, and put its days into a calendar without a name in it', async () => {
    const id = await last('Hathersage');
    const { report } = await page(id, 'patient');
    expect(report.blocks.filter(({ kind }) => kind === 'drill').length).toBe(3);
    const text = bytesOf(await file(id, 'ics')).toString();
    const events = new ICAL.Component(ICAL.parse(text) as never).getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
    expect(events.length).toBe(4);
    expect(text).not.toMatch(/Corin|Hathersage/);
    const refusal = await agent.get(`/api/visits/${await last('Linnet')}/export?to=ics`).expect(409);
    expect(refusal.body.detail).toContain('No programme was given yet');
  });

  it('come into another clinic as FHIR, with the same findings there', async () => {
    await addClinic(harness.dataSource, randomUUID(), randomUUID(), 'fresh@clinic.example', 'fresh-password');
    const fresh = request.agent(harness.appWith());
    await fresh.post('/api/session').send({ email: 'fresh@clinic.example', password: 'fresh-password' }).expect(200);
    for (const name of new Set(visits.map((one) => one.name))) {
      const id = await last(name);
      const ids = { patient: randomUUID(), episode: randomUUID(), visit: randomUUID(), before: randomUUID() };
      const { base64, fileName } = await file(id, 'fhir');
      const body = { ids, givenName: 'Taken', familyName: `Over ${name}`, complaint: 'as in the letter', fileName, base64 };
      for (let twice = 0; twice < 2; twice += 1) await fresh.post('/api/takeovers').send(body).expect(200);
      const findings = async (by: Agent, visit: string) => {
        const { judgement } = (await by.get(`/api/visits/${visit}/judgement`).expect(200)).body;
        return judgement.findings.map(
          (f: { kind: string; motion: string; side: string; mode: string; value: number; severity: string }) => [
            f.kind,
            f.motion,
            f.side,
            f.mode,
            f.value,
            f.severity,
          ],
        );
      };
      expect(await findings(fresh, ids.visit))
        .withContext(name)
        .toEqual(await findings(agent, id));
    }
    const wrong = {
      ids: { patient: randomUUID(), episode: randomUUID(), visit: randomUUID(), before: randomUUID() },
      givenName: 'a',
      familyName: 'b',
      complaint: 'c',
      fileName: 'x.json',
    };
    const { body } = await fresh
      .post('/api/takeovers')
      .send({ ...wrong, base64: Buffer.from('{"resourceType":"Patient"}').toString('base64') })
      .expect(422);
    expect(body.errors).toEqual([{ path: 'resourceType', message: 'is no Bundle; allowed: a FHIR R4 Bundle' }]);
    await fresh.get(`/api/patients/${wrong.ids.patient}`).expect(404);
  });

  it('are valid FHIR to two validators, and come back from FHIR, CSV and JSON with the same findings', async () => {
    const newest = new Map<string, string>();
    for (const { name } of visits) newest.set(name, await last(name));
    for (const [name, id] of newest) {
      const fhir = await file(id, 'fhir');
      expect(fhir.fileName).toMatch(/^[\p{L}\p{N}-]+-\d{4}-\d\d-\d\d-visit\.fhir\.json$/u);
      expect(errorsOf(JSON.parse(bytesOf(fhir).toString()) as Bundle))
        .withContext(name)
        .toEqual([]);
      const { judgement } = (await agent.get(`/api/visits/${id}/judgement`).expect(200)).body;
      for (const format of ['fhir', 'csv', 'json'] as const) {
        const back = importText(bytesOf(await file(id, format)).toString(), format);
        if (!back.ok) return fail(`${name}, ${format}: ${JSON.stringify(back.problems)}`);
        const again = AssessmentFile.parse(back.document);
        const screens = again.screens.map((one) => screenDoneOf(one, again.assessedOn));
        const { findings } = assess({ ...assessmentOf(again), screens }, { normSets: normSetsOf(again), ranking: again.ranking });
        const told = (all: readonly { kind: string; motion: string; side: string; mode: string; value: number }[]) =>
          all.map(({ kind, motion, side, mode, value }) => [kind, motion, side, mode, value]);
        expect(told(findings)).withContext(`${name}, ${format}`).toEqual(told(judgement.findings));
      }
    }
  });
});

describe('pages that go out', () => {
  let clinics: Clinics;
  beforeAll(async () => (clinics = await startClinics()), 120_000);
  afterAll(() => clinics.stop());

  const textOf = async (id: string) => {
    const { body } = await clinics.agent.get(`/api/visits/${id}/report/pdf?for=referrer`).expect(200);
    return (await readPdf(bytesOf(body as FileView))).pages.join(' ').replace(/\s+/g, ' ');
  };
  const statusOf = async (id: string) => {
    const { body } = await clinics.agent.get(`/api/visits/${id}/export?to=fhir`).expect(200);
    const bundle = JSON.parse(bytesOf(body as FileView).toString()) as Bundle;
    return bundle.entry!.flatMap(({ resource }) => (resource?.resourceType === 'DiagnosticReport' ? [resource.status] : []));
  };

  it('prints names of other scripts, and refuses in words what no typeface has', async () => {
    const named = async (familyName: string) => {
      const patient = newPatient({ familyName });
      await clinics.agent.post('/api/patients').send(patient).expect(200);
      const id = randomUUID();
      await clinics.agent.post(`/api/episodes/${patient.episode.id}/visits`).send({ id, assessedOn: TODAY }).expect(200);
      await clinics.hold(id).expect(200);
      return id;
    };
    for (const name of ['王', '김', 'さくら', 'สมชาย', 'शर्मा']) {
      const pdf = (await clinics.agent.get(`/api/visits/${await named(name)}/report/pdf?for=referrer`).expect(200)).body as FileView;
      const { pages } = await readPdf(bytesOf(pdf));
      if (name !== 'शर्मा') expect(pages.join(' ')).toContain(name);
    }
    const id = await named('Marsh 👍');
    const { body } = await clinics.agent.get(`/api/visits/${id}/report/pdf?for=referrer`).expect(422);
    expect(body.detail).toContain('No typeface here has “👍” (U+1F44D)');
    // What is shown on the screen is shown all the same.
    await clinics.agent.get(`/api/visits/${id}/report?for=referrer`).expect(200);
    for (const turned of ['Mar\u202Esh', '\u2066Marsh', 'M\u200Farsh']) {
      const refused = await clinics.agent
        .post('/api/patients')
        .send(newPatient({ familyName: turned }))
        .expect(422);
      expect(refused.body.errors[0].path).toBe('familyName');
      expect(refused.body.errors[0].message).toContain('turns the direction of text');
    }
  });

  it('go out as signed only while they are: not before, not while they are amended', async () => {
    const { visitId } = await clinics.startVisit();
    await clinics.hold(visitId, { end: 80 }).expect(200);
    expect(await textOf(visitId)).toContain('DRAFT, not signed');
    expect(await statusOf(visitId)).toEqual(['preliminary']);
    expect((await clinics.sign(visitId)).status).toBe(200);
    const signed = await textOf(visitId);
    expect(signed).not.toContain('DRAFT');
    expect(signed).toContain('Signed by ours on');
    expect(signed).toContain('As found.');
    expect(await statusOf(visitId)).toEqual(['final']);
    await clinics.agent.post(`/api/visits/${visitId}/amendment`).send({ why: 'a reading was mixed up' }).expect(200);
    expect(await textOf(visitId)).toContain('DRAFT, not signed');
    expect(await statusOf(visitId)).toEqual(['preliminary']);
  });

  it('write figures and days as the reader does', async () => {
    const { visitId } = await clinics.startVisit();
    await clinics
      .hold(visitId, { motion: 'distance.kneeToWall', mode: 'active', position: 'standing', instrument: 'tape', end: 4.5 })
      .expect(200);
    const summary = async (locale: string) => {
      const { body } = await clinics.agent.get(`/api/visits/${visitId}/report?for=evidence&locale=${locale}`).expect(200);
      return JSON.stringify((body as ReportView).report);
    };
    expect(await summary('en-GB')).toContain('4.5 cm');
    expect(await summary('de-AT')).toContain('4,5 cm');
    expect(await summary('not a locale!')).toContain('4.5 cm');
    expect(await summary('en-GB')).toContain('4.5 cm');
  });

  it('hold every reading of the clinic as CSV, piece by piece, and no name of a person', async () => {
    const { visitId, patientId } = await clinics.startVisit();
    for (let end = 80; end < 85; end += 1) await clinics.hold(visitId, { end }).expect(200);
    const { text, headers } = await clinics.agent.get('/api/readings.csv').expect(200);
    expect([headers['content-type'], headers['content-disposition']]).toEqual([
      'text/csv; charset=utf-8',
      'attachment; filename="readings.csv"',
    ]);
    const [head, ...rows] = parseCsv(text, { record_delimiter: '\r\n' }) as string[][];
    const of = rows.filter((row) => row[head!.indexOf('visit')] === visitId);
    expect(of.map((row) => Number(row[head!.indexOf('end')])).sort()).toEqual([80, 81, 82, 83, 84]);
    expect(of[0]![head!.indexOf('patient')]).toBe(patientId);
    expect(text).not.toMatch(/Ilka|Marsh/);
    expect((await clinics.stranger.get('/api/readings.csv').expect(200)).text.trim().split('\r\n').length).toBe(1);
    await request(clinics.app).get('/api/readings.csv').expect(401);
  });

  it('are the clinic’s own, and say what may be asked for', async () => {
    const { visitId } = await clinics.startVisit();
    for (const path of ['report', 'report/pdf', 'export?to=csv']) await clinics.stranger.get(`/api/visits/${visitId}/${path}`).expect(404);
    await clinics.agent.get(`/api/visits/${randomUUID()}/report`).expect(404);
    const { body } = await clinics.agent.get(`/api/visits/${visitId}/export?to=docx`).expect(422);
    expect(body.errors[0]).toEqual({ path: 'to', message: 'is not one of the allowed: fhir, csv, sftr, json, ics' });
    await request(clinics.app).get(`/api/visits/${visitId}/report`).expect(401);
    // Nothing measured yet: it is said, and nothing fails.
    const empty = (await clinics.agent.get(`/api/visits/${visitId}/report?for=patient`).expect(200)).body as ReportView;
    expect(proseOf(empty)).toContain('We took the first numbers.');
  });
});
