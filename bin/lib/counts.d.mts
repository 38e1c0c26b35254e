export function writeCount(counts: { passed: number; failed: number; failures: readonly string[] }): void;
