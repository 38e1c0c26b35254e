import { HttpClient, HttpContext, HttpContextToken, HttpErrorResponse, HttpResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import type { Route } from '@dial-gauge/contract';
import { catchError, concat, defer, finalize, from, map, mergeMap, NEVER, race, take, tap, throwError, timer, type Observable } from 'rxjs';
import type * as z from 'zod';
import { AtHand, keyOf, type Kept } from './at-hand';
import { BACKGROUND_HEADER, Presence } from './presence';

export interface Asked<R extends Route> {
  /** Fills the `:id` of the route. */
  readonly id?: string;
  readonly body?: z.input<R['body']>;
  readonly query?: z.input<R['query']>;
  /** The user on whose behalf it is sent; the server refuses it when somebody else is signed in. */
  readonly as?: string;
  /** When what it carries was entered, by the clock of this device. */
  readonly enteredAt?: string;
  /** Nobody waits for it: where the session has ended, nobody is interrupted for it either. */
  readonly quietly?: boolean;
}

/** Of a request that nobody waits for. */
export const QUIETLY = new HttpContextToken<boolean>(() => false);

/** Nobody there, or whoever stands before the server says that it is not. */
const AWAY: ReadonlySet<number> = new Set([0, 502, 503, 504]);
/** So long an answer is waited for before what is at hand is shown. */
const LATE_MS = 8_000;

/**
 * The API as the contract describes it: path, method and types come from the
 * route, and every answer is checked against it before anybody sees it.
 */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);
  private readonly atHand = inject(AtHand);
  private readonly presence = inject(Presence);
  /** Counts up with whatever may have changed something: what was read before is older. */
  writes = 0;

  /** @returns a cold observable: nothing is sent until it is subscribed, and once more for every subscription */
  call<R extends Route>(route: R, asked: Asked<R> = {}): Observable<z.output<R['answer']>> {
    return this.send(route, asked).pipe(map(({ body }) => route.answer.parse(body) as z.output<R['answer']>));
  }

  /** The same with the answer as it came: its status may say more than its body. */
  send<R extends Route>(
    route: Pick<R, 'method' | 'path' | 'keep'>,
    { id = '', body, query, as, enteredAt, quietly = false }: Asked<R>,
  ): Observable<HttpResponse<unknown>> {
    const path = addressOf(route, id);
    const url = `/api${path}`;
    const headers: Record<string, string> = {};
    if (as) headers['x-dial-gauge-user'] = as;
    if (!this.presence.isAct(enteredAt)) headers[BACKGROUND_HEADER] = '1';
    // With it goes what this device takes for now: the server sees by how much its clock is off.
    if (enteredAt) Object.assign(headers, { 'x-dial-gauge-entered': enteredAt, 'x-dial-gauge-clock': new Date().toISOString() });
    const params = Object.fromEntries(Object.entries(query ?? {}).filter(([, value]) => value !== undefined && value !== '')) as Record<
      string,
      string
    >;
    const asked = this.http.request(route.method, url, {
      ...{ body, headers, params },
      context: new HttpContext().set(QUIETLY, quietly),
      observe: 'response',
    });
    // Before and after: what is read while it is on its way may have it or not.
    if (route.method === 'get') return route.keep ? this.kept(keyOf(path, params), asked) : asked;
    return defer(() => (this.written(), asked)).pipe(finalize(() => this.written()));
  }

  /** The answer of the server, and what was kept of it where there is no network or it lets wait too long. */
  private kept(key: string, asked: Observable<HttpResponse<unknown>>): Observable<HttpResponse<unknown>> {
    const read = () => from(this.atHand.read(key));
    const shown = ({ body }: Kept) => new HttpResponse<unknown>({ status: 200, body });
    const answer = asked.pipe(
      tap(({ body }) => void this.atHand.keep(key, body)),
      catchError((error: unknown) => {
        const failure = () => throwError(() => error);
        if (!(error instanceof HttpErrorResponse)) return failure();
        if (error.status === 401) void this.atHand.forget();
        return AWAY.has(error.status) && this.atHand.mayHave(key)
          ? read().pipe(mergeMap((kept) => (kept ? [shown(kept)] : failure())))
          : failure();
      }),
    );
    if (!this.atHand.mayHave(key)) return answer;
    const late = timer(LATE_MS).pipe(
      mergeMap(read),
      mergeMap((kept) => (kept ? [shown(kept)] : NEVER)),
    );
    return race(answer, concat(late, NEVER)).pipe(take(1));
  }

  private written(): void {
    this.writes += 1;
  }
}

/** The path of a route with its id in its place. */
export const addressOf = ({ path }: Pick<Route, 'path'>, id: string): string => path.replace(':id', encodeURIComponent(id));
