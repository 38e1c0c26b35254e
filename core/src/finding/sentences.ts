import { kindOf, type Finding } from './kinds.js';

/** What one motion of one side has to say at one place of the order, in one sentence. */
export interface Sentence {
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
  const sentences: { findings: Finding[] }[] = [];
  const open = new Map<string, { findings: Finding[] }>();
  for (const finding of findings) {
    const { aside, joins } = kindOf(finding.kind) ?? {};
    if (aside) continue;
    const way = `${finding.protocol}|${finding.side}|${finding.digit ?? ''}`;
    const there = joins ? open.get(way) : undefined;
    if (there) {
      there.findings.push(finding);
      continue;
    }
    const sentence = { findings: [finding] };
    sentences.push(sentence);
    if (joins) open.set(way, sentence);
  }
  return sentences;
}
