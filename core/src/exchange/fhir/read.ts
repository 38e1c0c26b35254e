import type { Bundle, CodeableConcept, Observation, Reference, Resource } from '@medplum/fhirtypes';
import type { AssessmentDocument } from '../document.js';
import { fromLeaves, type Leaves } from '../leaves.js';
import { BODY_SITE_EXTENSION, EXTENSION, OWN } from './codes.js';
import { codeOf, leavesIn, leavesInExtension, nthOf } from './parts.js';

/** Something of a bundle that cannot be read: where, what, and what is allowed. */
export interface RefusedResource {
  readonly path: string;
  readonly message: string;
}

export type FhirReading =
  | {
      readonly ok: true;
      /** To be held to the schema of an assessment file. */
      readonly document: Readonly<Record<string, unknown>>;
      /** Where in the bundle a place of the document came from. */
      readonly placeOf: (path: readonly PropertyKey[]) => string;
    }
  | { readonly ok: false; readonly refused: readonly RefusedResource[] };

type Of<T extends Resource['resourceType']> = Extract<Resource, { resourceType: T }>;
interface Entry<R> {
  readonly at: number;
  readonly resource: R;
}

/**
 * The facts of a bundle that was written from an assessment. What they were
 * held against is left where it is: it is judged again. An observation without
 * our codes is refused by its place, never guessed.
 */
export function documentFromFhir(input: unknown): FhirReading {
  const shape = entriesOf(input);
  if ('refused' in shape) return { ok: false, refused: [shape.refused] };
  const refused: RefusedResource[] = [];
  const all = <T extends Resource['resourceType']>(type: T): Entry<Of<T>>[] =>
    shape.entries.filter((entry): entry is Entry<Of<T>> => entry.resource.resourceType === type);
  const byReference = new Map(shape.entries.map(({ resource }) => [`${resource.resourceType}/${resource.id}`, resource]));
  const follow = (reference: Reference | undefined): Resource | undefined => byReference.get(reference?.reference ?? '');

  const patients = all('Patient');
  if (patients.length !== 1) refused.push({ path: 'entry', message: `holds ${patients.length} patients; allowed: one` });
  const encounters = [...all('Encounter')].sort((a, b) => dayOf(b.resource).localeCompare(dayOf(a.resource)));
  const [now, before, ...more] = encounters;
  if (!now || more.length > 0)
    refused.push({ path: 'entry', message: `holds ${encounters.length} encounters; allowed: one visit, and one before it` });
  const places = new Map<string, string>();
  const mark = (path: string, { at }: { at: number }) => void places.set(path, `entry.${at}.resource`);

  const measurementsAt = (encounter: Entry<Of<'Encounter'>> | undefined, path: string) =>
    all('Observation')
      .filter(({ resource }) => codeOf(resource.code, OWN.motion) !== undefined && isAt(resource, encounter))
      .map((entry, at) => {
        mark(`${path}.${at}`, entry);
        return measurementOf(entry.resource, follow);
      });
  refused.push(...all('Observation').flatMap((entry) => wrongObservation(entry, [now, before]) ?? []));
  if (refused.length > 0 || !now) return { ok: false, refused };

  const { resource: patient } = patients[0]!;
  const complaint = all('Condition')[0]?.resource.bodySite ?? [];
  const operation = all('Procedure')[0]?.resource;
  const involvedSide = among(complaint, OWN.side);
  const screens = screensAt(
    all('Observation').filter(({ resource }) => isAt(resource, now)),
    mark,
  );
  const limits = all('Flag').map((entry, at) => {
    mark(`precautions.${at}`, entry);
    return fromLeaves(leavesInExtension(entry.resource.extension?.find(({ url }) => url === EXTENSION.limit)));
  });
  mark('', now);
  const document = {
    format: 'dial-gauge/assessment' satisfies AssessmentDocument['format'],
    version: 1,
    person: { birthDate: patient.birthDate, sex: patient.gender ?? 'unknown' },
    assessedOn: dayOf(now.resource),
    ...given('involvedSide', involvedSide),
    ...given('complaintAt', among(complaint, OWN.region)),
    ...(operation && { procedure: { id: codeOf(operation.code, OWN.procedure), on: operation.performedDateTime } }),
    ...fromLeaves(leavesInExtension(now.resource.extension?.find(({ url }) => url === EXTENSION.judging))),
    ...unlessEmpty('precautions', limits),
    measurements: measurementsAt(now, 'measurements'),
    ...unlessEmpty('screens', screens),
    ...(before && { previous: { assessedOn: dayOf(before.resource), measurements: measurementsAt(before, 'previous.measurements') } }),
  };
  return { ok: true, document, placeOf: (path) => placeIn(places, path) };
}

const unlessEmpty = <T>(field: string, list: readonly T[]): Readonly<Record<string, readonly T[]>> =>
  list.length > 0 ? { [field]: list } : {};

