import { HttpErrorResponse, type HttpInterceptorFn } from '@angular/common/http';
import { inject, Injectable, Injector } from '@angular/core';
import { catchError, finalize, from, map, shareReplay, switchMap, throwError, type Observable } from 'rxjs';
import { QUIETLY } from '../data/api';
import { toFailure } from '../data/problem';

type Wanted = 'session' | 'proof';

/** Opens one dialog however many requests run into the same thing. It is loaded only when it is needed. */
@Injectable({ providedIn: 'root' })
class AskAgain {
  private readonly injector = inject(Injector);
  private readonly open = new Map<Wanted, Observable<boolean>>();

  ask(wanted: Wanted): Observable<boolean> {
    const there = this.open.get(wanted);
    if (there) return there;
    const opened =
      wanted === 'session'
        ? from(import('./sign-in-again.dialog')).pipe(switchMap((m) => m.openSignInAgain(this.injector)))
        : from(import('./prove.dialog')).pipe(switchMap((m) => m.openProve(this.injector)));
    const asked = opened.pipe(
      map((done) => done === true),
      finalize(() => this.open.delete(wanted)),
      shareReplay(1),
    );
    this.open.set(wanted, asked);
    return asked;
  }
}

/**
 * When the session has ended: signs in again in place and sends the request
 * once more, so that nothing on the screen is lost. The same where the password
 * is wanted again after a rest. Nobody is interrupted for what nobody waits for.
 */
export const askToSignInAgain: HttpInterceptorFn = (request, next) => {
  if (request.context.get(QUIETLY)) return next(request);
  const injector = inject(Injector);
  return next(request).pipe(
    catchError((error: unknown) => {
      const wanted = error instanceof HttpErrorResponse ? wantedBy(error, request.url) : null;
      if (!wanted) return throwError(() => error);
      return injector
        .get(AskAgain)
        .ask(wanted)
        .pipe(switchMap((done) => (done ? next(request) : throwError(() => error))));
    }),
  );
};

function wantedBy(error: HttpErrorResponse, url: string): Wanted | null {
  const { kind } = toFailure(error);
  if (kind === 'proof') return 'proof';
  // Asking who is signed in, signing in, and a code that is still wanted are left alone.
  return error.status === 401 && kind !== 'second-factor' && !url.endsWith('/api/session') ? 'session' : null;
}
