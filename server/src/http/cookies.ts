/** The name of a cookie of this server; over TLS it is bound to this host alone. */
export const cookieName = (name: string, secure: boolean): string => (secure ? `__Host-${name}` : name);

/** Sent back to this server only, and out of reach of scripts. */
export const cookieOptions = (secure: boolean) => ({ path: '/', httpOnly: true, secure, sameSite: 'strict' }) as const;
