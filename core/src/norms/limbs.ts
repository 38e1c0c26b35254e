import type { MotionId } from '../terms.js';
import { point, range, sample, years, type Of } from './entry.js';
import type { AgeBand, NormEntry, NormSet } from './types.js';

const OLDER = years(60, 84);
const walker = (motion: MotionId, men: readonly [number, number], women: readonly [number, number] | null, of: Of = {}): NormEntry[] => {
  const confidence = motion.startsWith('shoulder') ? 'medium' : 'low';
  const common: Of = { mode: 'active', ages: OLDER, ...of };
  return [
    sample(motion, ...men, confidence, { ...common, sex: 'male' }),
    ...(women ? [sample(motion, ...women, confidence, { ...common, sex: 'female' })] : []),
  ];
};

export const WALKER_1984: NormSet = {
  id: 'walker-1984',
  title: 'Walker et al. 1984, active motion at 60–84 years',
  short: 'Walker et al. 1984',
  year: 1984,
  where: 'main table; page not recalled',
  source: {
    cite: 'Walker JM, Sue D, Miles-Elkousy N, Ford G, Trevelyan H. Active mobility of the extremities in older subjects. Phys Ther 1984;64:919-923',
    fromMemory: true,
  },
  entries: [
    ...walker('shoulder.flexion', [160, 11], [169, 9]),
    ...walker('shoulder.extension', [38, 11], [49, 13]),
    ...walker('shoulder.abduction', [155, 22], [175, 16]),
    ...walker('shoulder.internalRotation', [59, 16], [66, 13]),
    ...walker('shoulder.externalRotation', [76, 13], [85, 16]),
    ...walker('hip.flexion', [110, 11], [111, 12], { position: 'supine' }),
    ...walker('hip.internalRotation', [22, 6], [36, 7], { position: 'sitting' }),
    ...walker('hip.externalRotation', [32, 6], [30, 7], { position: 'sitting' }),
    ...walker('hip.abduction', [23, 9], [24, 6], { position: 'supine' }),
    ...walker('knee.flexion', [131, 4], null),
  ],
};

const DOWNEY: Of = { mode: 'active', ages: years(61, 93) };
export const DOWNEY_1991: NormSet = {
  id: 'downey-1991',
  title: 'Downey et al. 1991, active shoulder motion at 61–93 years',
  short: 'Downey et al. 1991',
  year: 1991,
  where: 'conference abstract',
  source: { cite: 'Downey PA, Fiebert I, Stackpole-Brown JB. Phys Ther 1991;71(suppl)', fromMemory: true },
  entries: [
    sample('shoulder.flexion', 165, 10.7, 'medium', DOWNEY),
    sample('shoulder.abduction', 157.9, 17.4, 'medium', DOWNEY),
    sample('shoulder.internalRotation', 65, 11.7, 'medium', DOWNEY),
    sample('shoulder.externalRotation', 80.6, 11, 'medium', DOWNEY),
  ],
};

const COLLEGE: AgeBand = { from: 18, to: 28, label: 'college age' };
const simoneau = (
  motion: MotionId,
  position: 'sitting' | 'prone',
  mean: number,
  sd: number,
  confidence: 'medium' | 'medium-high',
): NormEntry => sample(motion, mean, sd, confidence, { mode: 'active', position, ages: COLLEGE });
export const SIMONEAU_1998: NormSet = {
  id: 'simoneau-1998',
  title: 'Simoneau et al. 1998, active hip rotation sitting and prone',
  short: 'Simoneau et al. 1998',
  year: 1998,
  where: 'main table; page not recalled',
  source: { cite: 'Simoneau GG, Hoenig KJ, Lepley JE, Papanek PE. J Orthop Sports Phys Ther 1998;28:44-50; 60 students', fromMemory: true },
  entries: [
    simoneau('hip.externalRotation', 'sitting', 36, 7, 'medium-high'),
    simoneau('hip.externalRotation', 'prone', 45, 10, 'medium-high'),
    simoneau('hip.internalRotation', 'sitting', 33, 7, 'medium'),
    simoneau('hip.internalRotation', 'prone', 36, 9, 'medium'),
  ],
};

const LUNGE: Of = { position: 'standing' };
export const KONOR_2012: NormSet = {
  id: 'konor-2012',
  title: 'Konor et al. 2012, weight-bearing lunge',
  short: 'Konor et al. 2012',
  year: 2012,
  where: 'main table; page not recalled',
  source: {
    cite: 'Konor MM, Morton S, Eckerson JM, Grindstaff TL. Int J Sports Phys Ther 2012;7:279-287; 20 healthy adults',
    fromMemory: true,
  },
  entries: [
    sample('distance.kneeToWall', 9.5, 3.1, 'medium', LUNGE),
    sample('ankle.dorsiflexion', 39, 5, 'medium', { ...LUNGE, variant: 'loaded', note: 'by inclinometer; 43 (6) by goniometer' }),
  ],
};

