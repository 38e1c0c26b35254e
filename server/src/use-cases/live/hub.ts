import { randomUUID } from 'node:crypto';
import type { IncomingMessage, Server } from 'node:http';
import type { Duplex } from 'node:stream';
import {
  FromBench,
  FromDevice,
  FromFace,
  Hello,
  LIVE_CLOSED,
  LIVE_PATH,
  mayDo,
  type DeviceKind,
  type ToBench,
  type ToDevice,
} from '@dial-gauge/contract';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { WebSocketServer, type WebSocket } from 'ws';
import { networkOf } from '../../shared/address.js';
import type { SessionStore } from '../../records/identity/session-store.js';
import { Visit } from '../../records/visits/entities.js';
import type { Bus } from './bus.js';
import { meter } from './meter.js';
import { phoneOf } from './pairing.js';
import { RunningSimulation } from './simulated.js';

/** Largest message, in bytes: a scenario with all its movements. */
const LARGEST = 16_384;
const HELLO_MS = 5_000;
/** How often it is asked whether somebody is still there and may still be. */
const LOOK_MS = 20_000;
/** So much waits to be sent to somebody slow before what is shown only for a moment is left out. */
const SLOW = 64_000;
/** Of those that have not said what they are, the oldest goes where there are too many: who means something says it at once. */
const MOST = { ofUser: 16, ofVisit: 12, silent: 200, silentOfNetwork: 20 } as const;

/** What goes from screens to instruments over the bus. */
type Down =
  | { readonly k: 'tell'; readonly device: string | null; readonly said: ToDevice }
  | { readonly k: 'who' }
  | { readonly k: 'close'; readonly device: string; readonly but: string };
type Up = ToBench | { readonly k: 'bench'; readonly id: string };

const up = (visit: string): string => `live:up:${visit}`;
const down = (visit: string): string => `live:down:${visit}`;

/** What is read of a request that opens a connection. */
export interface LiveRequests {
  /** The session id that it came with, where it came with one. */
  sidOf(request: IncomingMessage): string | undefined;
  /** The address that it comes from, past the proxies that are believed. */
  addressOf(request: IncomingMessage): string | undefined;
}

interface Connection {
  readonly id: string;
  readonly socket: WebSocket;
  /** Of a session; null: a phone, which comes with a key. */
  readonly sid: string | null;
  alive: boolean;
  ends: (() => void | Promise<void>)[];
  /** Whether it may still be here. */
  stands: () => Promise<boolean>;
}

/** Where instruments and the screens that read them meet, for whoever is connected to this server. */
export class LiveHub {
  private readonly sockets = new WebSocketServer({ noServer: true, maxPayload: LARGEST, perMessageDeflate: false, clientTracking: false });
  private readonly connections = new Set<Connection>();
  private readonly counted = new Map<string, number>();
  /** Those that have not said yet what they are, the oldest first, with where they come from. */
  private readonly silent = new Map<Connection, string>();
  private readonly looking: NodeJS.Timeout;

  constructor(
    private readonly dataSource: DataSource,
    private readonly sessions: SessionStore,
    private readonly bus: Bus,
    private readonly logger: Logger,
    private readonly requests: LiveRequests,
    private readonly clock: () => Date = () => new Date(),
  ) {
    this.looking = setInterval(() => void this.look(), LOOK_MS);
    this.looking.unref();
  }

  /** Takes connections of an HTTP server. */
  attach(server: Server): void {
    server.on('upgrade', (request: IncomingMessage, socket: Duplex, head: Buffer) => {
      socket.on('error', () => socket.destroy());
      void this.upgrade(request, socket, head).catch((error: unknown) => {
        this.logger.error({ err: error }, 'live connection not made');
        socket.destroy();
      });
    });
  }

  /** Lets a phone go: wherever it is connected, it is told and cut. */
  letGo(visit: string, device: string): Promise<void> {
    this.send(down(visit), { k: 'tell', device, said: { k: 'letGo' } });
    this.send(down(visit), { k: 'close', device, but: '' });
    return Promise.resolve();
  }

  /** How many are connected here. */
  get size(): number {
    return this.connections.size;
  }

  async close(): Promise<void> {
    clearInterval(this.looking);
    for (const { socket } of this.connections) socket.close(1001);
    await this.bus.close();
  }

