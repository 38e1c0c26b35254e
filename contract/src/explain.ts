import type * as z from 'zod';

/** One thing wrong with an input: where, what, and what is allowed. */
export interface InputProblem {
  readonly path: string;
  readonly message: string;
}

type Issue = z.core.$ZodIssue;

/** Every problem of a refused input, in words a person can act on. */
export function explain(error: z.ZodError): InputProblem[] {
  return error.issues.flatMap((issue) => problems(issue, []));
}

function problems(issue: Issue, parents: readonly PropertyKey[]): InputProblem[] {
  const at = [...parents, ...issue.path];
  if (issue.code === 'invalid_union') {
    // The branch with the fewest complaints is the one that was meant; of equals, the one that got furthest.
    const meant = [...issue.errors].sort((a, b) => a.length - b.length || depth(b) - depth(a))[0];
    return (meant ?? []).flatMap((inner) => problems(inner, at));
  }
  if (issue.code === 'unrecognized_keys') {
    return issue.keys.map((key) => ({ path: pathOf([...at, key]), message: 'is not known here; remove it or correct its spelling' }));
  }
  return [{ path: pathOf(at), message: words(issue) }];
}

const depth = (issues: readonly Issue[]): number =>
  Math.max(0, ...issues.map((issue) => issue.path.length + (issue.code === 'unrecognized_keys' ? 0 : 0.5)));

function pathOf(path: readonly PropertyKey[]): string {
  return path.length === 0 ? '(whole)' : path.map(String).join('.');
}

function words(issue: Issue): string {
  switch (issue.code) {
    case 'invalid_type':
      return issue.message.endsWith('undefined')
        ? `is missing; allowed: ${issue.expected}`
        : `is not of the right kind; allowed: ${issue.expected}`;
    case 'invalid_value':
      return `is not one of the allowed: ${issue.values.map(String).join(', ')}`;
    case 'too_small':
      return issue.origin === 'string' || issue.origin === 'array'
        ? `is too short; allowed: at least ${issue.minimum}`
        : `is too small; allowed: ${issue.minimum} or more`;
    case 'too_big':
      return issue.origin === 'string' || issue.origin === 'array'
        ? `is too long; allowed: at most ${issue.maximum}`
        : `is too large; allowed: ${issue.maximum} or less`;
    case 'invalid_format':
      return FORMATS[issue.format] ?? `is not a valid ${issue.format}`;
    default:
      return issue.message;
  }
}

const FORMATS: Readonly<Record<string, string>> = {
  date: 'is not a day; allowed: YYYY-MM-DD, as 2026-11-20',
  datetime: 'is not a moment; allowed: an ISO date and time, as 2026-11-20T09:30:00Z',
  email: 'is not an e-mail address; allowed: name@place.example',
  uuid: 'is not an identifier; allowed: a UUID',
};
