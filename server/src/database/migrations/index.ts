import { PasswordLinks1700000000029 } from './0029-password-links.js';
import { KeptByRights1700000000028 } from './0028-kept-by-rights.js';
import { QueueMarks1700000000027 } from './0027-queue-marks.js';
import { AttemptBudgets1700000000026 } from './0026-attempt-budgets.js';
import { First1700000000001 } from './0001-first.js';
import { Library1700000000002 } from './0002-library.js';
import { Sheet1700000000003 } from './0003-sheet.js';
import { Prepare1700000000004 } from './0004-prepare.js';
import { Judge1700000000005 } from './0005-judge.js';
import { Kept1700000000006 } from './0006-kept.js';
import { Judged1700000000007 } from './0007-judged.js';
import { Screens1700000000008 } from './0008-screens.js';
import { ScreenPlan1700000000009 } from './0009-screen-plan.js';
import { Programs1700000000010 } from './0010-programs.js';
import { PatientPages1700000000011 } from './0011-patient-pages.js';
import { Drills1700000000013 } from './0013-drills.js';
import { Pairings1700000000014 } from './0014-pairings.js';
import { Practice1700000000015 } from './0015-practice.js';
import { Clips1700000000016 } from './0016-clips.js';
import { Simulated1700000000017 } from './0017-simulated.js';
import { Accounts1700000000018 } from './0018-accounts.js';
import { People1700000000019 } from './0019-people.js';
import { Queue1700000000020 } from './0020-queue.js';
import { Audit1700000000021 } from './0021-audit.js';
import { Cohort1700000000022 } from './0022-cohort.js';
import { Erasure1700000000023 } from './0023-erasure.js';
import { EndedByDay1700000000024 } from './0024-ended-by-day.js';
import { SecondFactorRule1700000000025 } from './0025-second-factor-rule.js';
import { Past1700000000012 } from './0012-past.js';
import { ValueChecks1700000000030 } from './0030-value-checks.js';
import { LossesInQueue1700000000031 } from './0031-losses-in-queue.js';

/** Oldest first. */
export const MIGRATIONS = [
  First1700000000001,
  Library1700000000002,
  Sheet1700000000003,
  Prepare1700000000004,
  Judge1700000000005,
  Kept1700000000006,
  Judged1700000000007,
  Screens1700000000008,
  ScreenPlan1700000000009,
  Programs1700000000010,
  PatientPages1700000000011,
  Past1700000000012,
  Drills1700000000013,
  Pairings1700000000014,
  Practice1700000000015,
  Clips1700000000016,
  Simulated1700000000017,
  Accounts1700000000018,
  People1700000000019,
  Queue1700000000020,
  Audit1700000000021,
  Cohort1700000000022,
  Erasure1700000000023,
  EndedByDay1700000000024,
  SecondFactorRule1700000000025,
  AttemptBudgets1700000000026,
  QueueMarks1700000000027,
  KeptByRights1700000000028,
  PasswordLinks1700000000029,
  ValueChecks1700000000030,
  LossesInQueue1700000000031,
];
