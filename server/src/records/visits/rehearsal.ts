import { HttpProblem } from '../../shared/problems.js';

/**
 * A visit that holds readings of simulated instruments is a rehearsal: it is
 * judged like any other, and nothing of it becomes part of somebody's care or
 * goes out.
 *
 * @param simulated how many of its readings that stand are made-up numbers
 * @throws a problem that says so
 */
export function mustBeOfAPerson({ simulated }: { readonly simulated: number }, nothing: string): void {
  if (simulated === 0) return;
  const readings = simulated === 1 ? '1 reading' : `${simulated} readings`;
  throw new HttpProblem(
    409,
    'A rehearsal',
    `${nothing} This visit holds ${readings} of simulated instruments: a rehearsal. Take ${simulated === 1 ? 'it' : 'them'} back first.`,
    {
      errors: [
        { path: 'visit', message: `holds ${readings} of simulated instruments; allowed: a visit of a person, with those taken back` },
      ],
    },
  );
}
