import { openDatabase } from '../records/open-database.js';
import { assessmentOfVisit } from '@dial-gauge/contract';
import { assess } from '@dial-gauge/core';
import { readSettings } from '../settings.js';
import { Clinic } from '../records/clinic/entities.js';
import { Patient } from '../records/patients/entities.js';
import { caseload } from '../read-models/caseload/caseload.js';
import { TrialRow } from '../records/readings/entities.js';
import { visitRecord } from '../read-models/visit-record/record.js';
import { startHarness, type Harness } from '../testing/harness.js';
import { earlierPeople } from './earlier.js';
import { seedDemo } from './seed.js';

describe('demo clinic', () => {
  let harness: Harness;
  let clinicsAfterCut: number;
  beforeAll(async () => {
    harness = await startHarness();
    const driver = harness.dataSource.driver as unknown as { preparePersistentValue: (...args: unknown[]) => unknown };
    const original = driver.preparePersistentValue;
    const broken = spyOn(driver, 'preparePersistentValue');
    let calls = 0;
    // Cut off somewhere in the middle of the readings.
    broken.and.callFake((...args) => {
      if ((calls += 1) > 300) throw new Error('cut off');
      return original.apply(driver, args);
    });
    await expectAsync(seedDemo(harness.dataSource, new Date())).toBeRejectedWithError('cut off');
    broken.and.callThrough();
    clinicsAfterCut = await harness.dataSource.getRepository(Clinic).count();
    expect(await seedDemo(harness.dataSource, new Date())).toBeTrue();
  });
  afterAll(() => harness.stop());

  it('is seeded once, all or nothing', async () => {
    expect(clinicsAfterCut).toBe(0);
    expect(await seedDemo(harness.dataSource, new Date())).toBeFalse();
    expect(await harness.dataSource.getRepository(Patient).count()).toBe(8 + earlierPeople().length);
    expect(await harness.dataSource.getRepository(TrialRow).count()).toBeGreaterThan(2 * 2 * 6 * (2 + 6) + 8 * 2 * (2 + 6));
  });

  it('has something true to show: stiff and symmetric, or mobile without control', async () => {
    const [clinic] = await harness.dataSource.getRepository(Clinic).find();
    const caller = { userId: '', name: '', clinicId: clinic!.id, role: 'lead' as const, session: '' };
    const database = openDatabase(harness.dataSource);
    const kindsOf = async (familyName: string) => {
      const record = await database.connection(caller, async (work) => {
        const { rows } = await caseload(work, { order: 'name', find: familyName, whose: 'all', state: 'care' });
        expect(rows.length).toBe(1);
        return visitRecord(work, rows[0]!.lastVisit!.id);
      });
      return assess(assessmentOfVisit(record), { normSets: record.normSets }).findings.map((f) => f.kind);
    };
    const gardener = await kindsOf('Brandt');
    expect(gardener.filter((k) => k === 'short-of-normal').length).toBeGreaterThan(8);
    expect(gardener).not.toContain('short-of-other-side');
    expect(gardener).toContain('changed');
    const dancer = await kindsOf('Okonjo-Vale');
    expect(dancer.filter((k) => k === 'active-short-of-passive').length).toBeGreaterThan(4);
    expect(await kindsOf('Linnet')).toContain('capsular-pattern');
    expect(await kindsOf('Reeve')).toContain('two-joint-limit');
    expect(await kindsOf('Strake')).toContain('lumbar-slr-invalid');
  });
});

describe('settings', () => {
  it('name every variable that does not fit', () => {
    expect(() => readSettings({ DIAL_GAUGE_PORT: 'x' })).toThrowMatching(
      (e: Error) => e.message.includes('DIAL_GAUGE_PORT') && e.message.includes('DIAL_GAUGE_DB_PASSWORD'),
    );
  });
});
