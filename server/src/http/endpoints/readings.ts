import { READINGS } from '@dial-gauge/contract';
import { serve, type Resource } from '../endpoint.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { MeasurementRow, TrialRow } from '../../records/readings/entities.js';
import { correct, hold, remark, withdraw } from '../../use-cases/measuring/readings.js';
import { measurementName, trialWords } from '../../records/readings/words.js';

/** What is measured at a visit, as it was entered. */
export const readings: Resource = {
  entities: [MeasurementRow, TrialRow],
  routes: [
    serve(READINGS.holdReading, (work, { params, body, sent }) => hold(work, params.id, body, sent), {
      unit: 'connection',
      asksForSession: true,
      late: {
        name: 'holdReading',
        words: (_work, { body }) => {
          const { motion, side, mode, digit = 0, start, end, lower, scale = null, sense = null } = body;
          const figures = { startAngle: start, endAngle: end, lowerZero: lower?.zero ?? null, lowerEnd: lower?.end ?? null, scale, sense };
          return `${measurementName({ motion, side, mode, digit })}: ${trialWords(motion, figures)}`;
        },
      },
    }),
    serve(READINGS.correctReading, (work, { params, body }) => correct(work, params.id, body), {
      late: {
        name: 'correctReading',
        words: async (work, { params, body }) => `${await trialName(work, params.id)}: put right to ${body.end} (${body.why})`,
      },
    }),
    serve(
      READINGS.withdrawReading,
      async (work, { params }) => {
        await withdraw(work, params.id);
        return {};
      },
      { late: { name: 'withdrawReading', words: async (work, { params }) => `${await trialName(work, params.id)}: taken back` } },
    ),
    serve(READINGS.remark, (work, { params, body }) => remark(work, params.id, body), {
      late: {
        name: 'remark',
        words: (_work, { body }) => {
          const { motion, side, mode, digit = 0, pain, painWhere, endFeel, substitutions, notDone, notDoneWhy, note } = body;
          const said = Object.entries({
            pain,
            'hurts at': painWhere,
            'end feel': endFeel,
            'faked by': substitutions,
            'not done': notDone,
            why: notDoneWhy,
            note,
          })
            .filter(([, value]) => value !== undefined && value !== null && value !== '')
            .map(([name, value]) => `${name} ${String(value)}`);
          return `${measurementName({ motion, side, mode, digit })}: ${said.join(', ') || 'a remark taken back'}`;
        },
      },
    }),
  ],
};

async function trialName(work: UnitOfWork, id: string): Promise<string> {
  const { measurementId } = await work.one(TrialRow, id, 'reading');
  return measurementName(await work.one(MeasurementRow, measurementId, 'measurement'));
}