/** An observation without our codes, or of no visit of the bundle. */
function wrongObservation(
  { at, resource }: Entry<Of<'Observation'>>,
  encounters: readonly (Entry<Of<'Encounter'>> | undefined)[],
): RefusedResource | null {
  if (codeOf(resource.code, OWN.motion) === undefined && codeOf(resource.code, OWN.item) === undefined)
    return {
      path: `entry.${at}.resource.code`,
      message: `has no code that is known here; allowed: a code of ${OWN.motion} or ${OWN.item}`,
    };
  if (encounters.some((encounter) => encounter && isAt(resource, encounter))) return null;
  return {
    path: `entry.${at}.resource.encounter`,
    message: 'is no visit of this bundle; allowed: a reference to one of its encounters',
  };
}

/** Where in the bundle a field of the document was read. */
function placeIn(places: ReadonlyMap<string, string>, path: readonly PropertyKey[]): string {
  for (let length = path.length; length >= 0; length -= 1) {
    const place = places.get(path.slice(0, length).join('.'));
    if (place !== undefined) return [place, ...path.slice(length).map(String)].join('.');
  }
  return path.join('.');
}

/** The entries of a bundle, each with a resource; or why there are none. */
function entriesOf(input: unknown): { readonly entries: Entry<Resource>[] } | { readonly refused: RefusedResource } {
  const bundle = input as Partial<Bundle> | null;
  if (bundle === null || typeof bundle !== 'object' || bundle.resourceType !== 'Bundle')
    return { refused: { path: 'resourceType', message: 'is no Bundle; allowed: a FHIR R4 Bundle' } };
  if (!Array.isArray(bundle.entry)) return { refused: { path: 'entry', message: 'is missing; allowed: a list of entries' } };
  const strange = bundle.entry.findIndex((entry) => typeof entry?.resource?.resourceType !== 'string');
  if (strange >= 0) return { refused: { path: `entry.${strange}.resource`, message: 'is missing; allowed: a resource' } };
  return { entries: bundle.entry.map(({ resource }, at) => ({ at, resource: resource as Resource })) };
}

const dayOf = ({ period }: Of<'Encounter'>): string => (period?.start ?? '').slice(0, 10);
const isAt = ({ encounter }: Observation, of: Entry<Of<'Encounter'>> | undefined): boolean =>
  of !== undefined && encounter?.reference === `Encounter/${of.resource.id}`;
const among = (concepts: readonly CodeableConcept[], system: string): string | undefined =>
  concepts.map((one) => codeOf(one, system)).find((code) => code !== undefined);
const given = (name: string, value: unknown) => (value === undefined ? {} : { [name]: value });

function measurementOf(observation: Observation, follow: (reference: Reference | undefined) => Resource | undefined) {
  const { code, bodySite, device, performer, component = [] } = observation;
  const structure = follow(bodySite?.extension?.find(({ url }) => url === BODY_SITE_EXTENSION)?.valueReference);
  const instrument = follow(device);
  return {
    motion: codeOf(code, OWN.motion),
    side: structure?.resourceType === 'BodyStructure' ? among(structure.locationQualifier ?? [], OWN.side) : undefined,
    instrument: instrument?.resourceType === 'Device' ? codeOf(instrument.type, OWN.instrument) : undefined,
    ...given('examiner', performer?.[0] && nameOf(follow(performer[0]))),
    ...fromLeaves(leavesIn(component)),
    trials: each(observation, (leaves) => fromLeaves(leaves)),
  };
}

const nameOf = (resource: Resource | undefined): string | undefined =>
  resource?.resourceType === 'Practitioner' ? resource.name?.[0]?.text : undefined;

/** Trials or tries, in their order. */
function each({ component = [] }: Observation, read: (leaves: Leaves) => unknown): unknown[] {
  const numbers = [...new Set(component.flatMap((one) => nthOf(one) ?? []))].sort((a, b) => a - b);
  return numbers.map((nth) => read(leavesIn(component, nth)));
}

/** Screens of a visit, put together again from their items. */
function screensAt(observations: readonly Entry<Observation>[], mark: (path: string, entry: { at: number }) => void) {
  const screens: { nth: number; screen: string; screenedOn?: string; items: unknown[] }[] = [];
  for (const entry of observations) {
    const { resource } = entry;
    const [screen, item] = (codeOf(resource.code, OWN.item) ?? '').split('.');
    if (!screen) continue;
    const of = (url: string) => resource.extension?.find((one) => one.url === url);
    const nth = of(EXTENSION.screen)?.valuePositiveInt ?? 1;
    const screenedOn = of(EXTENSION.screenedOn)?.valueDate;
    let own = screens.find((one) => one.nth === nth);
    if (!own) screens.push((own = { nth, screen, ...(screenedOn === undefined ? {} : { screenedOn }), items: [] }));
    mark(`screens.${screens.indexOf(own)}.items.${own.items.length}`, entry);
    own.items.push({ item, ...fromLeaves(leavesIn(resource.component ?? [])), tries: each(resource, (leaves) => fromLeaves(leaves)) });
  }
  return screens.sort((a, b) => a.nth - b.nth).map(({ nth: _nth, ...screen }) => screen);
}
