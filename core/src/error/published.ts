import type { Confidence, Instrument, LookedUp, MotionId } from '../terms.js';

/** One published figure of measuring error. Those that come with the program are from memory. */
export interface PublishedError {
  readonly motions: readonly MotionId[];
  readonly instruments: readonly Instrument[];
  /** Readings of one examiner compared, or of two. */
  readonly examiners: 'same' | 'other';
  /** What was printed: a standard error, or a smallest change at 95 or 90 % confidence. The literature mixes them. */
  readonly figure: 'SEM' | 'MDC95' | 'MDC90';
  /** In the motion's unit; the upper end where a range is printed. */
  readonly amount: number;
  /** The protocol it holds for, by the end of its id; left out: all of the motion's. */
  readonly protocol?: string;
  readonly population: string;
  /** False where the sample is so special that the figure is shown, not used for everybody. */
  readonly forEveryone: boolean;
  /** The procedure after which it holds. */
  readonly after?: string;
  readonly confidence: Confidence;
  readonly cite: string;
  /** Where somebody of the clinic looked it up. */
  readonly lookedUp?: LookedUp;
}

const row = (
  motions: readonly MotionId[],
  instruments: readonly Instrument[],
  examiners: 'same' | 'other',
  [figure, amount]: readonly ['SEM' | 'MDC95' | 'MDC90', number],
  cite: string,
  confidence: Confidence,
  population: string,
  more: Partial<Pick<PublishedError, 'protocol' | 'forEveryone' | 'after'>> = {},
): PublishedError => ({ motions, instruments, examiners, figure, amount, cite, confidence, population, forEveryone: true, ...more });

const ARMSTRONG = 'Armstrong AD et al. J Shoulder Elbow Surg 1998;7:573-580';
const ELLIS = 'Ellis B, Bruton A. Phys Ther 2002;82:1020-1029';
const PUA = 'Pua YH et al. Arch Phys Med Rehabil 2008;89:1146-1154';
const KONOR = 'Konor MM et al. Int J Sports Phys Ther 2012;7:279-287';
const POWDEN = 'Powden CJ, Hoch JM, Hoch MC. Man Ther 2015;20:524-532';
const STRATFORD = 'Stratford PW, Kennedy DM, Robarts SF. Physiother Can 2010;62:378-387';
const REPLACED = 'knees after replacement';
const AFTER_REPLACEMENT = { forEveryone: false, after: 'knee-replacement' } as const;
const FINGERS: readonly MotionId[] = [
  'fingerMcp.flexion',
  'fingerMcp.extension',
  'fingerPip.flexion',
  'fingerPip.extension',
  'fingerDip.flexion',
  'fingerDip.extension',
];
const GONIOMETER: readonly Instrument[] = ['goniometer'];
const TILT: readonly Instrument[] = ['inclinometer', 'phone'];

/**
 * What is published about the error of single motions. Where a sample is
 * special (patients, one operation), the figure is shown beside the protocol
 * but not used for everybody; one that holds after a procedure is used after it. An error does not travel well between samples.
 */
