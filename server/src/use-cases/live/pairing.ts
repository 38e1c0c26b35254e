import { randomBytes, randomInt } from 'node:crypto';
import { IsNull, MoreThan, Not } from 'typeorm';
import { Clinic } from '../../records/clinic/entities.js';
import { hashOf } from '../../shared/hash.js';
import { HttpProblem } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { openVisit } from '../../records/visits/open.js';
import { Visit } from '../../records/visits/entities.js';
import { PairingRow } from '../../records/pairings/entities.js';

/** How long a code can be used, and how long the phone that used it is an inclinometer. */
export const CODE_LASTS = 3 * 60_000;
const PHONE_LASTS = 4 * 3_600_000;
const CODES = 1_000_000;
/** Two sites want two; a third is somebody who changed phones. */
const PHONES_A_VISIT = 4;

interface Code {
  readonly id: string;
  readonly code: string;
  readonly expiresAt: string;
}

/** Makes a code for a visit that takes readings. A code of this visit that nobody used yet is worth nothing from now on. */
export async function makeCode(work: UnitOfWork, visitId: string, id: string): Promise<Code> {
  const { manager, clinicId, caller, now } = work;
  await openVisit(work, visitId, 'pessimistic_write');
  await manager.update(PairingRow, { clinicId, visitId, usedAt: IsNull(), closedAt: IsNull() }, { closedAt: now });
  const phones = await manager.countBy(PairingRow, { clinicId, visitId, closedAt: IsNull(), endsAt: MoreThan(now) });
  if (phones >= PHONES_A_VISIT)
    throw new HttpProblem(
      409,
      'Too many phones',
      `${phones} phones are paired with this visit; allowed: ${PHONES_A_VISIT}. Let one go first.`,
    );
  const expiresAt = new Date(now.getTime() + CODE_LASTS);
  const code = await freeCode(work);
  const row = { id, clinicId, visitId, codeHash: hashOf(code), madeBy: caller.userId, madeAt: now, expiresAt };
  const fresh: PairingRow = { ...row, usedAt: null, keyHash: null, endsAt: null, closedAt: null };
  // Sent again, the first code was never seen: a code is told once.
  if (!(await work.insertFact(PairingRow, fresh, 'pairing', ['visitId', 'madeBy'])))
    throw new HttpProblem(409, 'Code already made', 'This code was made before and is told once only. Make another one.');
  return { id, code, expiresAt: expiresAt.toISOString() };
}

/** No two codes that can be used now are alike, in any clinic. */
async function freeCode({ manager, now }: UnitOfWork): Promise<string> {
  for (;;) {
    const code = String(randomInt(CODES)).padStart(6, '0');
    const taken = await manager.existsBy(PairingRow, {
      codeHash: hashOf(code),
      expiresAt: MoreThan(now),
      usedAt: IsNull(),
      closedAt: IsNull(),
    });
    if (!taken) return code;
  }
}

/**
 * Uses a code, once: of two phones that try it at the same moment one gets it.
 *
 * @returns null where no such code can be used now
 */
export async function useCode(work: UnitOfWork, code: string): Promise<{ key: string; clinic: string; until: string } | null> {
  const { manager, now } = work;
  const usable = { codeHash: hashOf(code), usedAt: IsNull(), closedAt: IsNull(), expiresAt: MoreThan(now) };
  const found = await manager.find(PairingRow, { where: usable, take: 2 });
  // Two that are alike came in at one moment: neither says which visit is meant.
  if (found.length !== 1) return null;
  const [{ id, clinicId, visitId }] = found as [PairingRow];
  const key = randomBytes(32).toString('base64url');
  const endsAt = new Date(now.getTime() + PHONE_LASTS);
  const { affected } = await manager.update(PairingRow, { id, ...usable }, { usedAt: now, keyHash: hashOf(key), endsAt });
  if (!affected) return null;
  const [clinic, visit] = await Promise.all([
    manager.findOneByOrFail(Clinic, { id: clinicId }),
    manager.findOneByOrFail(Visit, { id: visitId, clinicId }),
  ]);
  return visit.signed ? null : { key, clinic: clinic.name, until: endsAt.toISOString() };
}

export const noSuchCode = (): HttpProblem =>
  new HttpProblem(401, 'Not paired', 'This code is not right, was used already, or has run out. Make a new one beside the dial.');

export interface Phone {
  readonly id: string;
  readonly visitId: string;
}

/** The phone that holds a key, while its pairing stands. */
export async function phoneOf({ manager, now }: Pick<UnitOfWork, 'manager' | 'now'>, key: string): Promise<Phone | null> {
  return manager.findOne(PairingRow, {
    where: { keyHash: hashOf(key), closedAt: IsNull(), endsAt: MoreThan(now) },
    select: { id: true, visitId: true },
  });
}

/** Lets a phone go, or takes a code back. Closed twice it is closed once. @returns the visit it was of */
export async function closePairing(work: UnitOfWork, id: string): Promise<string> {
  const { visitId } = await work.one(PairingRow, id, 'pairing');
  await work.manager.update(PairingRow, { id, clinicId: work.clinicId, closedAt: IsNull() }, { closedAt: work.now });
  return visitId;
}

export async function pairingsOf(work: UnitOfWork, visitId: string) {
  const { manager, clinicId, now } = work;
  await work.one(Visit, visitId, 'visit');
  const rows = await manager.find(PairingRow, {
    where: [
      { clinicId, visitId, closedAt: IsNull(), usedAt: IsNull(), expiresAt: MoreThan(now) },
      { clinicId, visitId, closedAt: IsNull(), usedAt: Not(IsNull()), endsAt: MoreThan(now) },
    ],
    order: { madeAt: 'ASC' },
  });
  return rows.map(({ id, usedAt, expiresAt, endsAt }) => ({
    id,
    usedAt: usedAt?.toISOString() ?? null,
    expiresAt: (endsAt ?? expiresAt).toISOString(),
  }));
}
