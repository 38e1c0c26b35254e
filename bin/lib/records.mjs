import { readFileSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { pipeline } from 'node:stream/promises';
import mysql from 'mysql2/promise';
import { which } from './run.mjs';
import { Stop } from './say.mjs';

/** A database of records, as the tools of MariaDB and a connection of our own reach it. */
export class Records {
  /** @param at name, user and either a socket or host, port and password; ca: the authority of its certificate */
  constructor(at) {
    this.at = at;
    this.name = at.name;
  }

  /**
   * The one that the server's own environment names; undefined where it names none.
   *
   * @param whole whether tables are made: then by the account of the schema, where there is one
   */
  static ofEnvironment(whole, env = process.env) {
    const { DIAL_GAUGE_DB_NAME: name, DIAL_GAUGE_DB_SCHEMA_USER: schemaUser } = env;
    const asSchema = whole && schemaUser;
    const user = asSchema ? schemaUser : env.DIAL_GAUGE_DB_USER;
    if (!user || !name) return undefined;
    return new Records({
      name,
      user,
      host: env.DIAL_GAUGE_DB_HOST ?? '127.0.0.1',
      port: Number(env.DIAL_GAUGE_DB_PORT ?? 3306),
      password: (asSchema ? env.DIAL_GAUGE_DB_SCHEMA_PASSWORD : env.DIAL_GAUGE_DB_PASSWORD) ?? '',
      ca: env.DIAL_GAUGE_DB_CA || undefined,
    });
  }

  /** One of our own servers, as whoever runs it. */
  static ofPrivate(database) {
    return new Records({ name: 'dial_gauge', user: database.me, socket: database.socket });
  }

  /** What a tool of MariaDB is called with; the password goes by its environment, where nobody lists it. */
  tool(program, ...args) {
    const { user, socket, host, port, ca } = this.at;
    const where = socket
      ? [`--socket=${socket}`]
      : [`--host=${host}`, `--port=${port}`, '--protocol=TCP', ...(ca ? [`--ssl-ca=${ca}`, '--ssl-verify-server-cert'] : [])];
    const path = which(program);
    if (!path) throw new Stop(`${program} is missing. Install Debian's mariadb-server (or mariadb-client) and run the command again.`);
    return [path, ['--no-defaults', `--user=${user}`, ...where, ...args], { ...process.env, MYSQL_PWD: this.at.password ?? '', TZ: 'UTC' }];
  }

  connect() {
    const { user, socket, host, port, password, ca, name: database } = this.at;
    const ssl = ca ? { ssl: { ca: readFileSync(ca, 'utf8'), minVersion: 'TLSv1.2', verifyIdentity: true } } : {};
    const where = socket ? { socketPath: socket } : { host, port, password, ...ssl };
    return mysql.createConnection({
      ...where,
      user,
      database,
      charset: 'utf8mb4',
      timezone: 'Z',
      supportBigNumbers: true,
      bigNumberStrings: true,
    });
  }

  /** Reads SQL as it comes. @throws with what MariaDB says of it */
  async read(statements, ...args) {
    const [command, all, env] = this.tool('mariadb', ...args, this.name);
    const child = spawn(command, all, { env, stdio: ['pipe', 'ignore', 'pipe'] });
    let said = '';
    child.stderr.on('data', (chunk) => (said += chunk));
    const ended = new Promise((resolve) => child.once('close', resolve));
    // Where it ends early what it says of that is the reason, and not the broken pipe.
    const failed = await pipeline(statements, child.stdin).then(
      () => undefined,
      (error) => error,
    );
    if ((await ended) !== 0) throw new Stop(`The records were not read in: ${reasonOf(said) || failed?.message}`);
    if (failed) throw failed;
  }
}

/** What went wrong, without the records that it went wrong with. */
const reasonOf = (said) =>
  said
    .split('\n')
    .filter((line) => line.startsWith('ERROR'))
    .map((line) => line.slice(0, 200))
    .join('\n');

const quoted = (name) => `\`${name.replaceAll('`', '``')}\``;

/**
 * How many rows each table has, and a hash over all of them in whatever order
 * they lie: SHA-256 of every row, of which the first half is put together by
 * exclusive or.
 */
export async function tallyOf(connection) {
  const [tables] = await connection.query(
    "SELECT TABLE_NAME AS name FROM information_schema.TABLES WHERE TABLE_SCHEMA = DATABASE() AND TABLE_TYPE = 'BASE TABLE' ORDER BY TABLE_NAME",
  );
  const tally = {};
  for (const { name } of tables) {
    const [columns] = await connection.query(
      'SELECT COLUMN_NAME AS name FROM information_schema.COLUMNS WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = ? ORDER BY COLUMN_NAME',
      [name],
    );
    const row = columns
      .map((column) => `IFNULL(LENGTH(${quoted(column.name)}), '-'), IFNULL(CAST(${quoted(column.name)} AS BINARY), '')`)
      .join(', ');
    const hash = `SHA2(CONCAT_WS('|', ${row}), 256)`;
    const part = (from) => `LPAD(HEX(IFNULL(BIT_XOR(CAST(CONV(SUBSTR(h, ${from}, 16), 16, 10) AS UNSIGNED)), 0)), 16, '0')`;
    const [[{ held, sum }]] = await connection.query(
      `SELECT COUNT(*) AS held, CONCAT(${part(1)}, ${part(17)}) AS sum FROM (SELECT ${hash} AS h FROM ${quoted(name)}) AS hashed`,
    );
    tally[name] = { rows: Number(held), sum };
  }
  return tally;
}

/** What differs between two tallies, in words; nothing where they are the same. */
export function differences(expected, found) {
  const names = [...new Set([...Object.keys(expected), ...Object.keys(found)])].sort();
  return names.flatMap((name) => {
    const [a, b] = [expected[name], found[name]];
    if (!a) return [`${name} is not in the backup`];
    if (!b) return [`${name} is missing`];
    if (a.rows !== b.rows) return [`${name} has ${b.rows} rows; in the backup ${a.rows}`];
    return a.sum === b.sum ? [] : [`${name} has ${b.rows} rows, and some are not as in the backup`];
  });
}

export const rowsIn = (tally) => Object.values(tally).reduce((sum, { rows }) => sum + rows, 0);
