export { allowedDoing, allowedFor, forbiddenWords, isPast, type Allowed, type Moved } from './allowed.js';
export { PRECAUTION_KINDS, type PrecautionKind } from './kinds.js';
export { alikePrecautions, alikeWords, holdsOn, precautionsFor, precautionWords, type Precaution } from './precaution.js';
