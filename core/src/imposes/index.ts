export { imposedByPosition, inPosition } from './positions.js';
export { declaredInVain, directionOf, imposedBy, imposesOf, isSpine, jointOf, type DoneRow } from './table.js';
export { bothTouched, touchOf, touchOfItems, type Touch, type Trait } from './touch.js';
export { IMPOSED_BY, IMPOSED_LIMBS, IMPOSED_LOADS } from './types.js';
export type { Bears, ImposedBy, ImposedLimb, ImposedLoad, Imposition, JointMotion, Moves } from './types.js';
