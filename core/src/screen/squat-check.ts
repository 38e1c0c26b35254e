import { amount, atLeast, defineScreen, seenFrom } from './define.js';

/** One squat, looked at from three sides and changed in three ways. @see common practice, no source */
export const SQUAT_CHECK = defineScreen({
  id: 'squatCheck',
  version: 1,
  name: 'Squat check',
  purpose: 'One squat seen from the front, the side and behind, and changed one thing at a time. Each fault asks its own question.',
  items: [
    {
      id: 'squat',
      name: 'Squat',
      setUp: 'Barefoot, feet under the front hip bones, second toes forward, arms held up in front.',
      say: 'Sit down between your feet, your heels stay heavy, and come up again. Slowly, three times.',
      meets: 'from this view none of the faults is seen',
      answered: { by: 'look', noFaults: true },
      views: ['front', 'side', 'behind'],
      modifications: ['heelsRaised', 'handsOnHips', 'oneSideLoaded'],
      faults: [
        ...seenFrom('front', {
          footTurnsOut: 'squat.heelLifts',
          footFlattens: 'squat.footFlattens',
          kneeRollsIn: 'squat.kneeRollsIn',
          kneeRollsOut: null,
        }),
        ...seenFrom('side', {
          trunkFallsForward: 'squat.trunkFallsForward',
          pelvisTucksEarly: 'squat.pelvisTucks',
          lowBackArches: null,
          armsFall: 'overheadReach',
          heelLifts: 'squat.heelLifts',
          notDeep: 'squat.notDeep',
        }),
        // With the heels raised an upright trunk means nothing.
        { id: 'trunkTooUpright', views: ['side'], opens: 'squat.trunkTooUpright', counts: true, notWith: ['heelsRaised'] },
        // At the very bottom of a deep squat without a weight it is normal: it asks its question and is no fault by itself.
        { id: 'pelvisTucksLate', views: ['side'], opens: 'squat.pelvisTucks', counts: false },
        // It tells which way the arms must reach.
        { id: 'gapStaysOpen', views: ['side'], opens: null, counts: false },
        ...seenFrom('behind', {
          heelRolls: 'squat.footFlattens',
          pelvisShifts: 'squat.leans',
          hipDrops: 'squat.leans',
          oneSideDeeper: 'squat.leans',
        }),
      ],
      sides: 'either',
      at: 'standing',
      near: ['check.squatHeelsDown/standing'],
      minutes: 0.7,
      caution: 'Stand close enough to catch; stop on pain.',
      figure: 'deepSquat',
      figureFrom: { front: 'deepSquatFront', behind: 'deepSquatBehind' },
    },
    {
      id: 'rockBack',
      name: 'Hips back, back still',
      setUp: 'On hands and knees, knees under the hips, the low back in its middle position.',
      say: 'Keep your back as it is and take your seat back towards your heels, slowly.',
      meets: 'the low back stays as it is until the hips are bent to 110° or more',
      threshold: atLeast(110, 'deg'),
      answered: amount('deg', 60, 150, 'visual'),
      faults: ['pelvisTucksEarly'],
      at: 'quadruped',
      opens: 'squat.pelvisTucks',
      atHome: true,
      figure: 'quadruped',
    },
  ],
});
