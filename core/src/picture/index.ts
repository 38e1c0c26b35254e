export { angleIn, scaleOf, OFF_SQUARE, valuesIn, type PictureValue, type Placing } from './angles.js';
export { PICTURE_SETS, pictureSet, type Landmark, type PictureAngle, type PictureAngleKind, type PictureSet } from './sets.js';
