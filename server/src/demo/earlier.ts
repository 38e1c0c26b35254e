import { seededRandom, type Sex } from '@dial-gauge/core';
import type { DemoPatient, DemoVisit } from './person.js';

const GIVEN: Readonly<Record<'female' | 'male', readonly string[]>> = {
  female: ['Maren', 'Isolde', 'Thessaly', 'Wilhelma', 'Briony', 'Odette', 'Sunniva'],
  male: ['Alaric', 'Benedek', 'Caspian', 'Dorian', 'Everard', 'Leofric', 'Ozias'],
};
const FAMILY = ['Fennimore', 'Gullwick', 'Harbourne', 'Kelpling', 'Marramby', 'Netherquay', 'Ropewalk', 'Saltern'] as const;

/** So many people were here before, and are discharged: enough for the clinic's own figures to say something. */
const PEOPLE = 52;
/** Weeks after the operation in which they came. */
const WEEKS = [2, 6] as const;
/** What a knee does that was operated on, by week, and what the other does: bending and straightening. */
const OPERATED: Readonly<Record<(typeof WEEKS)[number], readonly [flexion: number, extension: number]>> = { 2: [86, -8], 6: [104, -4] };
const OTHER = [129, 0] as const;

/** Made-up people of the years before, the same every time: a new knee each, two visits, gone home. */
export function earlierPeople(): readonly DemoPatient[] {
  const random = seededRandom(1926);
  const around = (middle: number, spread: number): number => Math.round(middle + (random() + random() + random() - 1.5) * spread);
  return Array.from({ length: PEOPLE }, (_, n): DemoPatient => {
    const sex: Sex & ('female' | 'male') = n % 2 === 0 ? 'female' : 'male';
    const left = n % 4 < 2;
    const operatedDaysAgo = 120 + n * 9;
    const byColleague = n % 3 === 0;
    // The colleague reads a little less.
    const bias = byColleague ? -2 : 0;
    const pair = (involved: number, other: number) => (left ? ([involved, other] as const) : ([other, involved] as const));
    const [bends, straightens] = [around(OTHER[0], 16) + bias, around(OTHER[1], 5)];
    const visits = WEEKS.map((week): DemoVisit => {
      const [flexion, extension] = OPERATED[week];
      return {
        daysAgo: operatedDaysAgo - week * 7 - Math.floor(random() * 6),
        byColleague,
        readings: [
          { motion: 'knee.flexion', active: pair(around(flexion, 18) + bias, bends) },
          { motion: 'knee.extension', active: pair(around(extension, 6), straightens) },
        ],
      };
    });
    return {
      givenName: GIVEN[sex][n % GIVEN[sex].length]!,
      familyName: FAMILY[(n * 3 + Math.floor(n / 8)) % FAMILY.length]!,
      age: 60 + (n % 18),
      sex,
      occupation: '',
      complaint: `New ${left ? 'left' : 'right'} knee`,
      complaintAt: 'knee',
      involvedSide: left ? 'left' : 'right',
      procedure: { id: 'knee-replacement', daysAgo: operatedDaysAgo },
      ended: { daysAgo: operatedDaysAgo - 60, outcome: n % 5 === 0 ? 'better' : 'goal-met' },
      visits,
    };
  });
}
