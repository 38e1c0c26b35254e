import type { BootstrapResult, StudyTable } from '@dial-gauge/core';

/** What the bootstrap worker is asked. */
export interface BootstrapRequest {
  readonly table: StudyTable;
  readonly resamples: number;
  readonly seed: number;
}

/** How far it is, what it came to, or why it could not. */
export type BootstrapMessage = { readonly done: number } | { readonly result: BootstrapResult } | { readonly problem: string };
