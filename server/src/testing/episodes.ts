import { randomUUID } from 'node:crypto';
import type { JudgementView, NewReading } from '@dial-gauge/contract';
import type { Agent, Test } from 'supertest';
import { newPatient, newReading, TODAY } from './harness.js';

/** A reading of a knee. */
export const kneeReading = (end: number, over: Partial<NewReading> = {}): NewReading =>
  newReading({ motion: 'knee.flexion', end, ...over });

/** Episodes of one person after the other, with visits and knee readings, by one examiner. */
export function episodes(agent: Agent) {
  return {
    async patient(): Promise<string> {
      const person = newPatient({ birthDate: '1984-05-02', sex: 'male' });
      await agent.post('/api/patients').send(person).expect(200);
      return person.episode.id;
    },
    async visit(episodeId: string, assessedOn = TODAY): Promise<string> {
      const id = randomUUID();
      await agent.post(`/api/episodes/${episodeId}/visits`).send({ id, assessedOn }).expect(200);
      return id;
    },
    hold: (id: string, end: number, over: Partial<NewReading> = {}): Test =>
      agent.post(`/api/visits/${id}/readings`).send(kneeReading(end, over)),
    judgement: async (id: string): Promise<JudgementView> => (await agent.get(`/api/visits/${id}/judgement`).expect(200)).body,
  };
}

export type Episodes = ReturnType<typeof episodes>;

/** An intake as it is sent: what the view holds beside it is left out. */
export const intakeOf = ({ id: _id, openedOn: _openedOn, ...intake }: Record<string, unknown>): object => intake;
