export function writeCount(counts: { passed: number; failed: number }): void;
