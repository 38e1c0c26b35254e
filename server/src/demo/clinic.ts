import { BEEKEEPER, CELLIST, CERAMICIST, ROWING_COACH } from './arms-and-spine.js';
import { DANCE_TEACHER, FENCER, FERRY_ENGINEER, GARDENER } from './legs.js';
import type { DemoPatient } from './person.js';

/** A made-up clinic with made-up people. Days count back from the day of seeding. */
export const DEMO_CLINIC = { name: 'Saltmarsh Lane Physiotherapy', normSet: 'boone-azen-1979' };
export const DEMO_USER = { name: 'Wren Calloway', email: 'wren@saltmarsh.example', password: 'tide-and-table' };

/** A second examiner, so that what two people measure can be seen. */
const DEMO_COLLEAGUE = { name: 'Rook Ansty', email: 'rook@saltmarsh.example', password: 'tide-and-table' };

/** Two more, so that what an assistant and a reader may do can be seen. */
const DEMO_ASSISTANT = { name: 'Perrin Oake', email: 'perrin@saltmarsh.example', password: 'tide-and-table' };
const DEMO_READER = { name: 'Sedge Marlow', email: 'sedge@saltmarsh.example', password: 'tide-and-table' };

/** Everybody who works there, with what they are. */
export const DEMO_STAFF = [
  { ...DEMO_USER, role: 'lead' },
  { ...DEMO_COLLEAGUE, role: 'examiner' },
  { ...DEMO_ASSISTANT, role: 'assistant' },
  { ...DEMO_READER, role: 'reader' },
] as const;

/** Whom the sign-in page of the demo offers to be. */
export const DEMO_DOOR = {
  people: DEMO_STAFF.map(({ name, email, role }) => ({ name, email, role })),
  password: DEMO_USER.password,
};

export const DEMO_PATIENTS: readonly DemoPatient[] = [
  GARDENER,
  DANCE_TEACHER,
  FERRY_ENGINEER,
  CELLIST,
  CERAMICIST,
  FENCER,
  BEEKEEPER,
  ROWING_COACH,
];

/** A study of the clinic's own error that is read to the end and waits to be adopted: wrists, one examiner, twice. */
export const DEMO_STUDY = {
  name: 'Wrist extension, both wrists of six of us',
  motion: 'wrist.extension',
  protocol: 'wrist.extension/sitting',
  mode: 'passive',
  instrument: 'goniometer',
  kind: 'repeats',
  daysAgo: 11,
  table: [
    [68, 69],
    [74, 73],
    [61, 62],
    [77, 78],
    [70, 72],
    [66, 65],
    [81, 80],
    [58, 58],
    [72, 70],
    [63, 64],
    [75, 76],
    [69, 68],
  ],
} as const;
