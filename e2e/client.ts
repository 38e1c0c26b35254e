import { DEMO, expect } from './fixtures';

/** Somebody who is signed in over HTTP, without a browser. */
export async function client(url: string) {
  const signedIn = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(DEMO),
  });
  const cookie = signedIn.headers.getSetCookie()[0]!.split(';')[0]!;
  return async (path: string, body?: object) => {
    const answer = await fetch(`${url}/api${path}`, {
      method: body ? 'POST' : 'GET',
      headers: { cookie, 'content-type': 'application/json' },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
    expect(answer.status, `${path}: ${await answer.clone().text()}`).toBe(200);
    return answer.json();
  };
}
