import { AT_HAND_MOST, type AtHandView, type AuditPage } from '@dial-gauge/contract';
import { dayBefore, dayOf } from '../../shared/days.js';
import { startClinics, type Clinics } from '../../testing/harness.js';

describe('what is taken along for the day', () => {
  let clinics: Clinics;
  const today = dayOf(new Date());
  beforeEach(async () => {
    clinics = await startClinics();
  });
  afterEach(() => clinics.stop());

  const taken = async (agent = clinics.agent, day = today): Promise<AtHandView> =>
    (await agent.get('/api/at-hand').query({ day }).expect(200)).body as AtHandView;
  const visitsOf = ({ visits }: AtHandView) => visits.map(({ visit }) => visit.id);

  it('are the visits of the day with their screens and people, one’s own first; none of another clinic', async () => {
    const theirs = await clinics.startVisit(clinics.second);
    const own = await clinics.startVisit();
    await clinics.hold(own.visitId).expect(200);
    const view = await taken();
    expect(visitsOf(view)).toEqual([own.visitId, theirs.visitId]);
    expect(view.screens.map(({ visit }) => visit.id)).toEqual([own.visitId, theirs.visitId]);
    expect(view.visits[0]?.measurements.length).toBe(1);
    expect(view.patients.map(({ patient }) => patient.id)).toEqual([own.patientId, theirs.patientId]);
    expect(visitsOf(await taken(clinics.second))).toEqual([theirs.visitId, own.visitId]);
    expect(await taken(clinics.stranger)).toEqual({ visits: [], screens: [], patients: [] });
  });

  it('are one’s own of yesterday where they are not signed, and who is due; no more than agreed', async () => {
    const { visitId, episodeId, patientId } = await clinics.startVisit();
    const { visitId: theirs } = await clinics.startVisit(clinics.second);
    const yesterday = dayBefore(today, 1);
    for (const id of [visitId, theirs]) {
      await clinics.harness.asSchema('UPDATE visit SET assessed_on = ? WHERE id = ?', [yesterday, id]);
      await clinics.dataSource.query('UPDATE episode SET latest_at = ? WHERE last_visit_id = ?', [`${yesterday} 10:00:00`, id]);
    }
    expect(visitsOf(await taken())).toEqual([visitId]);
    await clinics.harness.asSchema('UPDATE visit SET signed = 1 WHERE id = ?', [visitId]);
    expect(await taken()).toEqual({ visits: [], screens: [], patients: [] });
    await clinics.dataSource.query('UPDATE episode SET due_on = ?, whose_id = ? WHERE id = ?', [today, clinics.ids.ours, episodeId]);
    expect((await taken()).patients.map(({ patient }) => patient.id)).toEqual([patientId]);
    for (let n = 0; n <= AT_HAND_MOST; n += 1) await clinics.startVisit();
    expect((await taken()).visits.length).toBe(AT_HAND_MOST);
  });

  it('stand in the audit once a day for each record, before they leave', async () => {
    const { patientId } = await clinics.startVisit();
    for (let n = 0; n < 3; n += 1) await taken(clinics.second);
    const { rows } = (await clinics.agent.get('/api/audit').query({ patient: patientId }).expect(200)).body as AuditPage;
    expect(rows.filter(({ did }) => did === 'took-along').map(({ by, about }) => `${by} ${about}`)).toEqual(['second /at-hand']);
  });
});
