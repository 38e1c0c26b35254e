import * as z from 'zod';

const port = z.coerce.number().int().min(1).max(65_535);

const Environment = z.object({
  DIAL_GAUGE_PORT: port,
  DIAL_GAUGE_DB_HOST: z.string().default('127.0.0.1'),
  DIAL_GAUGE_DB_PORT: port,
  DIAL_GAUGE_DB_USER: z.string().min(1),
  DIAL_GAUGE_DB_PASSWORD: z.string().min(1),
  DIAL_GAUGE_DB_NAME: z.string().min(1),
  DIAL_GAUGE_SESSION_SECRET: z.string().min(32),
  DIAL_GAUGE_WEB_ROOT: z.string().optional(),
  DIAL_GAUGE_DEMO: z.enum(['yes', 'no']).default('no'),
  DIAL_GAUGE_SECURE_COOKIE: z.enum(['yes', 'no']).default('no'),
  DIAL_GAUGE_LOG: z.enum(['fatal', 'error', 'warn', 'info', 'debug', 'silent']).default('info'),
});

/** The server's settings, all from the environment. Throws with every variable that does not fit. */
export function readSettings(environment: NodeJS.ProcessEnv) {
  const parsed = Environment.safeParse(environment);
  if (!parsed.success) {
    throw new Error(`settings do not fit:\n${z.prettifyError(parsed.error)}`);
  }
  const e = parsed.data;
  return {
    port: e.DIAL_GAUGE_PORT,
    database: {
      host: e.DIAL_GAUGE_DB_HOST,
      port: e.DIAL_GAUGE_DB_PORT,
      user: e.DIAL_GAUGE_DB_USER,
      password: e.DIAL_GAUGE_DB_PASSWORD,
      database: e.DIAL_GAUGE_DB_NAME,
    },
    sessionSecret: e.DIAL_GAUGE_SESSION_SECRET,
    webRoot: e.DIAL_GAUGE_WEB_ROOT,
    demo: e.DIAL_GAUGE_DEMO === 'yes',
    secureCookie: e.DIAL_GAUGE_SECURE_COOKIE === 'yes',
    logLevel: e.DIAL_GAUGE_LOG,
  };
}
