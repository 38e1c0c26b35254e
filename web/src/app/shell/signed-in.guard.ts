import { inject } from '@angular/core';
import { Router, type CanMatchFn } from '@angular/router';
import { map } from 'rxjs';
import { Session } from '../data/session';

/** Lets in who is signed in; others sign in first and come back to where they were going, and nothing of the inside is fetched for them. */
export const signedIn: CanMatchFn = () => {
  const router = inject(Router);
  const to = router.currentNavigation()?.extractedUrl.toString() ?? '/';
  return inject(Session)
    .check()
    .pipe(map((yes) => yes || router.createUrlTree(['/sign-in'], { queryParams: { to } })));
};
