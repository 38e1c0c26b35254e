import type { BodyStructure, Device, Encounter, Observation, ObservationReferenceRange, Patient, Reference } from '@medplum/fhirtypes';
import { isJoint, motion, protocolOf, regionName } from '../../catalogue/index.js';
import type { JudgedMeasurement } from '../../finding/index.js';
import { measurementKey } from '../../assessment.js';
import { findItem, findScreen, itemName, type Modification, type View } from '../../screen/index.js';
import type { Instrument, IsoDate, Region, Side } from '../../terms.js';
import { instrumentWord } from '../../words/instruments.js';
import type { MeasurementEntry, ScreenEntry } from '../document.js';
import { leavesOf, OWN_TO_EACH, picked } from '../leaves.js';
import { BODY_SITE_EXTENSION, EXTENSION, JOINT_STRUCTURES, OWN, SIDE_CODES, SNOMED, TERMINOLOGY } from './codes.js';
import { coded, componentsOf, quantity, recalledCoding } from './parts.js';
import type { Put, Writing } from './writing.js';

function bodyStructure(put: Put, patient: Reference<Patient>, region: Region, side: string): Reference<BodyStructure> {
  const recalled = isJoint(region) ? recalledCoding(SNOMED, JOINT_STRUCTURES[region]) : undefined;
  return put({
    resourceType: 'BodyStructure',
    id: `${side}-${region}`,
    location: coded(OWN.region, region, regionName(region), recalled),
    locationQualifier: [coded(OWN.side, side, side, recalledCoding(SNOMED, SIDE_CODES[side as Side]))],
    patient,
  });
}

/** The joint as a concept, and its side by the structure it points to: FHIR has no element for a side. */
function bodySite({ put, patient }: Writing, region: Region, side: string) {
  const recalled = isJoint(region) ? recalledCoding(SNOMED, JOINT_STRUCTURES[region]) : undefined;
  return {
    extension: [{ url: BODY_SITE_EXTENSION, valueReference: bodyStructure(put, patient, region, side) }],
    ...coded(OWN.region, region, regionName(region), recalled),
    text: side === 'midline' ? regionName(region) : `${side} ${regionName(region).toLowerCase()}`,
  };
}

export function measured(
  about: Writing,
  encounter: Reference<Encounter>,
  id: string,
  on: IsoDate,
  entry: MeasurementEntry,
  judged: ReadonlyMap<string, JudgedMeasurement>,
): Omit<Observation, 'status'> {
  const { trials, motion: motionId, side, instrument, examiner, ...rest } = entry;
  const known = motion(motionId);
  const way = protocolOf(entry);
  const judgement = judged.get(measurementKey(entry));
  return {
    resourceType: 'Observation',
    id,
    category: [{ coding: [{ system: `${TERMINOLOGY}/observation-category`, code: 'exam', display: 'Exam' }] }],
    code: coded(OWN.motion, motionId, known.name),
    subject: about.patient,
    encounter,
    effectiveDateTime: on,
    ...(examiner !== undefined && { performer: [about.by(examiner)] }),
    ...(judgement && { valueQuantity: quantity(judgement.value, known.unit), ...heldAgainst(judgement) }),
    bodySite: bodySite(about, known.joint, side),
    method: coded(OWN.protocol, way.id, way.label || way.id),
    device: device(about.put, instrument),
    component: [
      ...componentsOf(leavesOf(rest), known.unit),
      ...trials.flatMap((trial, at) => componentsOf(leavesOf(trial), known.unit, at + 1)),
    ],
  };
}

/** One range for every table, with its source; low, normal or high against the one that judges, and against no other. */
function heldAgainst({ norms, judgedBy, measurement }: JudgedMeasurement): Pick<Observation, 'referenceRange' | 'interpretation'> {
  const { unit, better } = motion(measurement.motion);
  const by = norms.find((norm) => norm.set === judgedBy && norm.comparable);
  const ranges = norms.map(({ expectedBand: { low, high }, setName, band, source }): ObservationReferenceRange => ({
    low: quantity(low, unit),
    high: quantity(high, unit),
    type: { coding: [{ system: `${TERMINOLOGY}/referencerange-meaning`, code: 'normal' }] },
    text: `${setName}, ${band}. ${source}`,
  }));
  if (!by || better === 'neither') return ranges.length > 0 ? { referenceRange: ranges } : {};
  const low = better === 'more' ? 'L' : 'H';
  const code = by.short ? low : 'N';
  return {
    referenceRange: ranges,
    interpretation: [{ coding: [{ system: `${TERMINOLOGY}/v3-ObservationInterpretation`, code }], text: `against ${by.setName}` }],
  };
}

function device(put: Put, instrument: Instrument): Reference<Device> {
  const name = instrumentWord(instrument);
  return put({
    resourceType: 'Device',
    id: instrument,
    type: coded(OWN.instrument, instrument, name),
    deviceName: [{ name, type: 'user-friendly-name' }],
  });
}

export function screened(
  about: Writing,
  encounter: Reference<Encounter>,
  id: string,
  screen: ScreenEntry,
  nth: number,
): Omit<Observation, 'status'>[] {
  const { screen: screenId, screenedOn, items } = screen;
  const found = findScreen(screenId);
  return items.map(({ tries, ...item }, at): Omit<Observation, 'status'> => {
    const known = found && findItem(found, item.item);
    const unit = known?.answered.by === 'amount' ? known.answered.unit : 'yesNo';
    const { item: itemId, side, ...rest } = item;
    const name = known
      ? itemName({
          name: known.name,
          side: side ?? 'midline',
          view: (item.view ?? null) as View | null,
          with: (item.with ?? []) as Modification[],
        })
      : itemId;
    return {
      resourceType: 'Observation',
      id: `${id}-i${at + 1}`,
      extension: [
        { url: EXTENSION.screen, valuePositiveInt: nth },
        ...(screenedOn === undefined ? [] : [{ url: EXTENSION.screenedOn, valueDate: screenedOn }]),
      ],
      category: [{ coding: [{ system: `${TERMINOLOGY}/observation-category`, code: 'exam', display: 'Exam' }] }],
      code: coded(OWN.item, `${screenId}.${itemId}`, name),
      subject: about.patient,
      encounter,
      effectiveDateTime: screenedOn ?? about.assessedOn,
      component: [
        ...componentsOf({ ...leavesOf(rest), ...(side === undefined ? {} : { side }) }, unit),
        ...tries.flatMap((one, tryAt) =>
          componentsOf(
            picked(leavesOf(one), (leaf) => OWN_TO_EACH.try.includes(leaf)),
            unit,
            tryAt + 1,
          ),
        ),
      ],
    };
  });
}
