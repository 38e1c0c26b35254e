/** Where it is asked who is signed in: all that the door knows of the contract before somebody is. */
export const ASK_SESSION = { method: 'get', path: '/session', keep: true } as const;