export const PUBLISHED_ERRORS: readonly PublishedError[] = [
  row(['elbow.flexion'], GONIOMETER, 'same', ['MDC95', 6], ARMSTRONG, 'medium-high', 'elbow patients'),
  row(['elbow.flexion'], GONIOMETER, 'other', ['MDC95', 10], ARMSTRONG, 'medium-high', 'elbow patients'),
  row(['elbow.extension'], GONIOMETER, 'same', ['MDC95', 7], ARMSTRONG, 'medium-high', 'elbow patients'),
  row(['elbow.extension'], GONIOMETER, 'other', ['MDC95', 10], ARMSTRONG, 'medium-high', 'elbow patients'),
  row(['forearm.pronation', 'forearm.supination'], GONIOMETER, 'same', ['MDC95', 8], ARMSTRONG, 'medium-high', 'elbow patients'),
  row(['forearm.pronation', 'forearm.supination'], GONIOMETER, 'other', ['MDC95', 11], ARMSTRONG, 'medium-high', 'elbow patients'),
  row(FINGERS, GONIOMETER, 'same', ['MDC95', 5], ELLIS, 'medium', 'hand patients and simulated positions'),
  row(FINGERS, GONIOMETER, 'other', ['MDC95', 9], ELLIS, 'medium', 'hand patients and simulated positions'),
  row(['hip.flexion'], TILT, 'same', ['SEM', 3.5], PUA, 'medium-high', 'hip osteoarthritis, 22 people'),
  row(['hip.extension'], TILT, 'same', ['SEM', 4.7], PUA, 'medium', 'hip osteoarthritis, 22 people'),
  row(['hip.abduction'], TILT, 'same', ['SEM', 3.2], PUA, 'medium', 'hip osteoarthritis, 22 people'),
  row(['hip.internalRotation'], TILT, 'same', ['SEM', 3.4], PUA, 'medium', 'hip osteoarthritis, 22 people'),
  row(['hip.externalRotation'], TILT, 'same', ['SEM', 3.1], PUA, 'medium', 'hip osteoarthritis, 22 people'),
  row(['knee.flexion'], GONIOMETER, 'same', ['SEM', 4.1], STRATFORD, 'medium-high', REPLACED, AFTER_REPLACEMENT),
  row(['knee.extension'], GONIOMETER, 'same', ['SEM', 2.7], STRATFORD, 'medium-high', REPLACED, AFTER_REPLACEMENT),
  row(['distance.kneeToWall'], ['tape'], 'same', ['SEM', 0.6], KONOR, 'medium-high', 'healthy adults'),
  row(['distance.kneeToWall'], ['tape'], 'other', ['MDC95', 1.6], POWDEN, 'medium-high', 'review'),
  row(['ankle.dorsiflexion'], TILT, 'same', ['SEM', 1.4], KONOR, 'medium-high', 'healthy adults', {
    protocol: 'ankle.dorsiflexion/standing-loaded',
  }),
  row(['ankle.dorsiflexion'], GONIOMETER, 'same', ['SEM', 2.8], KONOR, 'medium-high', 'healthy adults', {
    protocol: 'ankle.dorsiflexion/standing-loaded',
  }),
  row(['ankle.dorsiflexion'], TILT, 'other', ['MDC95', 4.6], POWDEN, 'medium-high', 'review', {
    protocol: 'ankle.dorsiflexion/standing-loaded',
  }),
  row(
    ['shoulder.flexion', 'shoulder.abduction', 'shoulder.externalRotation'],
    GONIOMETER,
    'same',
    ['SEM', 14],
    'Hayes K et al. Aust J Physiother 2001;47:289-294 (14–25 printed)',
    'medium-high',
    'shoulder patients',
    { forEveryone: false },
  ),
  row(
    ['shoulder.flexion', 'shoulder.abduction', 'shoulder.externalRotation', 'shoulder.internalRotation'],
    GONIOMETER,
    'same',
    ['MDC95', 23],
    'Tveita EK et al. BMC Musculoskelet Disord 2008;9:49 (12–23 printed)',
    'low-medium',
    'frozen shoulders',
    { forEveryone: false },
  ),
  row(
    ['cervical.flexion', 'cervical.extension', 'cervical.lateralFlexion', 'cervical.rotation'],
    TILT,
    'same',
    ['SEM', 4.1],
    'Fletcher JP, Bandy WD. J Orthop Sports Phys Ther 2008;38:640-645 (2.3–4.1 printed, head-mounted instrument)',
    'medium-high',
    'neck pain and none',
  ),
  row(
    ['muscleLength.straightLegRaise'],
    ['goniometer', ...TILT],
    'same',
    ['SEM', 4],
    'Boland & Adams 2000; Dixon & Keating 2000 (2–4 printed)',
    'low-medium',
    'healthy adults',
  ),
  row(
    ['muscleLength.straightLegRaise'],
    ['goniometer', ...TILT],
    'other',
    ['MDC95', 16],
    'Boland & Adams 2000; Dixon & Keating 2000 (10–16 printed)',
    'low-medium',
    'healthy adults',
  ),
  row(
    ['muscleLength.activeKneeExtension'],
    ['goniometer', ...TILT],
    'same',
    ['SEM', 4],
    'Hamid MSA et al. J Phys Ther Sci 2013;25:957-961 (3–4 printed)',
    'medium',
    '16 healthy adults',
  ),
  row(['muscleLength.kneeDrop'], GONIOMETER, 'same', ['SEM', 7], 'Peeler J, Anderson JE. J Athl Train 2008;43:470-476', 'medium', 'adults'),
  row(
    ['muscleLength.proneKneeBend'],
    GONIOMETER,
    'same',
    ['SEM', 9],
    'Peeler J, Anderson JE. J Orthop Res 2008;26:793-799',
    'medium',
    'adults',
  ),
  row(
    ['distance.fingerToFloor'],
    ['tape'],
    'same',
    ['MDC95', 10],
    'Perret C et al. 2001; Ekedahl 2012 (4.5–10 printed)',
    'medium',
    'back pain',
  ),
  row(
    ['distance.acromionToTable'],
    ['tape'],
    'same',
    ['SEM', 0.4],
    'Lewis JS, Valentine RE. BMC Musculoskelet Disord 2007;8:64',
    'medium',
    'adults',
  ),
  row(
    ['girth.ankleFigureOfEight'],
    ['tape'],
    'same',
    ['MDC95', 1],
    'Petersen EJ 1999; Rohner-Spengler M 2007',
    'medium-high',
    'ankle swelling',
  ),
];
