import type { Protocol } from './types.js';

/** One line of technique: what, and how. */
export interface TechniqueLine {
  readonly label: string;
  readonly text: string;
}

const line = (label: string, text: string | undefined): TechniqueLine[] => (text ? [{ label, text }] : []);

/** Where the instrument goes, line by line, in the words its kind is spoken of. */
export function placementLines({ placement: p, instruments }: Protocol): TechniqueLine[] {
  switch (p.how) {
    case 'arms': {
      const armed = instruments.some((i) => i === 'goniometer' || i === 'picture');
      const gravity = instruments.some((i) => i === 'inclinometer' || i === 'dualInclinometer');
      return [
        ...line('Axis', p.axis),
        ...(armed ? [...line('Still arm', p.still), ...line('Moving arm', p.moving)] : []),
        ...(gravity ? line('Inclinometer', p.site ?? p.moving) : []),
      ];
    }
    case 'sites':
      return p.lower ? [...line('Upper site', p.upper), ...line('Lower site', p.lower)] : line('Inclinometer', p.upper);
    case 'tape':
      return [...line('From', p.from), ...line('To', p.to)];
    case 'push':
      return [...line('Instrument on', p.at), ...line('Push', p.against)];
    case 'clock':
      return [...line('Clock starts', p.starts), ...line('Clock stops', p.stops)];
  }
}