export const YOUDAS_2005: NormSet = {
  id: 'youdas-2005',
  title: 'Youdas et al. 2005, hamstring length of adults',
  short: 'Youdas et al. 2005',
  year: 2005,
  where: 'main table; page not recalled',
  source: { cite: 'Youdas JW et al. J Orthop Sports Phys Ther 2005;35:246-252; 214 adults of 20–79', fromMemory: true },
  entries: (['female', 'male'] as const).flatMap((sex) => {
    const of: Of = { mode: 'passive', position: 'supine', sex, ages: years(20, 79) };
    const [raise, raiseSd] = sex === 'female' ? ([76.3, 9.8] as const) : ([68.5, 6.8] as const);
    const [lack, lackSd] = sex === 'female' ? ([28.0, 10.6] as const) : ([38.6, 8.1] as const);
    return [
      sample('muscleLength.straightLegRaise', raise, raiseSd, 'medium', of),
      sample('muscleLength.activeKneeExtension', lack, lackSd, 'medium-high', {
        ...of,
        note: `printed as a popliteal angle of ${sex === 'female' ? '152.0' : '141.4'}, 180 = straight`,
      }),
    ];
  }),
};

const ATHLETES = 'elite athletes, leg hanging free';
export const HARVEY_1998: NormSet = {
  id: 'harvey-1998',
  title: 'Harvey 1998, edge-of-table test of elite athletes',
  short: 'Harvey 1998',
  year: 1998,
  where: 'means; no spread recalled',
  source: { cite: 'Harvey D. Br J Sports Med 1998;32:68-70; 117 elite athletes', fromMemory: true },
  entries: [
    point('muscleLength.hipExtensionDrop', 11.9, 'high', { mode: 'passive', position: 'supine', note: ATHLETES }),
    point('muscleLength.kneeDrop', 52.5, 'high', { mode: 'passive', position: 'supine', note: ATHLETES }),
    point('muscleLength.hipDropAbduction', 15.6, 'medium-high', { mode: 'passive', position: 'supine', note: ATHLETES }),
  ],
};

export const REESE_BANDY_2003: NormSet = {
  id: 'reese-bandy-2003',
  title: 'Reese & Bandy 2003, side-lying leg drop',
  short: 'Reese & Bandy 2003',
  year: 2003,
  where: 'main table; page not recalled',
  source: { cite: 'Reese NB, Bandy WD. J Orthop Sports Phys Ther 2003;33:326-330; 61 adults', fromMemory: true },
  entries: [
    sample('muscleLength.sideLyingLegDrop', 18.9, 7.6, 'high', { mode: 'passive', position: 'sidelying' }),
    sample('muscleLength.sideLyingLegDrop', 23.2, 6.9, 'high', { mode: 'passive', position: 'sidelying', variant: 'knee-straight' }),
  ],
};

export const DIGIOVANNI_2002: NormSet = {
  id: 'digiovanni-2002',
  title: 'DiGiovanni et al. 2002, calf length',
  short: 'DiGiovanni et al. 2002',
  year: 2002,
  where: 'lines drawn in the text; page not recalled',
  source: { cite: 'DiGiovanni CW et al. J Bone Joint Surg Am 2002;84:962-970', fromMemory: true },
  entries: [
    point('muscleLength.calfKneeStraight', 5, 'medium-high', { note: '5 or less is called contracture (10 by some)' }),
    point('muscleLength.calfKneeBent', 10, 'medium-high', { note: '10 or less points to soleus or the joint' }),
  ],
};

export const HAND_AND_TOE: readonly NormSet[] = [
  {
    id: 'de-smet-1993',
    title: 'De Smet et al. 1993, thumb flexion',
    short: 'De Smet et al. 1993',
    year: 1993,
    where: 'page not recalled',
    source: { cite: 'De Smet L et al. 1993; 101 people', fromMemory: true },
    entries: [
      sample('thumbMcp.flexion', 54.0, 13.7, 'medium', { mode: 'active' }),
      sample('thumbIp.flexion', 79.8, 10.2, 'medium', { mode: 'active' }),
    ],
  },
  {
    id: 'jenkins-1998',
    title: 'Jenkins et al. 1998, active thumb flexion',
    short: 'Jenkins et al. 1998',
    year: 1998,
    where: 'page not recalled',
    source: { cite: 'Jenkins M et al. J Hand Surg Br 1998;23:796-798; 119 people', fromMemory: true },
    entries: [
      sample('thumbMcp.flexion', 59, 11, 'medium', { mode: 'active' }),
      sample('thumbIp.flexion', 67, 11, 'medium', { mode: 'active' }),
    ],
  },
  {
    id: 'joseph-1954',
    title: 'Joseph 1954, great toe extension',
    short: 'Joseph 1954',
    year: 1954,
    where: 'page not recalled',
    source: { cite: 'Joseph J. J Bone Joint Surg Br 1954;36:450-457', fromMemory: true },
    entries: [
      point('greatToeMtp.extension', 51, 'medium', { mode: 'active' }),
      range('greatToeMtp.extension', 75, 80, 'medium', { mode: 'passive' }),
    ],
  },
];
