import { Clinic, NormSetRow, ClinicChange, User, SessionRow, ExamSetRow } from './clinic.js';
import { Patient, Episode, RecordChange, Visit, Signature } from './record.js';
import { MeasurementRow, TrialRow, Amendment } from './measuring.js';
import { GoalRow, RetestRow, RetestRoundRow, RetestReadingRow } from './following.js';
import { StudyRow, StudyReadingRow, OwnErrorRow } from './study.js';

export * from './clinic.js';
export * from './record.js';
export * from './measuring.js';
export * from './following.js';
export * from './study.js';

export const ENTITIES = [
  Clinic,
  User,
  SessionRow,
  Patient,
  Episode,
  Visit,
  MeasurementRow,
  TrialRow,
  Amendment,
  NormSetRow,
  ClinicChange,
  ExamSetRow,
  RecordChange,
  Signature,
  GoalRow,
  RetestRow,
  RetestRoundRow,
  RetestReadingRow,
  StudyRow,
  StudyReadingRow,
  OwnErrorRow,
];
