import type { DemoPatient } from './person.js';

export const CELLIST: DemoPatient = {
  givenName: 'Perpetua',
  familyName: 'Linnet',
  dueInDays: 4,
  age: 52,
  sex: 'female',
  occupation: 'Cellist',
  complaint: 'Bowing arm stiff and sore since spring',
  complaintAt: 'shoulder',
  involvedSide: 'right',
  wanted: 'Full bows to the tip, two hours of rehearsal',
  visits: [
    {
      daysAgo: 37,
      readings: [
        { motion: 'shoulder.flexion', active: [162, 92], passive: [168, 104] },
        {
          motion: 'shoulder.abduction',
          active: [170, 68],
          passive: [176, 78],
          pain: { side: 'right', level: 5, where: 'outside of the upper arm' },
        },
        {
          motion: 'shoulder.externalRotation',
          active: [84, 14],
          passive: [92, 22],
          pain: { side: 'right', level: 6, where: 'outside of the upper arm' },
        },
        { motion: 'shoulder.internalRotation', active: [60, 36], passive: [66, 44] },
      ],
    },
    {
      daysAgo: 8,
      readings: [
        { motion: 'shoulder.flexion', active: [163, 104], passive: [169, 116] },
        {
          motion: 'shoulder.abduction',
          active: [171, 74],
          passive: [177, 86],
          pain: { side: 'right', level: 4, where: 'outside of the upper arm' },
        },
        {
          motion: 'shoulder.externalRotation',
          active: [85, 19],
          passive: [91, 27],
          pain: { side: 'right', level: 5, where: 'outside of the upper arm' },
        },
        { motion: 'shoulder.internalRotation', active: [61, 39], passive: [67, 48] },
      ],
    },
  ],
};

export const CERAMICIST: DemoPatient = {
  givenName: 'Anselm',
  familyName: 'Quill',
  age: 44,
  sex: 'male',
  occupation: 'Ceramicist',
  complaint: 'Right wrist stiff after a fracture',
  complaintAt: 'wrist',
  involvedSide: 'right',
  procedure: { id: 'distal-radius-plate', daysAgo: 9 * 7 },
  wanted: 'Centring clay with the palm',
  visits: [
    {
      daysAgo: 20,
      readings: [
        { motion: 'wrist.extension', active: [66, 42], passive: [71, 50], pain: { side: 'right', level: 3, where: 'back of the wrist' } },
        { motion: 'wrist.flexion', active: [70, 44], passive: [76, 52] },
        { motion: 'forearm.supination', active: [80, 58], passive: [84, 64] },
      ],
    },
    {
      daysAgo: 6,
      readings: [
        { motion: 'wrist.extension', active: [66, 46], passive: [71, 54], pain: { side: 'right', level: 2, where: 'back of the wrist' } },
        { motion: 'wrist.flexion', active: [71, 55], passive: [76, 63] },
        { motion: 'forearm.supination', active: [81, 70], passive: [84, 75] },
      ],
    },
  ],
};

export const BEEKEEPER: DemoPatient = {
  signed: true,
  dueInDays: 0,
  givenName: 'Fenwick',
  familyName: 'Oare',
  age: 61,
  sex: 'male',
  occupation: 'Beekeeper',
  complaint: 'Neck stiff when looking over the shoulder',
  complaintAt: 'cervical',
  involvedSide: null,
  wanted: 'Reversing the trailer',
  visits: [
    {
      daysAgo: 15,
      readings: [
        { motion: 'cervical.flexion', midline: 41, instrument: 'inclinometer' },
        { motion: 'cervical.extension', midline: 38, instrument: 'inclinometer' },
        { motion: 'cervical.lateralFlexion', active: [22, 25], instrument: 'inclinometer' },
        { motion: 'cervical.rotation', active: [44, 51], protocol: 'cervical.rotation/supine', instrument: 'inclinometer' },
      ],
    },
  ],
};

export const ROWING_COACH: DemoPatient = {
  signed: true,
  givenName: 'Juniper',
  familyName: 'Strake',
  age: 47,
  sex: 'female',
  occupation: 'Rowing coach',
  complaint: 'Low back stiff after a season in the launch',
  complaintAt: 'lumbar',
  involvedSide: null,
  wanted: 'A morning in the launch',
  visits: [
    {
      daysAgo: 12,
      readings: [
        { motion: 'lumbar.flexion', sites: [61, 26] },
        { motion: 'lumbar.extension', sites: [22, 9] },
        { motion: 'muscleLength.straightLegRaise', passive: [68, 71], instrument: 'inclinometer' },
      ],
    },
  ],
};
