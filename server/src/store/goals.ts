import { randomUUID } from 'node:crypto';
import type { GoalChange, GoalView } from '@dial-gauge/contract';
import { measurementKey, protocolOfId, type Digit, type GoalChoice } from '@dial-gauge/core';
import type { DataSource } from 'typeorm';
import type { Caller } from '../caller.js';
import { notFound } from '../problem.js';
import { Episode, GoalRow } from './entities/index.js';

type Way = Pick<GoalView, 'protocol' | 'digit' | 'side' | 'mode'>;

/** The key of a measurement by its protocol. */
export function keyOfWay({ protocol, digit, side, mode }: Way): string {
  return measurementKey({ ...protocolOfId(protocol)!, protocol, digit, side, mode });
}

/** Goals of an episode. Each one set is a row of its own; the latest counts. */
export class Goals {
  constructor(
    private readonly dataSource: DataSource,
    private readonly clinicId: string,
  ) {}

  async of(episodeId: string): Promise<GoalView[]> {
    const rows = await this.dataSource
      .getRepository(GoalRow)
      .find({ where: { clinicId: this.clinicId, episodeId }, order: { setAt: 'ASC' } });
    const latest = new Map<string, GoalView | null>();
    for (const { protocol, digit, side, mode, choice } of rows) {
      const way: Way = { protocol, side, mode, ...(digit ? { digit: digit as Digit } : {}) };
      latest.set(keyOfWay(way), choice && { ...way, goal: choice });
    }
    return [...latest.values()].filter((view) => view !== null);
  }

  async set({ clinicId, userId }: Caller, episodeId: string, { goal, protocol, digit, side, mode }: GoalChange): Promise<void> {
    if (!(await this.dataSource.getRepository(Episode).existsBy({ id: episodeId, clinicId }))) throw notFound('episode of care');
    const row = {
      id: randomUUID(),
      clinicId,
      episodeId,
      protocol,
      digit: digit ?? 0,
      side,
      mode,
      choice: goal,
      setBy: userId,
      setAt: new Date(),
    };
    await this.dataSource.getRepository(GoalRow).save(row, { reload: false });
  }
}

/** Goals by the key of their series, as the core takes them. */
export function goalsByKey(goals: readonly GoalView[]): Map<string, GoalChoice> {
  return new Map(goals.map((view) => [keyOfWay(view), view.goal]));
}