  private async upgrade(request: IncomingMessage, socket: Duplex, head: Buffer): Promise<void> {
    const refuse = (status: string): void => void socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\nContent-Length: 0\r\n\r\n`);
    if (request.url?.split('?')[0] !== LIVE_PATH) return refuse('404 Not Found');
    if (!fromOurPage(request)) return refuse('403 Forbidden');
    const sid = this.requests.sidOf(request);
    this.sockets.handleUpgrade(request, socket, head, (made) => this.begin(made, sid ?? null, networkOf(this.requests.addressOf(request))));
  }

  /** The first message says what it is; until then it is nothing, and not for long. */
  private begin(socket: WebSocket, sid: string | null, network: string): void {
    const connection: Connection = { id: randomUUID(), socket, sid, alive: true, ends: [], stands: () => Promise.resolve(true) };
    this.connections.add(connection);
    this.makeRoom(network);
    this.silent.set(connection, network);
    const uncount = () => void this.silent.delete(connection);
    const may = meter();
    let hears: ((text: string) => void) | null = null;
    let greeted = false;
    const early: string[] = [];
    const late = setTimeout(() => refused(socket, 'said nothing'), HELLO_MS);
    socket.on('pong', () => (connection.alive = true));
    socket.on('error', () => socket.terminate());
    socket.on('close', () => {
      clearTimeout(late);
      uncount();
      this.connections.delete(connection);
      for (const end of connection.ends.reverse()) void Promise.resolve(end()).catch(() => {});
    });
    socket.on('message', (data, isBinary) => {
      if (isBinary || !may()) return refused(socket, isBinary ? 'not text' : 'too fast');
      const text = (data as Buffer).toString('utf8');
      if (hears) return hears(text);
      if (greeted) return void early.push(text);
      greeted = true;
      clearTimeout(late);
      const hello = parsed(Hello, text);
      if (!hello) return refused(socket, 'no greeting');
      this.greet(connection, hello)
        .then((heard) => {
          uncount();
          if (!heard || socket.readyState !== socket.OPEN) return;
          hears = heard;
          for (const one of early) heard(one);
        })
        .catch((error: unknown) => {
          this.logger.error({ err: error }, 'live connection failed');
          socket.close(1011);
        });
    });
  }

  /** Before another silent one: cuts the oldest of its network, or of all, where there are too many. */
  private makeRoom(network: string): void {
    const ofNetwork = [...this.silent].filter(([, from]) => from === network).map(([connection]) => connection);
    const oldest =
      ofNetwork.length >= MOST.silentOfNetwork ? ofNetwork[0] : this.silent.size >= MOST.silent ? [...this.silent.keys()][0] : undefined;
    if (!oldest) return;
    this.silent.delete(oldest);
    oldest.socket.terminate();
  }

  private async greet(connection: Connection, hello: Hello): Promise<((text: string) => void) | null> {
    if (hello.as === 'phone') return this.phone(connection, hello.key);
    const session = connection.sid === null ? null : await this.sessions.find(connection.sid);
    if (!session) return closed(connection, LIVE_CLOSED.noSession);
    const { clinicId, userId, role } = session.caller;
    if (session.factorMissing || !mayDo(role, 'measure')) return closed(connection, LIVE_CLOSED.notAllowed);
    if (!(await this.dataSource.manager.existsBy(Visit, { id: hello.visit, clinicId }))) return closed(connection, LIVE_CLOSED.notFound);
    if (!this.counts(connection, userId, hello.visit)) return closed(connection, LIVE_CLOSED.refused);
    connection.stands = async () => (await this.sessions.find(session.sid)) !== null;
    return hello.as === 'bench' ? this.bench(connection, hello.visit) : this.simulation(connection, hello);
  }

  /** A screen that reads the instruments of a visit: the one that came last, and no other. */
  private async bench(connection: Connection, visit: string): Promise<(text: string) => void> {
    const { socket, id } = connection;
    let inCharge = true;
    await this.hear(connection, up(visit), (text) => {
      const said = JSON.parse(text) as Up;
      if (said.k === 'bench') {
        if (said.id === id || !inCharge) return;
        inCharge = false;
        socket.send(JSON.stringify({ k: 'elsewhere' } satisfies ToBench));
      } else if (inCharge && !(said.k === 'from' && said.said.k === 'shows' && socket.bufferedAmount > SLOW)) socket.send(text);
    });
    this.send(up(visit), { k: 'bench', id });
    this.send(down(visit), { k: 'who' });
    return (text) => {
      const told = parsed(FromBench, text);
      if (!told) return refused(socket, 'not understood');
      if (inCharge) this.send(down(visit), told);
    };
  }

  private async phone(connection: Connection, key: string): Promise<((text: string) => void) | null> {
    const find = () => phoneOf({ manager: this.dataSource.manager, now: this.clock() }, key);
    const phone = await find();
    if (!phone) return closed(connection, LIVE_CLOSED.noSession);
    if (!this.counts(connection, `phone ${phone.id}`, phone.visitId)) return closed(connection, LIVE_CLOSED.refused);
    connection.stands = async () => (await find()) !== null;
    // The same phone, opened again: what it had before is let go.
    this.send(down(phone.visitId), { k: 'close', device: phone.id, but: connection.id });
    await this.instrument(connection, phone.visitId, { id: phone.id, kind: 'phone', name: 'Phone' }, (said) =>
      connection.socket.send(JSON.stringify(said)),
    );
    return (text) => {
      const said = parsed(FromDevice, text);
      if (!said) return refused(connection.socket, 'not understood');
      this.send(up(phone.visitId), { k: 'from', device: phone.id, said });
    };
  }

  private async simulation(
    connection: Connection,
    { visit, setup }: Extract<Hello, { as: 'simulation' }>,
  ): Promise<(text: string) => void> {
    const { socket } = connection;
    const running = new RunningSimulation(setup, {
      says: (device, said) => this.send(up(visit), { k: 'from', device: device.id, said: said as FromDevice }),
      shows: (face) => {
        if (socket.bufferedAmount < SLOW) socket.send(JSON.stringify(face));
      },
    });
    connection.ends.push(() => running.stop());
    for (const device of running.devices) {
      const { id, name } = device;
      await this.instrument(connection, visit, { id, kind: 'simulated', name }, (said) => running.told(device, said));
    }
    running.tellState();
    return (text) => {
      const done = parsed(FromFace, text);
      if (!done) return refused(socket, 'not understood');
      running.touched(done);
    };
  }

  /** Says that an instrument is here, to whoever asks, and hears what it is told. */
  private async instrument(
    connection: Connection,
    visit: string,
    { id, kind, name }: { readonly id: string; readonly kind: DeviceKind; readonly name: string },
    told: (said: ToDevice) => void,
  ): Promise<void> {
    const here = () => this.send(up(visit), { k: 'here', device: id, kind, name });
    await this.hear(connection, down(visit), (text) => {
      const said = JSON.parse(text) as Down;
      if (said.k === 'who') here();
      else if (said.device !== null && said.device !== id) return;
      else if (said.k === 'tell') told(said.said);
      else if (said.but !== connection.id) connection.socket.close(LIVE_CLOSED.noSession);
    });
    connection.ends.push(() => this.send(up(visit), { k: 'gone', device: id }));
    here();
  }

  private async hear(connection: Connection, topic: string, heard: (text: string) => void): Promise<void> {
    connection.ends.push(
      await this.bus.subscribe(topic, (text) => {
        if (connection.socket.readyState === connection.socket.OPEN) heard(text);
      }),
    );
  }

  private send(topic: string, said: Up | Down): void {
    this.bus.publish(topic, JSON.stringify(said));
  }

  /** Who is gone without a word is cut, and so is who may not be here any more. */
  private async look(): Promise<void> {
    for (const connection of [...this.connections]) {
      const { socket, alive } = connection;
      if (!alive) {
        socket.terminate();
        continue;
      }
      connection.alive = false;
      socket.ping();
      // Where it cannot be asked now it is asked the next time.
      if (!(await connection.stands().catch(() => true))) socket.close(LIVE_CLOSED.noSession);
    }
  }

  private counts(connection: Connection, user: string, visit: string): boolean {
    const [ofUser, ofVisit] = [`user ${user}`, `visit ${visit}`];
    if ((this.counted.get(ofUser) ?? 0) >= MOST.ofUser || (this.counted.get(ofVisit) ?? 0) >= MOST.ofVisit) return false;
    connection.ends.push(this.count(ofUser), this.count(ofVisit));
    return true;
  }

  private count(what: string): () => void {
    this.counted.set(what, (this.counted.get(what) ?? 0) + 1);
    let counted = true;
    return () => {
      if (!counted) return;
      counted = false;
      const left = this.counted.get(what)! - 1;
      if (left > 0) this.counted.set(what, left);
      else this.counted.delete(what);
    };
  }
}

/** A page of another site may not open a connection in somebody's name. */
function fromOurPage({ headers }: IncomingMessage): boolean {
  const { origin, host } = headers;
  try {
    return origin !== undefined && new URL(origin).host === host;
  } catch {
    return false;
  }
}

interface Schema<T> {
  safeParse(value: unknown): { readonly success: boolean; readonly data?: T };
}

function parsed<T>(schema: Schema<T>, text: string): T | null {
  try {
    return schema.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}

function refused(socket: WebSocket, why: string): void {
  socket.close(LIVE_CLOSED.refused, why);
}

function closed({ socket }: Connection, code: number): null {
  socket.close(code);
  return null;
}
