import { protocolOf } from '../catalogue/index.js';
import type { EndFeel, Severity } from '../terms.js';
import { say } from '../words/say.js';
import { found } from './make.js';
import { note, readings } from './steps.js';
import { nameOf } from './sums.js';
import type { Kind } from './types.js';

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

/** What was felt where what else is usual. */
interface Facts {
  readonly felt: EndFeel;
  readonly usual: readonly EndFeel[];
}

const tellingOf = ({ felt, usual }: Facts): TellingEndFeel | undefined =>
  TELLING_END_FEELS[felt] ?? (felt === 'hard' && usual.length > 0 && !usual.includes('hard') ? HARD : undefined);

/** An end that stops measuring, or asks for a look first. */
export const endFeel: Kind<Facts> = {
  stage: 'pain',
  rank: 0,
  mark: 'pain',
  holds: true,
  telling: true,
  ofAnswers: true,
  detect: ({ measured }) =>
    measured.flatMap((m) => {
      const felt = m.measurement.endFeel;
      if (!felt) return [];
      const facts = { felt, usual: protocolOf(m.measurement).endFeel };
      const telling = tellingOf(facts);
      if (!telling) return [];
      return [
        found(m, {
          severity: telling.severity,
          facts,
          steps: [
            readings(m),
            { step: 'end-feel', ...facts },
            note('{points} (as taught, from memory; examiners agree on it poorly to fairly)', { points: telling.points }),
            note(telling.then),
          ],
        }),
      ];
    }),
  verdict: (f) => say(tellingOf(f.facts)?.words ?? '{felt} end feel', { felt: say(f.facts.felt) }),
  sum: {
    at: 4,
    words: (all) => (all.length ? say('End feel: {where}.', { where: all.map((f) => `${nameOf(f)} (${f.verdict})`).join('; ') }) : ''),
  },
};
