import { timingSafeEqual } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import type { Express, RequestHandler } from 'express';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import type { DataSource } from 'typeorm';
import { hashOf } from '../shared/hash.js';

/** A database that has not answered by then is none to work with. */
const LONGEST_ANSWER = 2_000;
/** Whoever asks more often hears the same. */
const ASKED_AGAIN_AFTER = 500;
const SECONDS = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10];

export interface HealthSettings {
  /** Who knows it may read the figures; empty: nobody. */
  readonly metricsToken: string;
}

/**
 * How this server is, for whoever starts, balances and watches it: whether it
 * lives, whether it takes requests, and its figures. Nothing of a record is
 * among them.
 */
export class Health {
  readonly figures = new Registry();
  private readonly requests = new Histogram({
    name: 'dial_gauge_request_seconds',
    help: 'Requests by route as the contract names it, method and status',
    labelNames: ['route', 'method', 'status'],
    buckets: SECONDS,
    registers: [this.figures],
  });
  private isDraining = false;
  private asked: { readonly at: number; readonly ready: Promise<boolean> } | null = null;

  constructor(
    private readonly dataSource: DataSource,
    private readonly settings: HealthSettings,
  ) {
    this.gauge('draining', '1 while the server ends: it takes no new work', () => (this.isDraining ? 1 : 0));
  }

  /** Figures of the process itself; once a process. */
  ofProcess(): void {
    collectDefaultMetrics({ register: this.figures });
  }

  /** A figure that is asked for when somebody looks. */
  gauge(name: string, help: string, now: () => number): void {
    const gauge: Gauge = new Gauge({ name: `dial_gauge_${name}`, help, registers: [this.figures], collect: () => gauge.set(now()) });
  }

  /** From now on it says that it takes no requests, so that a balancer sends them elsewhere; those that come are answered, each as the last of its connection. */
  drain(): void {
    this.isDraining = true;
  }

  private isReady(): Promise<boolean> {
    const now = performance.now();
    if (this.asked && now - this.asked.at < ASKED_AGAIN_AFTER) return this.asked.ready;
    const answers = this.dataSource.query('SELECT 1').then(
      () => true,
      () => false,
    );
    const ready = Promise.race([answers, wait(LONGEST_ANSWER, false, { ref: false })]);
    this.asked = { at: now, ready };
    return ready;
  }

  /** Times every request, and ends its connection while the server drains. */
  readonly time: RequestHandler = (request, response, next) => {
    if (this.isDraining) response.setHeader('Connection', 'close');
    const ended = this.requests.startTimer({ method: request.method });
    response.once('close', () =>
      ended({ route: routeOf(response.locals), status: response.writableFinished ? response.statusCode : 'cut' }),
    );
    next();
  };

  serve(app: Express): void {
    app.get('/healthz', (_request, response) => void response.type('text').send('lives\n'));
    app.get('/readyz', async (_request, response) => {
      const why = this.isDraining ? 'is ending' : (await this.isReady()) ? '' : 'the database does not answer';
      response
        .status(why === '' ? 200 : 503)
        .type('text')
        .send(why === '' ? 'ready\n' : `not ready: ${why}\n`);
    });
    app.get('/metrics', async (request, response, next) => {
      const { metricsToken } = this.settings;
      if (metricsToken === '') return next();
      if (!isToken(request.get('authorization') ?? '', metricsToken)) {
        response.status(401).set('WWW-Authenticate', 'Bearer').type('text').send('wants the token of the figures\n');
        return;
      }
      response.type(this.figures.contentType).send(await this.figures.metrics());
    });
  }
}

/** The route as the contract names it: an address would say whose record it was. */
const routeOf = (locals: Record<string, unknown>): string => (typeof locals['route'] === 'string' ? locals['route'] : 'other');

/** Compared by their hashes, so that neither length nor beginning tells anything. */
function isToken(header: string, token: string): boolean {
  const [scheme, given = ''] = header.split(' ', 2);
  const [a, b] = [given, token].map((text) => Buffer.from(hashOf(text), 'hex'));
  return scheme?.toLowerCase() === 'bearer' && timingSafeEqual(a!, b!);
}
