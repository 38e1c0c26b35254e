/**
 * What is limited: how far; the end of the range (no push there, nothing
 * that draws or loads it to its end); movement by one's own strength against
 * gravity; effort against resistance; weight on the joint; standing on that leg
 * alone.
 */
export const PRECAUTION_KINDS = ['range', 'end-range', 'against-gravity', 'resisted', 'weight', 'single-leg'] as const;
export type PrecautionKind = (typeof PRECAUTION_KINDS)[number];
