import { computed, inject, Injectable } from '@angular/core';
import { ALLOWED, mayDo, notAllowed, type Act } from '@dial-gauge/contract/roles';
import { Session } from './session';

/** What whoever is signed in may do: the server's own table, so that nothing is offered that is refused. */
@Injectable({ providedIn: 'root' })
export class May {
  private readonly session = inject(Session);
  readonly role = computed(() => this.session.current()?.user.role ?? null);

  do(act: Act): boolean {
    const role = this.role();
    // Before it is known nothing is hidden: the server decides.
    return role === null || mayDo(role, act);
  }

  /** Why not; empty: they may. */
  why(act: Act): string {
    const role = this.role();
    return role === null || mayDo(role, act) ? '' : notAllowed(role, act);
  }

  /** "measure and plan" */
  words(act: Act): string {
    return ALLOWED[act].words;
  }
}
