import { arms, defineMotion, turn } from './define.js';
import type { Motion } from './types.js';

const REARFOOT = arms(
  'back of the ankle, midway between the ankle bones',
  'back mid-line of the lower leg',
  'back mid-line of the heel bone',
);
const WHOLE = arms('front of the ankle, midway between the ankle bones', 'crest of the shin', 'front mid-line of the second metatarsal');
const BY = ['goniometer', 'picture', 'visual'] as const;
const POOR = 'Two examiners agree poorly here: repeat it yourself, and lean on the other side rather than on a table.';

export const SUBTALAR: readonly Motion[] = (['inversion', 'eversion'] as const).map((which) => {
  const inward = which === 'inversion';
  const feel = inward ? (['firm'] as const) : (['hard', 'firm'] as const);
  const [on, back] = inward ? [60, 40] : [40, 60];
  return defineMotion(`subtalar.${which}`, {
    name: inward ? 'Foot inversion' : 'Foot eversion',
    short: inward ? 'Inversion' : 'Eversion',
    plane: 'F',
    opposite: inward ? 'eversion' : 'inversion',
    limits: inward ? [-40, 80] : [-60, 60],
    protocols: [
      {
        at: 'sitting',
        variantLabel: 'whole foot',
        by: BY,
        swing: 'vertical',
        start: 'Sitting, knee bent to 90°, foot hanging, ankle relaxed.',
        put: WHOLE,
        hold: 'lower leg',
        fakes: inward ? ['hip turns out', 'knee turns', 'foot points'] : ['hip turns in', 'knee turns', 'ankle pulls up'],
        feel,
        not: `The heel bone alone in prone is another measurement: never compare. ${POOR}`,
        dial: [180, inward ? 1 : -1, on, back],
        figure: turn('footFront', 'ankle', ['foot'], 'knee', inward ? 30 : 15),
      },
      {
        at: 'prone',
        variantLabel: 'heel bone only',
        by: BY,
        swing: 'horizontal',
        start: 'Face down, feet over the end of the table, knee straight.',
        put: REARFOOT,
        hold: 'lower leg',
        fakes: ['hip turns', 'foot points'],
        feel,
        not: `The whole foot in sitting is another measurement: never compare. ${POOR}`,
        dial: [180, inward ? -1 : 1, on, back],
        figure: turn('heelBack', 'ankle', ['heel'], 'calf', inward ? 20 : 10),
      },
    ],
  });
});
