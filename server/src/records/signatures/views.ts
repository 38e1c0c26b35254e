import type { SignatureView } from '@dial-gauge/contract';
import { In } from 'typeorm';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { Countersignature, type Signature } from './entities.js';

/** Signatures with the names of those who signed, and countersigned. */
export async function signatureViews(work: UnitOfWork, signatures: readonly Signature[]): Promise<SignatureView[]> {
  if (signatures.length === 0) return [];
  const { manager, clinicId } = work;
  const below = await manager.findBy(Countersignature, { clinicId, signatureId: In(signatures.map(({ id }) => id)) });
  const names = await work.namesOf([...signatures, ...below].map(({ signedBy }) => signedBy));
  return signatures.map(({ id, number, summary, why, signedBy, signedAt }) => {
    const counter = below.find((row) => row.signatureId === id);
    return {
      ...{ id, number, summary, why },
      by: names.get(signedBy) ?? '',
      byMe: signedBy === work.caller.userId,
      at: signedAt.toISOString(),
      countersigned: counter ? { by: names.get(counter.signedBy) ?? '', at: counter.signedAt.toISOString() } : null,
    };
  });
}
