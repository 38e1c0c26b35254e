import { checkWay, protocolOfId } from '@dial-gauge/core/names';
import * as z from 'zod';
import { Digit, type Instrument, Mode, Side } from './ids.js';

/** One way of measuring on one side, by its protocol. */
export const protocolWay = { protocol: z.string().max(90), digit: Digit.optional(), side: Side, mode: Mode };

type Way = z.infer<z.ZodObject<typeof protocolWay>>;

/** What does not fit the catalogue; nothing where all is well. */
export function wayProblem(
  { protocol: id, digit, side, mode }: Way,
  instrument?: z.infer<typeof Instrument>,
): { field: string; message: string } | undefined {
  const protocol = protocolOfId(id);
  if (!protocol) return { field: 'protocol', message: `"${id}" is not in the library; allowed: a protocol id, as hip.flexion/supine` };
  return checkWay({ ...protocol, protocol: id, digit, side, mode, instrument: instrument ?? protocol.instruments[0]! });
}
