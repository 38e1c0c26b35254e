export { declaredInVain, directionOf, imposesOf, jointOf } from './table.js';
export { touchOf, type Touch, type Trait } from './touch.js';
export type { Bears, ImposedBy, ImposedLimb, ImposedLoad, Imposition, JointMotion, Moves } from './types.js';
