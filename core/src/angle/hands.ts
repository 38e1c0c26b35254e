/** Widths of the examiner's own hand, in cm, measured once. */
export interface HandWidths {
  /** Across the knuckles of a closed fist. */
  readonly fist: number;
  /** Of one finger. */
  readonly finger: number;
}

/** Where nobody has measured theirs. @see common practice, no source: assumed */
export const ASSUMED_HAND: HandWidths = { fist: 8.5, finger: 1.9 };

/**
 * A gap gauged by fists and fingers, in cm.
 *
 * @example handsToCm(1, 2, { fist: 8.5, finger: 1.9 }) // 12.3
 */
export function handsToCm(fists: number, fingers: number, { fist, finger }: HandWidths): number {
  return Math.round((fists * fist + fingers * finger) * 10) / 10;
}

/** "1 fist 2 fingers" */
export function handWords(fists: number, fingers: number): string {
  const some = (n: number, word: string) => (n === 0 ? '' : `${n} ${word}${n === 1 ? '' : 's'}`);
  return [some(fists, 'fist'), some(fingers, 'finger')].filter(Boolean).join(' ') || 'no gap';
}
