import { randomUUID } from 'node:crypto';
import { ALLOWED, mayDo, problemType, ROLES, type Act, type Role, type Route } from '@dial-gauge/contract';
import type { Agent } from 'supertest';
import { addUser, newPatient, startClinics, TODAY, type Clinics } from '../testing/harness.js';
import { ROUTES } from '../testing/routes.js';

const named = (which: (act: Act) => boolean): string[] => ROUTES.filter(({ act }) => which(act)).map(({ name }) => name);
const changes = ({ method }: Route): boolean => method !== 'get';

describe('roles', () => {
  let clinics: Clinics;
  const agents = new Map<Role, Agent>();
  beforeAll(async () => {
    clinics = await startClinics();
    for (const role of ROLES) {
      await addUser(clinics.dataSource, clinics.clinicId, randomUUID(), `${role}@clinic.example`, `${role}-password`, role);
      agents.set(role, await clinics.signIn(role));
    }
  });
  afterAll(() => clinics.stop());

  it('are told apart as they were agreed', () => {
    const only = (role: Role) => named((act) => ALLOWED[act].roles.length === 1 && ALLOWED[act].roles[0] === role);
    expect(only('lead').sort()).toEqual(
      [
        'audit.audit', 'cohort.cohortFile', 'cohort.countAnew', 'cohort.makeNormSet', 'judgement.countersign', 'norms.addNormSet', 'persons.erase', 'persons.erasure', 'persons.wholeRecord', 'norms.removeNormSet', 'norms.setNorms', 'reliability.adoptError', 'reliability.dropError',
        'reports.allReadings', 'screens.setScreens', 'staff.askSecondFactor', 'staff.dropSecondFactor',
        'staff.endAccount', 'staff.invite', 'staff.reopenAccount', 'staff.resetPassword', 'staff.setRole', 'staff.staff', 'staff.withdrawLink',
        'valueChecks.addValueChecks', 'valueChecks.importValueChecks',
      ].sort(),
    ); // prettier-ignore
    const changed = (role: Role) =>
      ROUTES.filter(({ route, act }) => changes(route) && !['door', 'self', 'train'].includes(act) && mayDo(role, act)).map(
        ({ name }) => name,
      );
    // A reader changes nothing of anybody; an assistant runs screens, for whoever comes to one, and signs nothing.
    expect(changed('reader')).toEqual([]);
    expect(changed('assistant').sort()).toEqual([
      'patients.addPatient',
      'patients.changePatient',
      'patients.openEpisode',
      'screens.correctScreenTry',
      'screens.holdScreenTry',
      'screens.planScreens',
      'visits.startVisit',
    ]);
    expect(named((act) => act === 'sign')).toEqual(['judgement.sign', 'judgement.amend']);
    // What is signed, given away or decides who may do what asks for the password again after a rest.
    expect(
      Object.keys(ALLOWED)
        .filter((act) => ALLOWED[act as Act].proof)
        .sort(),
    ).toEqual(['audit', 'countersign', 'erase', 'export', 'sign', 'staff']);
  });

  /** Every route that wants a session; leaving comes last. */
  const behindTheDoor = () => {
    const last = (route: Route) => (route.method === 'delete' && route.path.startsWith('/session') ? 1 : 0);
    return ROUTES.filter(({ route }) => !route.open).sort((a, b) => last(a.route) - last(b.route));
  };
  const ask = (agent: Agent, route: Route) =>
    agent[route.method](`/api${route.path.replace(/:\w+/g, randomUUID())}`).send(
      changes(route) && route.method !== 'delete' ? {} : undefined,
    );

  it('are held against every route there is: whoever may not is refused before anything is read or done', async () => {
    const asked = behindTheDoor();
    expect(asked.length).toBeGreaterThan(90);
    let refused = 0;
    for (const role of ROLES) {
      const agent = agents.get(role)!;
      for (const { name, route, act } of asked) {
        const answer = await ask(agent, route);
        const isRefused = answer.status === 403 && answer.body?.type === problemType('role');
        expect(isRefused)
          .withContext(`${role} ${name}: ${answer.status} ${JSON.stringify(answer.body)}`)
          .toBe(!mayDo(role, act));
        if (isRefused) refused += 1;
      }
    }
    expect(refused).toBeGreaterThan(100);
  });

  it('are worth nothing without the second factor that the clinic asks for: every route but those of the own account is shut', async () => {
    const name = `late-${randomUUID().slice(0, 6)}`;
    await addUser(clinics.dataSource, clinics.clinicId, randomUUID(), `${name}@clinic.example`, `${name}-password`, 'lead');
    await clinics.dataSource.query('UPDATE clinic SET second_factor_since = NOW(3) WHERE id = ?', [clinics.clinicId]);
    try {
      const agent = await clinics.signIn(name);
      for (const { name: route, route: asked, act } of behindTheDoor()) {
        const { status, body } = await ask(agent, asked);
        expect(status === 403 && body?.type === problemType('second-factor-missing'))
          .withContext(`${route}: ${status} ${JSON.stringify(body)}`)
          .toBe(act !== 'self');
      }
    } finally {
      await clinics.dataSource.query('UPDATE clinic SET second_factor_since = NULL WHERE id = ?', [clinics.clinicId]);
    }
  });

  it('hold for what arrives from a tab that was opened in another role', async () => {
    const [id, name] = [randomUUID(), `turned-${randomUUID().slice(0, 6)}`];
    await addUser(clinics.dataSource, clinics.clinicId, id, `${name}@clinic.example`, `${name}-password`, 'examiner');
    const agent = await clinics.signIn(name);
    const { visitId } = await clinics.startVisit(agent);
    await clinics.hold(visitId, {}, agent).expect(200);
    // Whose session it is was asked for a moment ago, and is remembered: the statement itself sees that the role is another.
    await clinics.harness.asSchema("UPDATE user SET role = 'reader' WHERE id = ?", [id]);
    const before = await clinics.dataSource.query('SELECT COUNT(*) AS n FROM trial');
    expect((await clinics.hold(visitId, {}, agent)).status).toBeGreaterThanOrEqual(401);
    expect(await clinics.dataSource.query('SELECT COUNT(*) AS n FROM trial')).toEqual(before);
  });

  it('let an assistant begin with somebody who comes to a screen, and an examiner sign what they ran', async () => {
    const assistant = await clinics.signIn('assistant');
    const patient = newPatient();
    await assistant.post('/api/patients').send(patient).expect(200);
    const visitId = randomUUID();
    await assistant.post(`/api/episodes/${patient.episode.id}/visits`).send({ id: visitId, assessedOn: TODAY }).expect(200);
    await clinics.hold(visitId, {}, assistant).expect(403);
    const examiner = await clinics.signIn('examiner');
    await clinics.hold(visitId, {}, examiner).expect(200);
    expect((await clinics.sign(visitId, assistant)).status).toBe(403);
    const signed = await clinics.sign(visitId, examiner);
    expect(signed.status).withContext(JSON.stringify(signed.body)).toBe(200);
    expect(signed.body.visit.examiner).toBe('assistant');
    expect(signed.body.signing.signatures[0].by).toBe('examiner');
  });

  it('let everybody sign their own alone; the lead countersigns what is signed, once, and never their own', async () => {
    const examiner = await clinics.signIn('examiner');
    const [lead, other] = [clinics.agent, clinics.second];
    const { visitId } = await clinics.startVisit(examiner);
    await clinics.hold(visitId, {}, examiner).expect(200);
    const { body: shown } = await lead.get(`/api/visits/${visitId}/judgement`).expect(200);
    expect(shown.signing.notYours).toContain('examiner’s');
    expect((await clinics.sign(visitId, lead)).status).toBe(403);
    const { body } = await clinics.sign(visitId, examiner);
    expect(body.signing.notYours).toBeNull();
    const signature = body.signing.signatures[0];
    const path = `/api/signatures/${signature.id}/countersignatures`;
    await examiner.post(path).send({ id: randomUUID() }).expect(403);
    await clinics.stranger.post(path).send({ id: randomUUID() }).expect(404);
    const id = randomUUID();
    // Two leads at the same moment, and one of them twice: one stands below it.
    const answers = await Promise.all([
      lead.post(path).send({ id }),
      lead.post(path).send({ id }),
      other.post(path).send({ id: randomUUID() }),
    ]);
    expect(answers.map(({ status }) => status).sort()).toContain(409);
    const [{ n }] = await clinics.dataSource.query('SELECT COUNT(*) AS n FROM countersignature WHERE signature_id = ?', [signature.id]);
    expect(Number(n)).toBe(1);
    const { body: after } = await lead.get(`/api/visits/${visitId}/judgement`).expect(200);
    expect(['ours', 'second']).toContain(after.signing.signatures[0].countersigned.by);
    // The database keeps it as it is.
    await expectAsync(clinics.dataSource.query('DELETE FROM countersignature WHERE signature_id = ?', [signature.id])).toBeRejected();

    const own = await clinics.startVisit(lead);
    await clinics.hold(own.visitId, {}, lead).expect(200);
    const { body: mine } = await clinics.sign(own.visitId, lead);
    await lead.post(`/api/signatures/${mine.signing.signatures[0].id}/countersignatures`).send({ id: randomUUID() }).expect(409);
  });

  it('say whose an amendment is: opened by the lead, it is signed by the lead, and the visit stays the examiner’s', async () => {
    const examiner = await clinics.signIn('examiner');
    const { visitId } = await clinics.startVisit(examiner);
    await clinics.hold(visitId, {}, examiner).expect(200);
    await clinics.sign(visitId, examiner);
    await clinics.agent.post(`/api/visits/${visitId}/amendment`).send({ why: 'side mistaken' }).expect(200);
    expect((await clinics.sign(visitId, examiner)).status).toBe(403);
    const { body } = await clinics.sign(visitId, clinics.agent);
    expect(body.visit.examiner).toBe('examiner');
    expect(body.signing.signatures.map((signature: { by: string; why: string }) => [signature.by, signature.why])).toEqual([
      ['examiner', ''],
      ['ours', 'side mistaken'],
    ]);
  });
});
