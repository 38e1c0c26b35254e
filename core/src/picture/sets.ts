import type { Source } from '../terms.js';

/** What is placed in a picture. */
export interface Landmark {
  readonly id: string;
  /** What it is, and where. */
  readonly label: string;
}

/** What the landmarks come to: by the order in which they are named. */
export type PictureAngleKind =
  /** At the middle one of three. */
  | 'corner'
  /** Of the middle one of three, what it lacks of straight: a straight limb is 0. */
  | 'bend'
  /** From the first to the second, against plumb or level. */
  | 'plumb'
  | 'level'
  /** Between the segments of the first two and the last two. */
  | 'between';

export interface PictureAngle {
  readonly id: string;
  readonly label: string;
  readonly kind: PictureAngleKind;
  readonly of: readonly string[];
}

/** A length, where the scale of the picture is known: along the line of two landmarks, or only across. */
export interface PictureLength {
  readonly id: string;
  readonly label: string;
  readonly along: 'line' | 'across';
  readonly of: readonly [from: string, to: string];
}

export interface PictureSet {
  readonly id: string;
  readonly name: string;
  /** From where the picture has to be taken. */
  readonly view: string;
  readonly landmarks: readonly Landmark[];
  readonly angles: readonly PictureAngle[];
  readonly lengths: readonly PictureLength[];
  readonly source: Source;
}

const PRACTICE: Source = { cite: 'common practice, no source', fromMemory: false };

/** What is looked at in stills and clips. */
export const PICTURE_SETS: readonly PictureSet[] = [
  {
    id: 'corner',
    name: 'Three points',
    view: 'square to the plane of the movement, camera at the height of the joint',
    landmarks: [
      { id: 'first', label: 'on the segment that stays' },
      { id: 'middle', label: 'the joint' },
      { id: 'last', label: 'on the segment that moves' },
    ],
    angles: [
      { id: 'corner', label: 'at the joint', kind: 'corner', of: ['first', 'middle', 'last'] },
      { id: 'bend', label: 'from straight', kind: 'bend', of: ['first', 'middle', 'last'] },
    ],
    lengths: [],
    source: PRACTICE,
  },
  {
    id: 'segment',
    name: 'One segment',
    view: 'square to the plane of the movement, camera upright',
    landmarks: [
      { id: 'first', label: 'one end of the segment' },
      { id: 'last', label: 'its other end' },
    ],
    angles: [
      { id: 'plumb', label: 'against plumb', kind: 'plumb', of: ['first', 'last'] },
      { id: 'level', label: 'against level', kind: 'level', of: ['first', 'last'] },
    ],
    lengths: [{ id: 'length', label: 'its length', along: 'line', of: ['first', 'last'] }],
    source: PRACTICE,
  },
  {
    id: 'squatSide',
    name: 'Squat from the side',
    view: 'from the side, camera at the height of the hip, upright',
    landmarks: [
      { id: 'shoulder', label: 'shoulder: tip of the acromion' },
      { id: 'hip', label: 'hip: greater trochanter' },
      { id: 'knee', label: 'knee: lateral epicondyle' },
      { id: 'ankle', label: 'ankle: lateral malleolus' },
    ],
    angles: [
      { id: 'knee', label: 'knee bend', kind: 'bend', of: ['hip', 'knee', 'ankle'] },
      { id: 'trunk', label: 'trunk against plumb', kind: 'plumb', of: ['hip', 'shoulder'] },
      { id: 'shin', label: 'shin against plumb', kind: 'plumb', of: ['ankle', 'knee'] },
      { id: 'parallel', label: 'shin against trunk', kind: 'between', of: ['ankle', 'knee', 'hip', 'shoulder'] },
    ],
    lengths: [{ id: 'kneeTravel', label: 'knee in front of the ankle', along: 'across', of: ['ankle', 'knee'] }],
    source: PRACTICE,
  },
  {
    id: 'squatFront',
    name: 'Squat from the front',
    view: 'from the front, camera at the height of the knees, upright',
    landmarks: [
      { id: 'hip', label: 'hip: front upper spine of the pelvis' },
      { id: 'knee', label: 'knee: middle of the kneecap' },
      { id: 'ankle', label: 'ankle: middle between the malleoli' },
    ],
    angles: [
      { id: 'line', label: 'knee out of the line', kind: 'bend', of: ['hip', 'knee', 'ankle'] },
      { id: 'shin', label: 'shin against plumb', kind: 'plumb', of: ['ankle', 'knee'] },
    ],
    lengths: [{ id: 'kneeDrift', label: 'knee to the side of the ankle', along: 'across', of: ['ankle', 'knee'] }],
    source: PRACTICE,
  },
  {
    id: 'legRaise',
    name: 'Straight-leg raise',
    view: 'from the side, camera at the height of the hip, upright',
    landmarks: [
      { id: 'hip', label: 'hip: greater trochanter' },
      { id: 'knee', label: 'knee: lateral epicondyle' },
      { id: 'ankle', label: 'ankle: lateral malleolus' },
    ],
    angles: [
      { id: 'raise', label: 'leg above level', kind: 'level', of: ['hip', 'ankle'] },
      { id: 'knee', label: 'knee bend', kind: 'bend', of: ['hip', 'knee', 'ankle'] },
    ],
    lengths: [],
    source: PRACTICE,
  },
  {
    id: 'overheadReach',
    name: 'Reach overhead',
    view: 'from the side, camera at the height of the shoulder, upright',
    landmarks: [
      { id: 'hip', label: 'hip: greater trochanter' },
      { id: 'shoulder', label: 'shoulder: tip of the acromion' },
      { id: 'elbow', label: 'elbow: lateral epicondyle' },
    ],
    angles: [
      { id: 'arm', label: 'arm from hanging', kind: 'corner', of: ['hip', 'shoulder', 'elbow'] },
      { id: 'trunk', label: 'trunk against plumb', kind: 'plumb', of: ['hip', 'shoulder'] },
    ],
    lengths: [],
    source: PRACTICE,
  },
];

export const pictureSet = (id: string): PictureSet | undefined => PICTURE_SETS.find((set) => set.id === id);
