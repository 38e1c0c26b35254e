import type { CodeableConcept, Coding, Extension, ObservationComponent, Quantity } from '@medplum/fhirtypes';
import { ENTRY_UNITS, type EntryUnit } from '../../angle/units.js';
import type { Unit } from '../../terms.js';
import type { Leaf, Leaves } from '../leaves.js';
import { EXTENSION, LOINC, OWN, PAIN_SCORE, UCUM, UCUM_CODES, type RecalledCode } from './codes.js';

/** Leaves that are angles or lengths in the unit of what was measured. */
const AMOUNTS: readonly string[] = ['start', 'zero', 'end', 'upper.zero', 'upper.end', 'lower.zero', 'lower.end', 'value'];
/** Leaves that are angles whatever was measured. */
const ANGLES: readonly string[] = ['lines.shin', 'lines.trunk'];
/** Leaves that are what somebody wrote; other texts are ids. */
const PROSE: readonly string[] = ['painWhere', 'note', 'skipped', 'source', 'answer'];
/** A list that was looked through, and nothing of it found. */
const NONE = 'none';

export function coded(system: string, code: string, text: string, ...more: readonly (Coding | undefined)[]): CodeableConcept {
  return { coding: [{ system, code, display: text }, ...more.filter((one) => one !== undefined)], text };
}

/** A code that was not looked up, marked as such. */
export function recalledCoding(system: string, known: RecalledCode | undefined): Coding | undefined {
  if (!known) return undefined;
  const { code, display, confidence } = known;
  return { system, code, display, extension: [{ url: EXTENSION.sure, valueString: `from memory, not looked up: ${confidence}` }] };
}

/** The code of one system in a concept. */
export const codeOf = (concept: CodeableConcept | undefined, system: string): string | undefined =>
  concept?.coding?.find((coding) => coding.system === system)?.code;

const concept = (part: string, code: string): CodeableConcept => ({ coding: [{ system: OWN.word, code }], text: `${part}: ${code}` });

export const quantity = (value: number, unit: EntryUnit | Exclude<Unit, 'deg'>): Quantity => ({
  value,
  unit: unit === 'deg' ? 'degree' : unit,
  system: UCUM,
  code: UCUM_CODES[unit],
});

/** Leaves as components, each under its path; what is of one trial or try says which. */
export function componentsOf(leaves: Leaves, unit: Unit, nth?: number): ObservationComponent[] {
  const entered = ENTRY_UNITS.find((one) => one === leaves['unit']) ?? unit;
  const of: Extension[] | undefined = nth === undefined ? undefined : [{ url: EXTENSION.nth, valuePositiveInt: nth }];
  return Object.entries(leaves).flatMap(([part, leaf]): ObservationComponent[] => {
    const pain = part === 'pain' ? recalledCoding(LOINC, PAIN_SCORE) : undefined;
    const about = { ...(of && { extension: of }), code: coded(OWN.part, part, part, pain) };
    if (leaf !== null && typeof leaf === 'object')
      return (leaf.length === 0 ? [NONE] : leaf).map((one) => ({ ...about, valueCodeableConcept: concept(part, one) }));
    return [{ ...about, ...valueOf(part, leaf, entered) }];
  });
}

function valueOf(
  part: string,
  leaf: Exclude<Leaf, readonly string[]>,
  unit: EntryUnit | Exclude<Unit, 'deg'>,
): Partial<ObservationComponent> {
  if (leaf === null) return { dataAbsentReason: { coding: [{ system: ABSENT, code: 'not-performed' }], text: 'not judged' } };
  if (typeof leaf === 'boolean') return { valueBoolean: leaf };
  if (typeof leaf === 'string') return PROSE.includes(part) ? { valueString: leaf } : { valueCodeableConcept: concept(part, leaf) };
  if (AMOUNTS.includes(part)) return { valueQuantity: quantity(leaf, unit) };
  if (ANGLES.includes(part)) return { valueQuantity: quantity(leaf, 'deg') };
  return Number.isInteger(leaf) ? { valueInteger: leaf } : { valueQuantity: { value: leaf, system: UCUM, code: '1' } };
}

const ABSENT = 'http://terminology.hl7.org/CodeSystem/data-absent-reason';

/** Parts that hold several. */
const LISTS: readonly string[] = ['substitutions', 'with', 'faults', 'felt', 'normSets'];

/** The leaves that components say, of one trial or try, or of what is told of all of them. */
export function leavesIn(components: readonly ObservationComponent[], nth?: number): Record<string, Leaf> {
  const leaves: Record<string, Leaf> = {};
  for (const component of components) {
    const part = codeOf(component.code, OWN.part);
    if (part === undefined || nthOf(component) !== nth) continue;
    const leaf = leafOf(component);
    if (!LISTS.includes(part)) leaves[part] = leaf;
    else if (leaf === NONE) leaves[part] = [];
    else leaves[part] = [...((leaves[part] as readonly string[] | undefined) ?? []), String(leaf)];
  }
  return leaves;
}

const leafOf = ({ valueQuantity, valueInteger, valueBoolean, valueString, valueCodeableConcept }: ObservationComponent): Leaf =>
  valueQuantity?.value ?? valueInteger ?? valueBoolean ?? valueString ?? codeOf(valueCodeableConcept, OWN.word) ?? null;

export const nthOf = ({ extension }: ObservationComponent): number | undefined =>
  extension?.find(({ url }) => url === EXTENSION.nth)?.valuePositiveInt;

/** Leaves as an extension with a part for each. */
export function extensionOf(url: string, leaves: Leaves): Extension {
  return {
    url,
    extension: Object.entries(leaves).flatMap(([part, leaf]): Extension[] => {
      if (leaf !== null && typeof leaf === 'object') return leaf.map((one) => ({ url: part, valueCode: one }));
      if (typeof leaf === 'number') return [{ url: part, valueDecimal: leaf }];
      return [{ url: part, valueString: String(leaf) }];
    }),
  };
}

/** The leaves of such an extension. */
export function leavesInExtension(extension: Extension | undefined): Record<string, Leaf> {
  const leaves: Record<string, Leaf> = {};
  for (const { url = '', valueCode, valueDecimal, valueString } of extension?.extension ?? []) {
    if (LISTS.includes(url)) leaves[url] = [...((leaves[url] as readonly string[] | undefined) ?? []), valueCode ?? ''];
    else leaves[url] = valueDecimal ?? valueString ?? '';
  }
  return leaves;
}
