import { formatNumber, suffixOf } from '../words/figures.js';
import type { Figures } from '../looked-up.js';
import type { Unit } from '../terms.js';
import { FIGURE_WORDS } from './values.js';
import type { PrintedValue } from './types.js';

/** What is wrong with a correction, figure by figure; nothing where it fits. */
export function correctionProblems(
  value: PrintedValue,
  corrected: Figures,
): readonly { readonly figure: string; readonly message: string }[] {
  const names = Object.keys(value.figures);
  const odd = Object.keys(corrected).filter((name) => !names.includes(name));
  const missing = names.filter((name) => corrected[name] === undefined);
  const problems = [
    ...odd.map((figure) => ({ figure, message: `is no figure of this value; allowed: ${names.join(', ') || 'none, it has no figures'}` })),
    ...missing.map((figure) => ({ figure, message: 'is missing; allowed: every figure that the source prints' })),
    ...names.flatMap((figure) => {
      const [is, allowed] = [corrected[figure], value.allowed[figure]!];
      if (is === undefined || (is >= allowed.min && is <= allowed.max)) return [];
      const unit = allowed.unit === 'weeks' ? ' weeks' : suffixOf(allowed.unit as Unit);
      return [
        {
          figure,
          message: `${formatNumber(is)} does not fit; allowed: ${formatNumber(allowed.min)} to ${formatNumber(allowed.max)}${unit}`,
        },
      ];
    }),
  ];
  if (problems.length > 0) return problems;
  return ORDERED.flatMap(([low, high]) => {
    const [from, to] = [corrected[low], corrected[high]];
    return from !== undefined && to !== undefined && from > to
      ? [{ figure: low, message: `is more than “${FIGURE_WORDS[high]!}”; allowed: ${formatNumber(to)} or less` }]
      : [];
  });
}

/** Figures of which one is not larger than the other. */
const ORDERED = [
  ['low', 'high'],
  ['ciLow', 'ciHigh'],
  ['ciLow', 'mean'],
  ['mean', 'ciHigh'],
] as const;
