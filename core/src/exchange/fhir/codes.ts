import type { EntryUnit } from '../../angle/units.js';
import type { Confidence, InvolvedSide, Joint, Sex, Side, Unit } from '../../terms.js';

/*
 * Codes of an exchange. Ours stand under one address, a name and not a place
 * to be fetched from. Those of others are from memory, with how sure each is:
 * they were not looked up, and have to be before they are relied on.
 */

const BASE = 'https://dial-gauge.example/fhir';

/** Code systems of our own. */
export const OWN = {
  motion: `${BASE}/motion`,
  protocol: `${BASE}/protocol`,
  part: `${BASE}/part`,
  instrument: `${BASE}/instrument`,
  region: `${BASE}/region`,
  side: `${BASE}/side`,
  item: `${BASE}/screen-item`,
  procedure: `${BASE}/procedure`,
  word: `${BASE}/word`,
  drill: `${BASE}/drill`,
} as const;

/** Extensions of our own. */
export const EXTENSION = {
  /** Which trial or try of its observation a component belongs to, from 1. */
  nth: `${BASE}/StructureDefinition/nth`,
  /** How an assessment is judged, on its encounter. */
  judging: `${BASE}/StructureDefinition/judging`,
  /** A limit as data, on its flag. */
  limit: `${BASE}/StructureDefinition/limit`,
  /** Which screen of the visit an item belongs to, from 1. */
  screen: `${BASE}/StructureDefinition/screen`,
  /** The day that was written for a screen, where it was. */
  screenedOn: `${BASE}/StructureDefinition/screened-on`,
  /** How sure somebody is of a code that was not looked up. */
  sure: `${BASE}/StructureDefinition/code-from-memory`,
} as const;

export const BODY_SITE_EXTENSION = 'http://hl7.org/fhir/StructureDefinition/bodySite';
export const SNOMED = 'http://snomed.info/sct';
export const LOINC = 'http://loinc.org';
export const UCUM = 'http://unitsofmeasure.org';
export const TERMINOLOGY = 'http://terminology.hl7.org/CodeSystem';

export interface RecalledCode {
  readonly code: string;
  readonly display: string;
  readonly confidence: Confidence;
}

const recalled = (code: string, display: string, confidence: Confidence = 'high'): RecalledCode => ({ code, display, confidence });

/**
 * SNOMED CT structures of joints. Joints of the thumb, fingers, forefoot and
 * forearm are not recalled with certainty, and have none.
 *
 * @see from memory; check digits pass, meanings were not looked up
 */
export const JOINT_STRUCTURES: Readonly<Partial<Record<Joint, RecalledCode>>> = {
  shoulder: recalled('16982005', 'Shoulder region structure'),
  elbow: recalled('16953009', 'Elbow joint structure'),
  wrist: recalled('74670003', 'Wrist joint structure'),
  hip: recalled('24136001', 'Hip joint structure'),
  knee: recalled('49076000', 'Knee joint structure'),
  ankle: recalled('70258002', 'Ankle joint structure'),
  cervical: recalled('122494005', 'Cervical vertebral column', 'medium'),
  thoracic: recalled('122495006', 'Thoracic vertebral column', 'medium'),
  lumbar: recalled('122496007', 'Lumbar vertebral column', 'medium'),
};

/** @see from memory */
export const SIDE_CODES: Readonly<Partial<Record<Side | InvolvedSide, RecalledCode>>> = {
  left: recalled('7771000', 'Left'),
  right: recalled('24028007', 'Right'),
  both: recalled('51440002', 'Right and left'),
};

/** @see from memory */
export const PAIN_SCORE = recalled('72514-3', 'Pain severity - 0-10 verbal numeric rating [Score] - Reported');

/** UCUM codes; an angle is `deg`, never `°` and never `Cel`. @see from memory */
export const UCUM_CODES: Readonly<Record<EntryUnit | Exclude<Unit, 'deg'>, string>> = {
  deg: 'deg',
  cm: 'cm',
  in: '[in_i]',
  N: 'N',
  lb: '[lbf_av]',
  kg: 'kgf',
  s: 's',
  yesNo: '1',
};

export const GENDERS: Readonly<Record<Sex, 'female' | 'male' | 'unknown'>> = { female: 'female', male: 'male', unknown: 'unknown' };
