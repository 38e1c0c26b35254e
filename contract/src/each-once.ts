import type { RefinementCtx } from 'zod';

/** Refuses what is in a list twice, at its place, with what is allowed. */
export function eachOnce<T>(
  items: readonly T[],
  key: (item: T) => string,
  context: RefinementCtx,
  message: string,
  path: readonly PropertyKey[] = [],
): void {
  const seen = new Set<string>();
  items.forEach((item, index) => {
    if (seen.has(key(item))) context.addIssue({ code: 'custom', path: [...path, index], message });
    seen.add(key(item));
  });
}
