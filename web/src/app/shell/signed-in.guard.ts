import { inject } from '@angular/core';
import { Router, type CanMatchFn } from '@angular/router';
import { map } from 'rxjs';
import { Session } from '../data/session';

/** The one page for whom the clinic asks a second factor and who has none. */
const ACCOUNT_PAGE = '/account';

/**
 * Lets in who is signed in; others sign in first and come back to where they
 * were going, and nothing of the inside is fetched for them. Whoever still has
 * to set up a second factor comes to where that is done.
 */
export const signedIn: CanMatchFn = () => {
  const router = inject(Router);
  const to = router.currentNavigation()?.extractedUrl.toString() ?? '/';
  const session = inject(Session);
  return session.check().pipe(
    map((yes) => {
      if (!yes) return router.createUrlTree(['/sign-in'], { queryParams: { to } });
      return !session.current()?.secondFactorMissing || to === ACCOUNT_PAGE || router.createUrlTree([ACCOUNT_PAGE]);
    }),
  );
};
