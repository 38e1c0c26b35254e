import { protocolOf } from '../catalogue/index.js';
import type { EndFeel, Severity } from '../terms.js';
import { finding, trialArithmetic } from './make.js';
import type { Detector } from './types.js';

/** What an end feel that is none of the usual ones asks for: stop, and have it looked at. It proves nothing. */
export interface TellingEndFeel {
  readonly severity: Severity;
  readonly words: string;
  readonly points: string;
  readonly then: string;
}

/**
 * End feels that are findings. Agreement between examiners is poor to fair:
 * one alone decides only "stop".
 *
 * @see end feels as taught, from memory
 */
export const TELLING_END_FEELS: Readonly<Partial<Record<EndFeel, TellingEndFeel>>> = {
  empty: {
    severity: 'marked',
    words: 'empty end feel: stopped by the person before any resistance',
    points: 'can stand for something acute or serious, or for fear; it proves nothing',
    then: 'no second try and no push at this joint; with night pain, fever or an injury have it looked at the same day',
  },
  springy: {
    severity: 'marked',
    words: 'springy block: it bounces back',
    points: 'can stand for something caught inside the joint; it proves nothing',
    then: 'do not force it; a knee that does not straighten is to be seen within days, locked after an injury sooner',
  },
  spasm: {
    severity: 'moderate',
    words: 'muscle spasm stops it early',
    points: 'can stand for acute irritation or an unstable joint; it proves nothing',
    then: 'stop there; a slow second try only where no red flag was answered yes, otherwise have it looked at first',
  },
};

const HARD: TellingEndFeel = {
  severity: 'moderate',
  words: 'hard end feel where a soft or firm one is usual',
  points: 'can stand for bone in the way; after fusion or a replacement it is expected',
  then: 'no push; new or fast: X-ray through the doctor',
};

/** An end that stops measuring, or asks for a look first. */
export const endFeel: Detector = ({ measured }) =>
  measured.flatMap((m) => {
    const felt = m.measurement.endFeel;
    if (!felt) return [];
    const usual = protocolOf(m.measurement).endFeel;
    const telling = TELLING_END_FEELS[felt] ?? (felt === 'hard' && usual.length > 0 && !usual.includes('hard') ? HARD : undefined);
    if (!telling) return [];
    return [
      finding(m, {
        kind: 'end-feel',
        severity: telling.severity,
        verdict: telling.words,
        because: [
          trialArithmetic(m),
          `end feel noted: ${felt}; usual here: ${usual.join(' or ')}`,
          `${telling.points} (as taught, from memory; examiners agree on it poorly to fairly)`,
          telling.then,
        ],
      }),
    ];
  });
