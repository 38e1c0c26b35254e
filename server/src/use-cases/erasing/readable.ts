import type { MeasurementView, PatientRecord, VisitRecord } from '@dial-gauge/contract';
import {
  ageOn,
  dayWords,
  endFigure,
  findMotion,
  findProcedure,
  formatNumber,
  instrumentWord,
  protocolName,
  protocolOfId,
  say,
  suffixOf,
  type Block,
  type Report,
} from '@dial-gauge/core';

/** The record of a person to be read: who they are, what they were in care for, what was measured and what was signed. */
export function readable(
  { patient, episodes }: PatientRecord,
  visits: readonly VisitRecord[],
  signatures: readonly Readonly<Record<string, unknown>>[],
  clinic: string,
): Report {
  const name = `${patient.givenName} ${patient.familyName}`;
  return {
    kind: 'record',
    title: name,
    subtitle: say('The whole record, as it is kept at {clinic}', { clinic }),
    foot: `${name} · ${clinic}`,
    draft: false,
    large: false,
    blocks: [
      {
        kind: 'facts',
        rows: [
          [say('Born'), dayWords(patient.birthDate)],
          [say('Sex by the norms'), say(patient.sex)],
          ...(patient.gender ? [[say('Gender'), patient.gender] as const] : []),
          ...(patient.fileNumber ? [[say('File'), patient.fileNumber] as const] : []),
          ...(patient.occupation ? [[say('Occupation'), patient.occupation] as const] : []),
        ],
      },
      {
        kind: 'paragraph',
        tone: 'quiet',
        text: say('Every entry with who made it and what stood before is in record.json beside this page.'),
      },
      ...episodes.flatMap((episode): Block[] => [
        { kind: 'heading', text: episode.complaint },
        {
          kind: 'facts',
          rows: [
            [say('In care since'), dayWords(episode.openedOn)],
            ...(episode.procedureId || episode.procedure ? [[say('Procedure'), procedureWords(episode)] as const] : []),
            ...(episode.ended
              ? [[say('Discharged'), `${dayWords(episode.ended.on)}, ${episode.ended.by}. ${episode.ended.note}`.trim()] as const]
              : []),
          ],
        },
        ...visits.filter((record) => record.episode.id === episode.id).flatMap((record) => visitBlocks(record, signatures)),
      ]),
    ],
  };
}

function procedureWords({ procedureId, procedure, procedureOn }: PatientRecord['episodes'][number]): string {
  const name = procedure || (procedureId && findProcedure(procedureId)?.name) || '';
  return [name, procedureOn ? dayWords(procedureOn) : ''].filter(Boolean).join(', ');
}

function visitBlocks({ visit, patient, measurements }: VisitRecord, signatures: readonly Readonly<Record<string, unknown>>[]): Block[] {
  const signed = signatures.filter((row) => row['visit_id'] === visit.id).map((row) => String(row['summary'] ?? ''));
  return [
    {
      kind: 'heading',
      text: say('Visit {number}, {day}, {examiner}, aged {age}', {
        number: visit.number,
        day: dayWords(visit.assessedOn),
        examiner: visit.examiner,
        age: ageOn(patient.birthDate, visit.assessedOn),
      }),
    },
    ...signed.filter(Boolean).map((text): Block => ({ kind: 'paragraph', text })),
    measurements.length === 0
      ? { kind: 'paragraph', tone: 'quiet', text: say('Nothing was measured.') }
      : {
          kind: 'table',
          caption: say('Every reading that stands'),
          head: ['Measurement', 'How', 'Readings', 'Pain', 'Note'].map((word) => say(word)),
          rows: measurements.map(readingRow),
          figures: [2],
        },
  ];
}

function readingRow(m: MeasurementView): string[] {
  const known = findMotion(m.motion);
  const protocol = m.protocol ? protocolOfId(m.protocol) : undefined;
  const figure = (end: number) => (known ? `${endFigure(end, known)}${suffixOf(known.unit)}` : formatNumber(end));
  return [
    [m.side === 'midline' ? '' : say(m.side), protocol ? protocolName(protocol) : (known?.name ?? m.motion)].filter(Boolean).join(' '),
    [say(m.mode), say(m.position), instrumentWord(m.instrument)].join(', '),
    m.trials.length > 0
      ? m.trials.map(({ end }) => figure(end)).join(', ')
      : [say('not measured'), m.notDoneWhy].filter(Boolean).join(': '),
    m.pain === null ? say('not asked') : [formatNumber(m.pain), m.painWhere].filter(Boolean).join(', '),
    m.note,
  ];
}
