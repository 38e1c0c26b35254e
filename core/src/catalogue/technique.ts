import type { Protocol } from './types.js';

/** One line of technique: what, and how. */
export interface TechniqueLine {
  readonly label: string;
  readonly text: string;
}

const line = (label: string, text: string | undefined): TechniqueLine[] => (text ? [{ label, text }] : []);

/** Where the instrument goes, line by line, in the words its kind is spoken of; and how the movement lies to gravity. */
export function placementLines(protocol: Protocol): TechniqueLine[] {
  return [...places(protocol), ...plane(protocol)];
}

/** An inclinometer reads against gravity: the plane has to be vertical, and stay so. */
function plane({ swing, instruments }: Protocol): TechniqueLine[] {
  if (swing === 'none') return [];
  const gravity = instruments.some((i) => i === 'inclinometer' || i === 'dualInclinometer' || i === 'phone');
  if (gravity) return line('Plane', 'vertical, and held so: out of it an inclinometer reads too little');
  return swing === 'horizontal' ? line('Plane', 'level: gravity cannot read it, no inclinometer or phone') : [];
}

function places({ placement: p, instruments }: Protocol): TechniqueLine[] {
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
    case 'eye':
      return line('Yes, when', p.yes);
    case 'clock':
      return [...line('Clock starts', p.starts), ...line('Clock stops', p.stops)];
  }
}
