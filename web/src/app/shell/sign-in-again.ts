import { HttpErrorResponse, type HttpInterceptorFn } from '@angular/common/http';
import { inject, Injectable, Injector } from '@angular/core';
import { catchError, finalize, from, map, shareReplay, switchMap, throwError, type Observable } from 'rxjs';

/** Opens one dialog however many requests run into the ended session. It is loaded only when it is needed. */
@Injectable({ providedIn: 'root' })
class SignInAgain {
  private readonly injector = inject(Injector);
  private open: Observable<boolean> | undefined;

  ask(): Observable<boolean> {
    this.open ??= from(import('./sign-in-again.dialog')).pipe(
      switchMap((m) => m.openSignInAgain(this.injector)),
      map((done) => done === true),
      finalize(() => (this.open = undefined)),
      shareReplay(1),
    );
    return this.open;
  }
}

/**
 * When the session has ended: signs in again in place and sends the request
 * once more, so that nothing on the screen is lost. Asking who is signed in,
 * and signing in itself, are left alone.
 */
export const askToSignInAgain: HttpInterceptorFn = (request, next) => {
  const injector = inject(Injector);
  return next(request).pipe(
    catchError((error: unknown) => {
      const ended = error instanceof HttpErrorResponse && error.status === 401 && !request.url.endsWith('/api/session');
      if (!ended) return throwError(() => error);
      return injector
        .get(SignInAgain)
        .ask()
        .pipe(switchMap((done) => (done ? next(request) : throwError(() => error))));
    }),
  );
};
