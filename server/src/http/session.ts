import { parse } from 'cookie';
import type { Request, RequestHandler, Response } from 'express';
import type { Session, SessionStore, Verified } from '../records/identity/session-store.js';
import { HttpProblem } from '../shared/problems.js';
import { cookieName, cookieOptions } from './cookies.js';

declare module 'express-serve-static-core' {
  interface Request {
    session: Session | null;
  }
}

/** Sent with what a page asks by itself, without an act of the person. */
export const BACKGROUND_HEADER = 'x-dial-gauge-background';

const COOKIE = 'dial-gauge';

/**
 * Sessions as browsers carry them: a cookie of 256 random bits and nothing
 * else. A cookie that was planted before the sign-in is worth nothing.
 */
export class SessionCookies {
  constructor(
    readonly store: SessionStore,
    private readonly clock: () => Date = () => new Date(),
  ) {}

  /**
   * Attaches to every request the session it came with. A session in use moves
   * its end, in the database and in the cookie, but not with every request, and
   * never for what a page asks by itself: that says nothing of whether somebody
   * is there.
   */
  readonly attach: RequestHandler = async (request, response, next) => {
    const sid = this.sidOf(request.headers.cookie);
    const session = sid === undefined ? null : await this.store.get(sid);
    request.session = session;
    const isAnAct = request.headers[BACKGROUND_HEADER] === undefined;
    if (session && isAnAct && this.store.isToMoveOn(session)) {
      await this.store.moveOn(session);
      this.send(response, session.sid);
    }
    next();
  };

  /** The session id of a cookie header, where there is one. */
  sidOf(cookie: string | undefined): string | undefined {
    return cookie === undefined ? undefined : parse(cookie)[this.name];
  }

  async begin(request: Request, response: Response, verified: Verified): Promise<void> {
    if (request.session) await this.store.end(request.session.sid);
    this.send(response, await this.store.begin(verified, request.get('user-agent') ?? ''));
  }

  async end(request: Request, response: Response): Promise<void> {
    if (request.session) await this.store.end(request.session.sid);
    response.clearCookie(this.name, this.options());
  }

  /** @throws a problem where somebody would be signed in for nothing: the cookie would not come back */
  mustBeOverTls(request: Request): void {
    if (this.store.settings.secure && !request.secure)
      throw new HttpProblem(
        400,
        'Not over TLS',
        'This server is set to be reached over TLS only. Use its https address, or ask whoever runs it to name its proxy.',
      );
  }

  private get name(): string {
    return cookieName(COOKIE, this.store.settings.secure);
  }

  private options() {
    return cookieOptions(this.store.settings.secure);
  }

  private send(response: Response, sid: string): void {
    const expires = new Date(this.clock().getTime() + this.store.settings.idleMs);
    response.cookie(this.name, sid, { ...this.options(), expires });
  }
}
