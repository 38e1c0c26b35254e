import { First1700000000001 } from './0001-first.js';
import { Library1700000000002 } from './0002-library.js';
import { Sheet1700000000003 } from './0003-sheet.js';
import { Prepare1700000000004 } from './0004-prepare.js';
import { Judge1700000000005 } from './0005-judge.js';
import { Kept1700000000006 } from './0006-kept.js';
import { Judged1700000000007 } from './0007-judged.js';

/** Oldest first. */
export const MIGRATIONS = [
  First1700000000001,
  Library1700000000002,
  Sheet1700000000003,
  Prepare1700000000004,
  Judge1700000000005,
  Kept1700000000006,
  Judged1700000000007,
];
