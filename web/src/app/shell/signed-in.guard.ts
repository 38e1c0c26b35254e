import { inject } from '@angular/core';
import { Router, type CanActivateFn } from '@angular/router';
import { map } from 'rxjs';
import { Session } from '../data/session';

/** Lets in who is signed in; others sign in first and come back to where they were going. */
export const signedIn: CanActivateFn = (_route, state) => {
  const router = inject(Router);
  return inject(Session)
    .check()
    .pipe(map((yes) => yes || router.createUrlTree(['/sign-in'], { queryParams: { to: state.url } })));
};
