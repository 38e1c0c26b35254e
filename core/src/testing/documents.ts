import { documentOf, type AssessmentDocument } from '../exchange/document.js';
import { EVERY_KIND } from './every-kind.js';

/** A document with every part: two days, an operation, a limit, a weight in pounds, two screens. The person is made up. */
export const FULL_DOCUMENT: AssessmentDocument = {
  format: 'dial-gauge/assessment',
  version: 1,
  person: { birthDate: '1961-07-30', sex: 'female' },
  assessedOn: '2026-11-20',
  involvedSide: 'left',
  complaintAt: 'knee',
  procedure: { id: 'knee-replacement', on: '2026-10-09' },
  normSets: ['boone-azen-1979', 'aaos-1965'],
  precautions: [{ motion: 'knee.flexion', side: 'left', limit: 95, until: '2026-12-18', source: '=surgeon, "letter"' }],
  measurements: [
    {
      motion: 'knee.extension',
      side: 'left',
      mode: 'passive',
      position: 'supine',
      instrument: 'goniometer',
      trials: [{ end: -9 }, { start: -13, end: -6 }],
      pain: 3,
      painWhere: '-front, "deep"\nat the end',
      endFeel: 'firm',
      substitutions: [],
      examiner: 'Wren Calloway',
    },
    {
      motion: 'knee.flexion',
      side: 'left',
      mode: 'active',
      position: 'supine',
      instrument: 'inclinometer',
      trials: [{ zero: 350, end: 83, sense: 1 }],
    },
    {
      motion: 'strength.kneeExtension',
      side: 'right',
      mode: 'active',
      position: 'sitting',
      instrument: 'dynamometer',
      trials: [{ value: 43, unit: 'lb' }],
    },
  ],
  screens: [
    {
      screen: 'squatCheck',
      items: [
        {
          item: 'squat',
          view: 'side',
          with: ['heelsRaised'],
          tries: [
            { faults: ['heelLifts'], pain: 0, lines: { shin: 21, trunk: 34.5 } },
            { faults: [], meets: null },
          ],
        },
      ],
    },
    {
      screen: 'loadingReadiness',
      items: [
        { item: 'kneeToWall', side: 'left', tries: [{ value: 4 }] },
        { item: 'pressUp', tries: [], skipped: 'not today' },
      ],
    },
  ],
  previous: {
    assessedOn: '2026-10-30',
    measurements: [
      { motion: 'knee.flexion', side: 'left', mode: 'active', position: 'supine', instrument: 'goniometer', trials: [{ end: 69 }] },
    ],
  },
};

/** That one, and the visits that have every kind of finding. */
export const DOCUMENTS: readonly AssessmentDocument[] = [FULL_DOCUMENT, ...EVERY_KIND.map((one) => documentOf(one))];

/** As a format gives it back: what was not said is not there, nor an end that a limit does not have. */
export function asRead(document: AssessmentDocument): Readonly<Record<string, unknown>> {
  const { precautions, ...rest } = JSON.parse(JSON.stringify(document)) as AssessmentDocument;
  return {
    ...rest,
    ...(precautions && { precautions: precautions.map(({ until, ...limit }) => (until === null ? limit : { ...limit, until })) }),
  };
}
