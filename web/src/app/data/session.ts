import { inject, Injectable, signal } from '@angular/core';
import type { Founding, Joining, LinkView, Proof, SessionView, SignIn } from '@dial-gauge/contract';
import { ASK_SESSION } from '@dial-gauge/contract/ask-session';
import { catchError, finalize, from, map, of, switchMap, tap, type Observable } from 'rxjs';
import { Api } from './api';
import { AtHand } from './at-hand';
import { toFailure } from './problem';

/** What is known of accounts, fetched when somebody is or gets signed in: the door itself shows without it. */
const account = () => from(import('@dial-gauge/contract/account').then((m) => m.ACCOUNT));

/** What is known of founding and joining, fetched by whoever founds or joins. */
const staff = () => from(import('@dial-gauge/contract/staff').then((m) => m.STAFF));

/** That the server was not told yet that somebody left. */
const OWED = 'dial-gauge.left';

/** Who is signed in. */
@Injectable({ providedIn: 'root' })
export class Session {
  private readonly api = inject(Api);
  private readonly atHand = inject(AtHand);
  private readonly state = signal<SessionView | null>(null);
  readonly current = this.state.asReadonly();

  /** Asks the server once after a reload. */
  check(): Observable<boolean> {
    if (this.state()) return of(true);
    // Somebody left while the server could not be told: it is told before anything else.
    if (localStorage.getItem(OWED) !== null) return this.tellLeft().pipe(map(() => false));
    return this.api.send(ASK_SESSION, {}).pipe(
      switchMap(({ body }) => account().pipe(map((routes) => routes.session.answer.parse(body)))),
      tap((session) => this.entered(session)),
      map(() => true),
      catchError(() => of(false)),
    );
  }

  signIn(body: SignIn): Observable<SessionView> {
    return account().pipe(
      switchMap((routes) => this.api.call(routes.signIn, { body })),
      tap((session) => this.entered(session)),
    );
  }

  /** Founds the clinic, and is signed in as its lead. */
  found(body: Founding): Observable<SessionView> {
    return staff().pipe(
      switchMap((routes) => this.api.call(routes.found, { body })),
      tap((session) => this.entered(session)),
    );
  }

  openLink(token: string): Observable<LinkView> {
    return staff().pipe(switchMap((routes) => this.api.call(routes.openLink, { body: { token } })));
  }

  /** @returns null where a second factor is asked for: then one signs in */
  join(body: Joining): Observable<SessionView | null> {
    return staff().pipe(
      switchMap((routes) => this.api.call(routes.join, { body })),
      map(({ session }) => session),
      tap((session) => this.entered(session)),
    );
  }

  /** A second factor was set up: whether anything is missing still, the server says. */
  askAgain(): Observable<SessionView> {
    return account().pipe(
      switchMap((routes) => this.api.call(routes.session)),
      tap((session) => this.entered(session)),
    );
  }

  /** Confirms that it was the person who set the password with a link. */
  passwordLinkSeen(): Observable<SessionView> {
    return account().pipe(
      switchMap((routes) => this.api.call(routes.passwordLinkSeen, { body: {} })),
      tap((session) => this.entered(session)),
    );
  }

  /** That it is still the same person, after a rest. */
  prove(body: Proof): Observable<SessionView> {
    return account().pipe(switchMap((routes) => this.api.call(routes.prove, { body })));
  }

  /** Ends here at once, also where the server cannot be told; then it is as soon as it answers. Nothing is at hand any more. */
  signOut(): Observable<unknown> {
    localStorage.setItem(OWED, 'yes');
    return from(this.atHand.forget()).pipe(
      switchMap(() => this.tellLeft()),
      finalize(() => this.state.set(null)),
    );
  }

  private tellLeft(): Observable<unknown> {
    return account().pipe(
      switchMap((routes) => this.api.call(routes.signOut)),
      tap({
        next: () => localStorage.removeItem(OWED),
        // It knew of no session any more.
        error: (error: unknown) => toFailure(error).status === 401 && localStorage.removeItem(OWED),
      }),
      catchError(() => of(null)),
    );
  }

  private entered(session: SessionView | null): void {
    this.state.set(session);
    if (!session) return;
    localStorage.removeItem(OWED);
    void this.atHand.own(session);
  }
}
