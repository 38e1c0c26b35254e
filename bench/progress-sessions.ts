import { allowedSides, motion, protocolOfId, PROTOCOLS, type Measurement, type Session } from '@dial-gauge/core';

const VISITS = 8;
const MOTIONS = 60;

/** Sixty measurements at every one of eight visits, a fortnight apart: what moves, what stands still, what is worse. */
export function progressSessions(): Session[] {
  const ways = PROTOCOLS.filter((p) => motion(p.motion).unit === 'deg' && p.instruments.includes('goniometer'))
    .flatMap((p) => allowedSides(motion(p.motion)).map((side) => ({ protocol: p.id, side })))
    .slice(0, MOTIONS);
  return Array.from({ length: VISITS }, (_, visit) => ({
    assessedOn: new Date(Date.UTC(2026, 6, 1 + 14 * visit)).toISOString().slice(0, 10),
    measurements: ways.map(({ protocol: id, side }, at): Measurement => {
      const protocol = protocolOfId(id)!;
      const about = motion(protocol.motion);
      const rate = [2, 0, -1][at % 3]!;
      return {
        motion: protocol.motion,
        protocol: id,
        side,
        ...(about.perDigit ? { digit: 3 } : {}),
        mode: protocol.modes[0]!,
        position: protocol.position,
        instrument: 'goniometer',
        trials: [-1, 0, 1].map((odd) => ({ end: Math.round(about.limits.max / 2) + rate * visit + odd })),
        examiner: 'A',
      };
    }),
  }));
}
