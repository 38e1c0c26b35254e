import { HttpProblem } from '../../shared/problems.js';

/** What a change of a signed visit is answered. */
export class SignedVisit extends HttpProblem {
  constructor(
    readonly visitId: string,
    /** When it was signed last. */
    readonly signedAt: Date | null,
    detail = 'Nothing was changed: the visit is signed. Open it with “Amend” on Judge, say why, and enter it again.',
  ) {
    super(409, 'This visit is signed', detail, {
      errors: [{ path: 'visit', message: 'is signed; allowed: changes after it was opened to be amended' }],
    });
  }
}
