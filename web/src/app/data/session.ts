import { inject, Injectable, signal } from '@angular/core';
import type { SessionView, SignIn } from '@dial-gauge/contract';
import { ASK_SESSION } from '@dial-gauge/contract/ask-session';
import { catchError, finalize, from, map, of, switchMap, tap, type Observable } from 'rxjs';
import { Api } from './api';

/** What is known of accounts, fetched when somebody is or gets signed in: the door itself shows without it. */
const account = () => from(import('@dial-gauge/contract/account').then((m) => m.ACCOUNT));

/** Who is signed in. */
@Injectable({ providedIn: 'root' })
export class Session {
  private readonly api = inject(Api);
  private readonly state = signal<SessionView | null>(null);
  readonly current = this.state.asReadonly();

  /** Asks the server once after a reload. */
  check(): Observable<boolean> {
    if (this.state()) return of(true);
    return this.api.send(ASK_SESSION, {}).pipe(
      switchMap(({ body }) => account().pipe(map((routes) => routes.session.answer.parse(body)))),
      tap((session) => this.state.set(session)),
      map(() => true),
      catchError(() => of(false)),
    );
  }

  signIn(body: SignIn): Observable<SessionView> {
    return account().pipe(
      switchMap((routes) => this.api.call(routes.signIn, { body })),
      tap((session) => this.state.set(session)),
    );
  }

  signOut(): Observable<unknown> {
    return account().pipe(
      switchMap((routes) => this.api.call(routes.signOut)),
      finalize(() => this.state.set(null)),
    );
  }
}
