import type { Bundle, Observation, Resource } from '@medplum/fhirtypes';
import { assess } from '../../finding/index.js';
import type { Assessment } from '../../assessment.js';
import { asRead, DOCUMENTS, FULL_DOCUMENT } from '../../testing/documents.js';
import { EVERY_KIND } from '../../testing/every-kind.js';
import { documentOf } from '../document.js';
import { documentFromFhir } from './read.js';
import { documentToFhir } from './write.js';
import type { FhirContext } from './writing.js';

/** As another program gets it. */
const sent = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
const bundleOf = (context?: FhirContext, document = FULL_DOCUMENT): Bundle => sent(documentToFhir(document, context));
const refusals = (bundle: unknown): string[] => {
  const read = documentFromFhir(bundle);
  return read.ok ? [] : read.refused.map(({ path, message }) => `${path}: ${message}`);
};
const all = <T extends Resource['resourceType']>(bundle: Bundle, type: T): Extract<Resource, { resourceType: T }>[] =>
  bundle.entry!.flatMap(({ resource }) => (resource!.resourceType === type ? [resource as Extract<Resource, { resourceType: T }>] : []));
const observation = (bundle: Bundle, name: string): Observation => all(bundle, 'Observation').find(({ code }) => code.text === name)!;

describe('a FHIR bundle of an assessment', () => {
  it('gives back the document it was written from', () => {
    for (const document of DOCUMENTS) {
      const bundle = bundleOf({}, document);
      const back = documentFromFhir(bundle);
      expect(back.ok && sent(back.document))
        .withContext(JSON.stringify(back))
        .toEqual(asRead(document));
    }
  });

  it('says where in the bundle each place of the document came from', () => {
    const bundle = bundleOf();
    const back = documentFromFhir(bundle);
    if (!back.ok) return fail('was not read');
    const at = (name: string) => `entry.${bundle.entry!.findIndex(({ resource }) => resource === observation(bundle, name))}.resource`;
    expect(back.placeOf(['measurements', 0, 'pain'])).toContain(at('Knee extension'));
    expect(back.placeOf(['measurements', 1, 'trials'])).toContain(at('Knee flexion'));
    expect(back.placeOf(['precautions', 0, 'limit'])).toMatch(/^entry\.\d+\.resource/);
    expect(back.placeOf(['previous', 'measurements', 0])).toMatch(/^entry\.\d+\.resource/);
  });

  it('refuses what is no bundle, or has not one patient and one visit', () => {
    expect(refusals({})).toEqual(['resourceType: is no Bundle; allowed: a FHIR R4 Bundle']);
    expect(refusals(null).length).toBe(1);
    expect(refusals({ resourceType: 'Bundle', type: 'collection', entry: [{ resource: {} }] }).length).toBe(1);
    const bundle = bundleOf();
    const without = (type: string) => ({ ...bundle, entry: bundle.entry!.filter(({ resource }) => resource!.resourceType !== type) });
    expect(refusals(without('Patient'))).toContain('entry: holds 0 patients; allowed: one');
    expect(
      refusals({ ...bundle, entry: [...bundle.entry!, ...bundle.entry!.filter(({ resource }) => resource!.resourceType === 'Patient')] }),
    ).toContain('entry: holds 2 patients; allowed: one');
    expect(refusals(without('Encounter'))).toContain('entry: holds 0 encounters; allowed: one visit, and one before it');
  });

  it('refuses an observation without a code of ours by its place, and guesses nothing', () => {
    const bundle = bundleOf();
    const at = bundle.entry!.findIndex(({ resource }) => resource!.resourceType === 'Observation');
    (bundle.entry![at]!.resource as Observation).code = { text: 'Body height' };
    expect(refusals(bundle)).toEqual([
      `entry.${at}.resource.code: has no code that is known here; allowed: a code of https://dial-gauge.example/fhir/motion or https://dial-gauge.example/fhir/screen-item`,
    ]);
  });

  it('names side, structure, instrument and unit of a measurement', () => {
    const { person, assessedOn, procedure } = FULL_DOCUMENT;
    const measurements = FULL_DOCUMENT.measurements.slice(0, 1) as Assessment['measurements'];
    const judgement = assess({ person, assessedOn, procedure, measurements });
    const extension = observation(bundleOf({ judgement }), 'Knee extension');
    expect(extension.valueQuantity).toEqual({ value: -7.5, unit: 'degree', system: 'http://unitsofmeasure.org', code: 'deg' });
    expect(extension.status).toBe('preliminary');
    expect(extension.performer?.[0]?.display).toBe('Wren Calloway');
    const [place] = all(bundleOf(), 'BodyStructure');
    expect(JSON.stringify(place)).toContain('left');
    expect(
      all(bundleOf(), 'Device')
        .map(({ deviceName }) => deviceName?.[0]?.name)
        .sort(),
    ).toEqual(['dynamometer', 'goniometer', 'inclinometer']);
  });

  it('carries what a value was held against, and calls it low where it is below that', () => {
    for (const assessment of EVERY_KIND) {
      const judgement = assess(assessment as Assessment);
      const bundle = bundleOf({ judgement }, documentOf(assessment));
      const marks = all(bundle, 'Observation').flatMap(({ interpretation = [] }) =>
        interpretation.flatMap(({ coding = [] }) => coding.map(({ code }) => code)),
      );
      const short = judgement.findings.filter(({ kind }) => kind === 'short-of-normal');
      expect(marks.filter((code) => code === 'L').length)
        .withContext(assessment.assessedOn)
        .toBeGreaterThanOrEqual(short.length > 0 ? 1 : 0);
    }
  });

  it('is final where somebody signed, with goals and a programme where there are any', () => {
    const context: FhirContext = {
      ids: { patient: 'p', visit: 'v' },
      name: { given: 'Osric', family: 'Ferrier' },
      goals: [{ motion: 'knee.flexion', side: 'left', value: 118, words: 'Knee flexion 118°', since: '2026-10-30' }],
      program: { drills: [{ id: 'heel-slide', words: 'Heel slide, 2 × 12' }], recheckOn: '2026-12-04', givenOn: '2026-11-20' },
      signed: { by: 'Wren Calloway', at: '2026-11-20T10:15:00Z' },
    };
    const bundle = bundleOf(context);
    const [patient] = all(bundle, 'Patient');
    expect([patient!.id, patient!.gender, patient!.birthDate]).toEqual(['p', 'female', '1961-07-30']);
    expect(patient!.name).toEqual([jasmine.objectContaining({ given: ['Osric'], family: 'Ferrier' })] as never);
    expect(all(bundle, 'DiagnosticReport').map(({ status }) => status)).toEqual(['final']);
    expect(new Set(all(bundle, 'Observation').map(({ status }) => status))).toEqual(new Set(['final']));
    expect(all(bundle, 'Goal').map(({ description, startDate }) => [description.text, startDate])).toEqual([
      ['Knee flexion 118°', '2026-10-30'],
    ]);
    expect(JSON.stringify(all(bundle, 'CarePlan'))).toContain('Heel slide, 2 × 12');
    expect(JSON.stringify(all(bundle, 'Provenance'))).toContain('2026-11-20T10:15:00Z');
    expect(all(bundle, 'Flag').length).toBe(1);
    expect(all(bundleOf(), 'Goal').length + all(bundleOf(), 'CarePlan').length).toBe(0);
    expect(new Set(bundle.entry!.map(({ fullUrl }) => fullUrl)).size).toBe(bundle.entry!.length);
  });
});
