import type { Drafts } from '../data/drafts';

/** A patient who is half entered: kept with the ids, so that what was sent before a cut is not added twice. */
export interface HalfEntered {
  readonly ids: { readonly patient: string; readonly episode: string };
  readonly typed: Readonly<Record<string, string | null>>;
}

export const DRAFT = 'new-patient';

export const isHalfEntered = (value: unknown): value is HalfEntered =>
  typeof value === 'object' && value !== null && 'ids' in value && 'typed' in value;

/** Who is half entered, by the first name that is typed so far; null: nobody. */
export function halfEntered(drafts: Drafts): string | null {
  const left = drafts.read(DRAFT, isHalfEntered);
  return left && ((left.typed['givenName'] || left.typed['familyName'] || '').trim().split(/\s/)[0] ?? '').slice(0, 24);
}
