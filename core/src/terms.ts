/**
 * The fixed vocabulary: ids that files, the database, the terminal and the
 * screens share. The arrays are the source; the types follow from them, so a
 * schema elsewhere can be built from the same list.
 */
export const JOINTS = [
  'shoulder',
  'elbow',
  'forearm',
  'wrist',
  'thumbCmc',
  'thumbMcp',
  'thumbIp',
  'fingerMcp',
  'fingerPip',
  'fingerDip',
  'hip',
  'knee',
  'ankle',
  'subtalar',
  'greatToeMtp',
  'greatToeIp',
  'cervical',
  'thoracic',
  'lumbar',
  'thoracolumbar',
] as const;
export type Joint = (typeof JOINTS)[number];
/** Joints of the spine: they are of no side, the side of a motion is the way it goes. */
export const SPINE_REGIONS = ['cervical', 'thoracic', 'lumbar', 'thoracolumbar'] as const satisfies readonly Joint[];

/** What is measured beside the angle of one joint. */
export const FAMILIES = ['muscleLength', 'distance', 'girth', 'strength', 'balance', 'check'] as const;
export type Family = (typeof FAMILIES)[number];

/** The first half of a motion's id. */
export type Region = Joint | Family;
export const REGIONS: readonly Region[] = [...JOINTS, ...FAMILIES];

export const MOTION_NAMES = [
  'flexion',
  'extension',
  'abduction',
  'adduction',
  'internalRotation',
  'externalRotation',
  'horizontalAbduction',
  'horizontalAdduction',
  'pronation',
  'supination',
  'radialDeviation',
  'ulnarDeviation',
  'dorsiflexion',
  'plantarflexion',
  'inversion',
  'eversion',
  'rotation',
  'lateralFlexion',
] as const;
export type MotionName = (typeof MOTION_NAMES)[number];
export type MotionId = `${Joint}.${MotionName}` | `${Family}.${string}`;

/** Finger of a finger joint: 2 is the index, 5 the little finger; 1 is the thumb, which has joints of its own. */
export const DIGITS = [1, 2, 3, 4, 5] as const;
export type Digit = (typeof DIGITS)[number];

export const UNITS = ['deg', 'cm', 'N', 's', 'yesNo'] as const;
/** Degrees, centimetres, newtons, seconds; or 1 for yes and 0 for no. */
export type Unit = (typeof UNITS)[number];
/** The units in which there is an amount. */
export type AmountUnit = Exclude<Unit, 'yesNo'>;

export const SIDES = ['left', 'right', 'midline'] as const;
export type Side = (typeof SIDES)[number];

export const INVOLVED_SIDES = ['left', 'right', 'both'] as const;
export type InvolvedSide = (typeof INVOLVED_SIDES)[number];

export const MODES = ['active', 'passive'] as const;
export type Mode = (typeof MODES)[number];

export const POSITIONS = ['supine', 'prone', 'sidelying', 'sitting', 'standing', 'quadruped', 'halfKneeling'] as const;
export type Position = (typeof POSITIONS)[number];

export const INSTRUMENTS = [
  'goniometer',
  'inclinometer',
  'dualInclinometer',
  'phone',
  'picture',
  'tape',
  'visual',
  'dynamometer',
  'stopwatch',
] as const;
export type Instrument = (typeof INSTRUMENTS)[number];

export const SEXES = ['female', 'male', 'unknown'] as const;
export type Sex = (typeof SEXES)[number];

export const END_FEELS = ['soft', 'firm', 'hard', 'empty', 'springy', 'spasm'] as const;
export type EndFeel = (typeof END_FEELS)[number];

export const SEVERITIES = ['note', 'mild', 'moderate', 'marked'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** Plane angle in degrees. An end position is counted from zero, positive in the motion's own direction. */
export type Degrees = number;

/** A calendar day, `YYYY-MM-DD`, without a time zone. */
export type IsoDate = string;

/** How sure we are that a value is what its source prints. */
export const CONFIDENCES = ['high', 'medium-high', 'medium', 'low-medium', 'low'] as const;
export type Confidence = (typeof CONFIDENCES)[number];

/** Where a value comes from. `fromMemory` is true until somebody has held it against the printed source. */
export interface Source {
  readonly cite: string;
  readonly fromMemory: boolean;
}

/** Where a value was looked up by somebody of the clinic, and when. */
export interface LookedUp {
  readonly source: string;
  /** "6th ed., 2008"; empty where the source has none. */
  readonly edition: string;
  readonly page: string;
  readonly by: string;
  readonly on: IsoDate;
  /** What the program held, where the source prints something else. */
  readonly programHad?: Readonly<Record<string, number>>;
}

/** A rule of the trade that no publication stands behind. */
export const COMMON_PRACTICE: Source = { cite: 'common practice, no source', fromMemory: false };

/** Whether a text is one of the words of a list. */
export const isIn = <T extends string>(of: readonly T[], value: string | undefined): value is T =>
  (of as readonly (string | undefined)[]).includes(value);
