export { imposedByPosition, inPosition } from './positions.js';
export { declaredInVain, directionOf, imposesOf, isSpine, jointOf, jointOfRow } from './table.js';
export { allTraits, DONE_TRAITS, traitsOf, type DoneTrait } from './traits.js';
export { bothTouched, touchOf, touchOfItems, type Touch, type Trait } from './touch.js';
export { IMPOSED_BY, IMPOSED_LIMBS, IMPOSED_LOADS } from './types.js';
export type { Bears, ImposedBy, ImposedLimb, ImposedLoad, Imposition, JointMotion, Moves, Works } from './types.js';
