import { setTimeout as wait } from 'node:timers/promises';
import { WebSocket } from 'ws';

/** Ends what hangs; a loaded machine is given its time. */
const LONGEST_MS = 60_000;

export type Said = Record<string, unknown> & { readonly k: string };

/** A connection as a page makes it, with all it heard. */
export class Line {
  readonly heard: Said[] = [];
  closed: number | null = null;
  private constructor(readonly socket: WebSocket) {
    socket.on('message', (data) => this.heard.push(JSON.parse((data as Buffer).toString('utf8')) as Said));
    socket.on('close', (code) => (this.closed = code));
    socket.on('error', () => {});
  }

  static async open(port: number, { cookie = '', origin = `http://127.0.0.1:${port}` } = {}): Promise<Line> {
    const line = new Line(new WebSocket(`ws://127.0.0.1:${port}/api/live`, { headers: { cookie, origin } }));
    await new Promise<void>((resolve, reject) => {
      line.socket.once('open', resolve);
      line.socket.once('error', reject);
    });
    return line;
  }

  say(said: object | string): void {
    this.socket.send(typeof said === 'string' ? said : JSON.stringify(said));
  }

  /** The first thing heard, from somewhere on, that fits. */
  async until(fits: (said: Said) => boolean, from = 0): Promise<Said> {
    for (const begun = Date.now(); Date.now() - begun < LONGEST_MS;) {
      const found = this.heard.slice(from).find(fits);
      if (found) return found;
      await wait(20);
    }
    throw new Error(`not heard; last: ${JSON.stringify(this.heard.slice(-3))}, closed ${this.closed}`);
  }

  async untilClosed(): Promise<number> {
    for (const begun = Date.now(); Date.now() - begun < LONGEST_MS && this.closed === null;) await wait(20);
    return this.closed ?? 0;
  }
}
