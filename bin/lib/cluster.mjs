import { spawn, spawnSync } from 'node:child_process';
import { chmodSync, closeSync, existsSync, mkdirSync, openSync, readFileSync, writeFileSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { freePort } from './ports.mjs';
import { run, which } from './run.mjs';
import { Stop } from './say.mjs';

const PROVIDER = '/usr/lib/galera/libgalera_smm.so';
const PASSWORD = 'cluster-on-loopback';
/** Root cannot hand a state over: then the database's own user runs it, as on any server. */
const AS = process.getuid?.() === 0 ? 'mysql' : undefined;
/** A node that says nothing for two seconds is taken for dead; usual is five. */
const QUICK = 'evs.keepalive_period=PT0.5S;evs.suspect_timeout=PT2S;evs.inactive_timeout=PT5S;evs.install_timeout=PT5S';

/** Three nodes of MariaDB's own replication, on loopback, thrown away afterwards. */
export class Cluster {
  static async start(size = 3) {
    const folder = await mkdtemp(join(tmpdir(), 'dial-gauge-cluster-'));
    chmodSync(folder, 0o755);
    const cluster = new Cluster();
    cluster.folder = folder;
    cluster.nodes = [];
    for (let n = 0; n < size; n += 1)
      cluster.nodes.push({
        n,
        port: await freePort(),
        group: await freePort(),
        ist: await freePort(),
        sst: await freePort(),
        folder: join(folder, `n${n}`),
      });
    try {
      for (const node of cluster.nodes) await cluster.install(node);
      for (const node of cluster.nodes) await cluster.launch(node, node.n === 0 ? ['--wsrep-new-cluster'] : []);
      await cluster.sql(
        cluster.nodes[0],
        `CREATE DATABASE dial_gauge; CREATE USER dial_gauge@'127.0.0.1' IDENTIFIED BY '${PASSWORD}'; GRANT ALL ON dial_gauge.* TO dial_gauge@'127.0.0.1'`,
      );
      return cluster;
    } catch (error) {
      await cluster.stop();
      throw error;
    }
  }

  /** What a server over one of the nodes is told. */
  environment({ port }) {
    return {
      DIAL_GAUGE_DB_PORT: String(port),
      DIAL_GAUGE_DB_USER: 'dial_gauge',
      DIAL_GAUGE_DB_PASSWORD: PASSWORD,
      DIAL_GAUGE_DB_NAME: 'dial_gauge',
    };
  }

  async install(node) {
    mkdirSync(node.folder, { mode: 0o755 });
    const data = join(node.folder, 'data');
    if (AS) spawnSync('chown', [AS, node.folder]);
    const args = [
      '--no-defaults',
      `--datadir=${data}`,
      '--auth-root-authentication-method=normal',
      '--skip-test-db',
      ...(AS ? [`--user=${AS}`] : []),
    ];
    const { code, output } = await run(which('mariadb-install-db'), args, { quiet: true });
    if (code !== 0) throw new Stop(`A node could not be made:\n${output}`);
    const members = this.nodes.map(({ group }) => `127.0.0.1:${group}`).join(',');
    const settings = {
      ...(AS ? { user: AS } : {}),
      datadir: data,
      socket: join(node.folder, 'db.sock'),
      'pid-file': join(node.folder, 'db.pid'),
      port: node.port,
      'bind-address': '127.0.0.1',
      'skip-name-resolve': 'ON',
      'character-set-server': 'utf8mb4',
      'default-time-zone': '+00:00',
      binlog_format: 'ROW',
      default_storage_engine: 'InnoDB',
      innodb_autoinc_lock_mode: 2,
      innodb_buffer_pool_size: '128M',
      // Who looks after the schema makes triggers without being everybody's master.
      log_bin_trust_function_creators: 1,
      wsrep_on: 'ON',
      wsrep_provider: PROVIDER,
      wsrep_cluster_name: 'dial_gauge',
      wsrep_cluster_address: `gcomm://${members}`,
      wsrep_node_name: `n${node.n}`,
      wsrep_node_address: `127.0.0.1:${node.group}`,
      wsrep_provider_options: `"base_host=127.0.0.1;base_port=${node.group};gmcast.listen_addr=tcp://127.0.0.1:${node.group};ist.recv_addr=127.0.0.1:${node.ist};gcache.size=64M;${QUICK}"`,
      wsrep_sst_method: 'rsync',
      wsrep_sst_receive_address: `127.0.0.1:${node.sst}`,
      // Whoever reads on another node sees what was acknowledged on this one.
      wsrep_sync_wait: 1,
    };
    node.settings = join(node.folder, 'node.cnf');
    const lines = Object.entries(settings).map(([name, value]) => `${name}=${value}`);
    writeFileSync(node.settings, `[mysqld]\n${lines.join('\n')}\n`);
    if (AS) spawnSync('chown', ['-R', AS, node.folder]);
  }

  async launch(node, more = []) {
    const log = openSync(join(node.folder, 'log'), 'a');
    node.child = spawn(which('mariadbd'), [`--defaults-file=${node.settings}`, ...more], { detached: true, stdio: ['ignore', log, log] });
    closeSync(log);
    for (let tries = 0; tries < 600; tries += 1) {
      if (node.child.exitCode !== null || node.child.signalCode !== null) break;
      if ((await this.status(node)) === 'Synced') return;
      await wait(100);
    }
    const said = existsSync(join(node.folder, 'log'))
      ? readFileSync(join(node.folder, 'log'), 'utf8').split('\n').slice(-12).join('\n')
      : '';
    throw new Stop(`Node ${node.n} did not come in:\n${said}`);
  }

  async status(node) {
    const { output } = await this.ask(node, "SHOW STATUS LIKE 'wsrep_local_state_comment'");
    return output.trim().split('\t')[1];
  }

  ask(node, statement) {
    return run(which('mariadb'), ['--no-defaults', `--socket=${join(node.folder, 'db.sock')}`, '--user=root', '-N', '-e', statement], {
      quiet: true,
    });
  }

  async sql(node, statement) {
    const { code, output } = await this.ask(node, statement);
    if (code !== 0) throw new Stop(`Node ${node.n} refused: ${output}`);
    return output;
  }

  /** As a power cut would. */
  async kill(node) {
    const gone = new Promise((resolve) => node.child.once('exit', resolve));
    process.kill(node.child.pid, 'SIGKILL');
    await gone;
  }

  /** Comes in again with what it missed alone, where the others still have that at hand. */
  async rejoin(node) {
    const { output } = await run(which('mariadbd'), [`--defaults-file=${node.settings}`, '--wsrep-recover', '--disable-log-error'], {
      quiet: true,
    });
    const position = /Recovered position:?\s*(\S+)/.exec(output)?.[1];
    await this.launch(node, position ? [`--wsrep_start_position=${position}`] : []);
  }

  async stop() {
    for (const { child } of this.nodes) {
      if (!child || child.exitCode !== null || child.signalCode !== null) continue;
      const gone = new Promise((resolve) => child.once('exit', resolve));
      process.kill(child.pid, 'SIGTERM');
      await Promise.race([gone, wait(10_000)]);
      if (child.exitCode === null && child.signalCode === null) process.kill(child.pid, 'SIGKILL');
    }
    await rm(this.folder, { recursive: true, force: true });
  }
}
