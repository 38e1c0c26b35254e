import { inject, Injectable, signal } from '@angular/core';
import { ACCOUNT, type SessionView, type SignIn } from '@dial-gauge/contract';
import { catchError, finalize, map, of, tap, type Observable } from 'rxjs';
import { Api } from './api';

/** Who is signed in. */
@Injectable({ providedIn: 'root' })
export class Session {
  private readonly api = inject(Api);
  private readonly state = signal<SessionView | null>(null);
  readonly current = this.state.asReadonly();

  /** Asks the server once after a reload. */
  check(): Observable<boolean> {
    if (this.state()) return of(true);
    return this.api.call(ACCOUNT.session).pipe(
      tap((session) => this.state.set(session)),
      map(() => true),
      catchError(() => of(false)),
    );
  }

  signIn(body: SignIn): Observable<SessionView> {
    return this.api.call(ACCOUNT.signIn, { body }).pipe(tap((session) => this.state.set(session)));
  }

  signOut(): Observable<unknown> {
    return this.api.call(ACCOUNT.signOut).pipe(finalize(() => this.state.set(null)));
  }
}
