import { regionName } from '../catalogue/index.js';
import { lower, say } from '../words/say.js';
import { kindOf, stageOf, type Finding } from './kinds.js';
import { subjectOf } from './make.js';
import { STAGE_PLACES } from './stages.js';
import { stepWords } from './step-words.js';
import type { Kind, Said } from './types.js';

/** A finding in the language that is spoken; one that was signed in the words it was signed in. */
export function saidOf(finding: Finding): Said {
  if (finding.said) return finding.said;
  const kind = kindOf(finding.kind) as Kind<Finding['facts']> | undefined;
  const verdict = kind ? kind.verdict(finding) : say('{kind}: of a later version, not in words here', { kind: finding.kind });
  return {
    subject: kind?.subject ? kind.subject(finding) : subjectOf(finding),
    verdict,
    brief: kind?.brief ? kind.brief(finding) : verdict,
    because: finding.steps.map((step) => stepWords(step)),
    place: placeWords(finding),
  };
}

/** Why it stands where it stands. */
export function placeWords({ kind, place }: Pick<Finding, 'kind' | 'place'>): string {
  const words = ruleWords(kind, place);
  return place.otherSide ? say('the other side, after the operated one; {rule}', { rule: words }) : words;
}

function ruleWords(kind: Finding['kind'], place: Finding['place']): string {
  switch (place.by) {
    case 'stage':
      return say(STAGE_PLACES[stageOf(kind)]);
    case 'straight-first':
      return say('after surgery on the knee, loss of straightening comes first');
    case 'no-complaint':
      return say('no joint is named for the complaint: the largest loss first');
    case 'ground-up':
      return say('from the ground up: {joint}', { joint: regionWord(place.joint) });
    case 'nearest': {
      const parts = { joint: regionWord(place.joint), apart: place.apart, complaint: regionWord(place.complaintAt) };
      if (place.apart === 0) return say('{joint}: the joint of the complaint', parts);
      return place.apart === 1
        ? say('{joint}: {apart} joint from the complaint ({complaint})', parts)
        : say('{joint}: {apart} joints from the complaint ({complaint})', parts);
    }
    case 'painless-first':
      return say(place.hurts ? 'short and painful: after what is painless' : 'short and painless first');
    case 'largest':
      return say('the largest loss first');
  }
}

const regionWord = (joint: Parameters<typeof regionName>[0]): string => lower(say(regionName(joint)));

/** With the words written down: a copy that is signed reads as it read. */
export function inWords(finding: Finding): Finding {
  return { ...finding, said: saidOf(finding) };
}
