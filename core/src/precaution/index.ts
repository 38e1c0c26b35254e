export {
  allowedDoing,
  allowedFor,
  forbiddenWords,
  isPast,
  limitWords,
  NO_LIMITS,
  type Allowed,
  type Doing,
  type Limit,
  type Limits,
  type Moved,
} from './allowed.js';
export { asksWhere, cautionLimits, leftOutWords, type AnsweredCaution, type CautionLimit } from './caution-limits.js';
export { CAUTION_RULES } from './caution-rules.js';
export { CAUTION_SHORT, TRAIT_WORDS } from './caution-words.js';
export { PRECAUTION_KINDS, type PrecautionKind } from './kinds.js';
export { alikePrecautions, alikeWords, holdsOn, precautionsFor, precautionWords, type Precaution } from './precaution.js';
