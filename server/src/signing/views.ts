import type { SignatureView } from '@dial-gauge/contract';
import type { Names } from '../platform/unit-of-work.js';
import type { Signature } from './entities.js';

export function signatureView({ id, number, summary, why, signedBy, signedAt }: Signature, names: Names): SignatureView {
  return { id, number, summary, why, by: names.get(signedBy) ?? '', at: signedAt.toISOString() };
}
