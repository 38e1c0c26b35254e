import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import type { Route } from '@dial-gauge/contract';
import { ROUTES } from '@dial-gauge/contract/routes';
import { map, type Observable } from 'rxjs';
import type * as z from 'zod';

type RouteName = keyof typeof ROUTES;
type Answer<N extends RouteName> = z.output<(typeof ROUTES)[N]['answer']>;
type Body<N extends RouteName> = z.input<(typeof ROUTES)[N]['body']>;

/**
 * The API as the contract describes it: path, method and types come from the
 * route table, and every answer is checked against it before anybody sees it.
 */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);

  /**
   * @param as the user on whose behalf it is sent; the server refuses it when somebody else is signed in
   * @param id fills the `:id` of the route
   * @returns a cold observable: nothing is sent until it is subscribed, and once more for every subscription
   */
  call<N extends RouteName>(name: N, { id = '', body, as }: { id?: string; body?: Body<N>; as?: string } = {}): Observable<Answer<N>> {
    const route: Route = ROUTES[name];
    const url = `/api${route.path.replace(':id', encodeURIComponent(id))}`;
    const headers = as ? { 'x-dial-gauge-user': as } : undefined;
    return this.http.request(route.method, url, { body, headers }).pipe(map((answer) => route.answer.parse(answer) as Answer<N>));
  }
}
