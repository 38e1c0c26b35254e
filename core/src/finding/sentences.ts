import { KINDS } from './kinds.js';
import type { Finding } from './types.js';

/** What one motion of one side has to say at one place of the order, in one sentence. */
export interface Sentence {
  readonly subject: string;
  /** The heaviest first; losses of the other mode after it. */
  readonly findings: readonly Finding[];
}

/**
 * Findings as a reader wants them: losses of the same motion and side, active
 * and passive, joined into one sentence where the heaviest of them stands.
 * Everything else keeps its place.
 *
 * @param findings in order
 */
export function sentencesOf(findings: readonly Finding[]): Sentence[] {
  const sentences: { subject: string; findings: Finding[] }[] = [];
  const open = new Map<string, { subject: string; findings: Finding[] }>();
  for (const finding of findings) {
    if (KINDS[finding.kind].aside) continue;
    const { joins } = KINDS[finding.kind];
    const way = `${finding.protocol}|${finding.side}|${finding.digit ?? ''}`;
    const there = joins ? open.get(way) : undefined;
    if (there) {
      there.findings.push(finding);
      continue;
    }
    const sentence = { subject: finding.subject, findings: [finding] };
    sentences.push(sentence);
    if (joins) open.set(way, sentence);
  }
  return sentences;
}
