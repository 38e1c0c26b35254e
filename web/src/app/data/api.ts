import { HttpClient, type HttpResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import type { Route } from '@dial-gauge/contract';
import { defer, finalize, map, type Observable } from 'rxjs';
import type * as z from 'zod';

export interface Asked<R extends Route> {
  /** Fills the `:id` of the route. */
  readonly id?: string;
  readonly body?: z.input<R['body']>;
  readonly query?: z.input<R['query']>;
  /** The user on whose behalf it is sent; the server refuses it when somebody else is signed in. */
  readonly as?: string;
  /** When what it carries was entered, by the clock of this device. */
  readonly enteredAt?: string;
}

/**
 * The API as the contract describes it: path, method and types come from the
 * route, and every answer is checked against it before anybody sees it.
 */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);
  /** Counts up with whatever may have changed something: what was read before is older. */
  writes = 0;

  /** @returns a cold observable: nothing is sent until it is subscribed, and once more for every subscription */
  call<R extends Route>(route: R, asked: Asked<R> = {}): Observable<z.output<R['answer']>> {
    return this.send(route, asked).pipe(map(({ body }) => route.answer.parse(body) as z.output<R['answer']>));
  }

  /** The same with the answer as it came: its status may say more than its body. */
  send<R extends Route>(
    route: Pick<R, 'method' | 'path'>,
    { id = '', body, query, as, enteredAt }: Asked<R>,
  ): Observable<HttpResponse<unknown>> {
    const url = `/api${route.path.replace(':id', encodeURIComponent(id))}`;
    const headers: Record<string, string> = {};
    if (as) headers['x-dial-gauge-user'] = as;
    // With it goes what this device takes for now: the server sees by how much its clock is off.
    if (enteredAt) Object.assign(headers, { 'x-dial-gauge-entered': enteredAt, 'x-dial-gauge-clock': new Date().toISOString() });
    const params = Object.fromEntries(Object.entries(query ?? {}).filter(([, value]) => value !== undefined && value !== '')) as Record<
      string,
      string
    >;
    const asked = this.http.request(route.method, url, { body, headers, params, observe: 'response' });
    // Before and after: what is read while it is on its way may have it or not.
    return route.method === 'get' ? asked : defer(() => (this.written(), asked)).pipe(finalize(() => this.written()));
  }

  private written(): void {
    this.writes += 1;
  }
}
