export {
  angleIn,
  atLeastOff,
  lengthsIn,
  pictureError,
  scaleOf,
  OFF_SQUARE,
  valuesIn,
  type PictureLengthValue,
  type PictureValue,
  type Placing,
} from './angles.js';
export {
  PICTURE_SETS,
  pictureSet,
  type Landmark,
  type PictureAngle,
  type PictureAngleKind,
  type PictureLength,
  type PictureSet,
} from './sets.js';
