import { spawn, spawnSync } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { userInfo } from 'node:os';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import {
  APPLICATION,
  firstStatements,
  installDb,
  lastLine,
  OWNER,
  secretIn,
  serverOptions,
  serverProgram,
} from './mariadb.mjs';
import { say, Stop } from './say.mjs';
import { checkPort, ensureProgram, keep, read, within } from './system.mjs';

const LIBRARIES = ['/usr/lib/galera/libgalera_smm.so', '/usr/lib64/galera-4/libgalera_smm.so'];
const PACKAGES = ['mariadb-server', 'mariadb-backup', 'galera-4', 'socat', 'iproute2', 'lsof'];
const CALLERS_FROM = 32_768;
const BELOW = 10_000;
const START_SECONDS = 90;
const STOP_SECONDS = 20;
const NAMES = ['n1', 'n2', 'n3'];

/**
 * Three MariaDB nodes of one Galera cluster on this machine, each with its data in a folder of its own. They speak to each
 * other from 127.0.0.11 on, so that a firewall can part them; the application comes to 127.0.0.1 and the node's own port.
 *
 * @param {object} cluster
 * @param {string} cluster.folder
 * @param {number} cluster.port of the first node; the others follow
 * @param {string} [cluster.memory] of each node
 * @param {boolean} [cluster.lasting] waits for the disk at each commit; else a node may lose a second with the machine, never with its process
 * @param {string[]} [cluster.more] further options of each server
 * @param {(ownerUrl: string) => Promise<void>} [cluster.fill] fills the first node, before the others take from it what it has
 * @param {(node: object, why: string) => void} [cluster.onLost] when a node ends that nobody stopped
 */
export async function startGalera({
  folder,
  port,
  database = 'spiraxis',
  memory = '128M',
  lasting = true,
  more = [],
  fill = async () => undefined,
  onLost = () => undefined,
}) {
  ensureProgram('mariadb-backup', PACKAGES);
  const library = LIBRARIES.find((file) => existsSync(file));
  const program = serverProgram();
  if (!library || !program)
    throw new Stop(`${PACKAGES.join(', ')} were installed, but Galera’s library is not there.`);
  // What a node takes from another one is written by this user; root may not.
  const asRoot = process.getuid?.() === 0 ? ['--user=mysql'] : [];
  /** Whom the copy that a node gives away is made as: the account that the servers run under, known by its socket. */
  const keeper = asRoot.length > 0 ? 'mysql' : userInfo().username;
  mkdirSync(folder, { recursive: true });
  const owner = secretIn(folder, 'password');
  const application = secretIn(folder, 'app-password');
  const url = (user, password, ports) =>
    `mysql://${user}:${password}@${ports.map((one) => `127.0.0.1:${one}`).join(',')}/${database}`;
  // What the nodes say to each other goes below the ports that a system gives to whoever calls out: one of those may be taken.
  const between = port + 20 - (port > CALLERS_FROM ? BELOW : 0);
  const group = NAMES.map((_name, at) => `${addressOf(at)}:${between}`).join(',');

  const nodes = NAMES.map((name, at) => {
    const home = join(folder, name);
    const data = join(home, 'data');
    const errorLog = join(home, 'error.log');
    const own = port + at;
    const address = addressOf(at);
    const ownerUrl = url(OWNER, owner, [own]);
    const provider = [
      `gmcast.listen_addr=tcp://${address}:${between}`,
      `ist.recv_addr=${address}:${between + 1}`,
      `ist.recv_bind=${address}:${between + 1}`,
      'gcache.size=64M',
      // A node that says nothing for so long is left behind: as long nobody can write.
      'evs.suspect_timeout=PT2S',
      'evs.inactive_timeout=PT8S',
      // To agree on who belongs takes a busy machine longer: cut short, all of them are left without a majority.
      'evs.install_timeout=PT8S',
      'evs.keepalive_period=PT0.5S',
    ].join(';');
    const settings = join(home, 'node.cnf');
    const args = [`--defaults-file=${settings}`, ...asRoot];
    // In a file, where the program that copies a node's data finds them too; on the command line it trips over them.
    const options = [
      `--datadir=${data}`,
      `--socket=${join(home, 'db.sock')}`,
      `--pid-file=${join(home, 'db.pid')}`,
      `--port=${own}`,
      `--log-error=${errorLog}`,
      ...serverOptions(memory),
      '--binlog-format=ROW',
      '--default-storage-engine=InnoDB',
      '--innodb-autoinc-lock-mode=2',
      // What a commit lost with the machine, the other two still have.
      ...(lasting ? [] : ['--innodb-flush-log-at-trx-commit=2']),
      ...more,
      '--wsrep-on=ON',
      `--wsrep-provider=${library}`,
      '--wsrep-cluster-name=spiraxis',
      `--wsrep-cluster-address=gcomm://${group}`,
      `--wsrep-node-name=${name}`,
      `--wsrep-node-address=${address}:${between}`,
      `--wsrep-node-incoming-address=127.0.0.1:${own}`,
      // The one that gives goes on working meanwhile; with rsync it stands still, and was seen not to come back (docs/serving.md).
      '--wsrep-sst-method=mariabackup',
      `--wsrep-sst-auth=${keeper}:`,
      `--wsrep-sst-receive-address=${address}:${between + 2}`,
      `--wsrep-provider-options=${provider}`,
    ];
    let child = null;
    let gone = Promise.resolve();
    let wanted = false;
    const node = {
      name,
      address,
      ownerUrl,
      home,
      running: () => child !== null,
      pid: () => child?.pid ?? null,
      /** Starts it and waits until it has taken in what it missed. */
      start: async (begin = []) => {
        wanted = true;
        let ended = null;
        // Killed, it knows by its own log how far it came, and asks for the rest alone; as the packaged service does.
        const from = begin.length > 0 ? null : recoveredPosition(program, node);
        const position = from === null ? [] : [`--wsrep-start-position=${from}`];
        const started = spawn(program, [...args, ...position, ...begin], { stdio: 'ignore', detached: true });
        child = started;
        gone = new Promise((resolve) =>
          started.once('exit', (status, signal) => {
            ended = signal ?? `status ${status}`;
            if (child === started) child = null;
            resolve();
            if (wanted && node.ready) onLost(node, ended);
            node.ready = false;
          }),
        );
        for (let waited = 0; ; waited += 0.2) {
          if (ended || waited > START_SECONDS) {
            wanted = false;
            started.kill('SIGKILL');
            throw new Stop(
              `${name} did not start (${ended ?? 'in time'}; ${lastLine(read(errorLog) ?? '')}); see ${errorLog}.`,
            );
          }
          if (await isReady(ownerUrl)) break;
          await new Promise((resolve) => setTimeout(resolve, 200));
        }
        node.ready = true;
      },
      ready: false,
      signal: (signal) => child?.kill(signal),
      /** As when the power fails. */
      kill: async () => {
        wanted = false;
        child?.kill('SIGKILL');
        await gone;
      },
      stop: async () => {
        wanted = false;
        child?.kill('SIGTERM');
        await within(gone, STOP_SECONDS, () => child?.kill('SIGKILL'));
      },
      /** What it is at: its state in the cluster, and every transaction that lasts. */
      look: () => lookAt(ownerUrl),
      args,
      options,
      data,
    };
    return node;
  });

  for (let one = port; one < port + NAMES.length; one++) await checkPort(one, 'database', 'SPIRAXIS_DB_PORT');
  const stop = async () => {
    // The last one knows all that was written, and is the first to start again.
    for (const node of nodes.toReversed()) await node.stop();
  };
  const fresh = !existsSync(join(folder, 'ready'));
  const first = fresh ? nodes[0] : mostAdvanced(program, nodes);
  /** A folder that the servers may write to. */
  const own = (path) => {
    mkdirSync(path, { recursive: true });
    if (asRoot.length > 0) spawnSync('chown', ['mysql', path]);
    chmodSync(path, 0o700);
  };
  try {
    const begin = ['--wsrep-new-cluster'];
    const statements = join(first.home, 'init.sql');
    if (fresh) {
      for (const { home, data, options } of nodes) {
        rmSync(home, { recursive: true, force: true });
        own(home);
        own(data);
        // No server looks elsewhere for its settings; what a copy says of itself stands in the node's own folder.
        keep(join(home, 'node.cnf'), settingsOf(options));
      }
      installDb(first.data, asRoot);
      // Read once, by the server that begins the cluster; whoever joins gets the users with the rest.
      keep(
        statements,
        `${[...firstStatements(database, owner, application), `GRANT PROCESS ON *.* TO '${OWNER}'@'127.0.0.1'`, `CREATE OR REPLACE USER '${keeper}'@'localhost' IDENTIFIED VIA unix_socket`, `GRANT RELOAD, PROCESS, LOCK TABLES, BINLOG MONITOR, REPLICA MONITOR ON *.* TO '${keeper}'@'localhost'`].join(';\n')};\n`,
        { secret: true },
      );
      if (asRoot.length > 0) spawnSync('chown', ['mysql', statements]);
      begin.push(`--init-file=${statements}`);
    }
    await first.start(begin);
    rmSync(statements, { force: true });
    await fill(first.ownerUrl);
    // One after the other: who gives away its data gives it to one at a time.
    for (const node of nodes) if (node !== first) await node.start();
    keep(join(folder, 'ready'), 'yes\n');
  } catch (error) {
    await stop();
    throw error;
  }
  const ports = nodes.map((_node, at) => port + at);
  return {
    nodes,
    ownerUrl: first.ownerUrl,
    /** As an application sees it that asks one of the nodes first. */
    urlFrom: (at) => url(APPLICATION, application, [...ports.slice(at), ...ports.slice(0, at)]),
    stop,
  };
}

const addressOf = (at) => `127.0.0.${11 + at}`;

/** Whether a node is a part of its cluster, and has all that was written. */
async function isReady(url) {
  try {
    const connection = await createConnection({ uri: url, connectTimeout: 1000 });
    try {
      const [rows] = await connection.query("SHOW STATUS LIKE 'wsrep_ready'");
      return rows[0]?.Value === 'ON';
    } finally {
      connection.destroy();
    }
  } catch {
    return false;
  }
}

const LOOK = `
  SELECT VARIABLE_NAME, VARIABLE_VALUE FROM information_schema.GLOBAL_STATUS
   WHERE VARIABLE_NAME IN ('WSREP_CLUSTER_STATUS', 'WSREP_CLUSTER_SIZE', 'WSREP_LOCAL_STATE_COMMENT', 'WSREP_LAST_COMMITTED',
                           'WSREP_LOCAL_RECV_QUEUE', 'WSREP_LOCAL_SEND_QUEUE', 'WSREP_FLOW_CONTROL_PAUSED');
  SELECT trx_started, trx_state, trx_rows_locked, trx_mysql_thread_id, LEFT(trx_query, 80) FROM information_schema.INNODB_TRX ORDER BY 1;
  SELECT ID, USER, HOST, COMMAND, TIME_MS, STATE, LEFT(INFO, 120) FROM information_schema.PROCESSLIST WHERE ID <> CONNECTION_ID() ORDER BY ID`;

/** Lines on what a node is at. */
async function lookAt(url) {
  const connection = await createConnection({ uri: url, connectTimeout: 1000, multipleStatements: true });
  try {
    const [tables] = await connection.query(LOOK);
    return tables.flat().map((row) => Object.values(row).join(' '));
  } catch (error) {
    return [`says nothing: ${error.message}`];
  } finally {
    connection.destroy();
  }
}

/** A file of settings: the server's, and that what a copy says of itself stands in the node's own folder. */
function settingsOf(options) {
  const lines = options.map((one) => {
    const [, name, value] = /^--([^=]+)(?:=([^]*))?$/.exec(one);
    return value === undefined ? name : `${name}="${value}"`;
  });
  return `[mysqld]\n${lines.join('\n')}\n[sst]\nsst-syslog=0\n`;
}

/** How far a node came that was stopped or killed, as `group:number`; null where it holds nothing that counts. */
function recoveredPosition(program, node) {
  if (!existsSync(join(node.data, 'grastate.dat'))) return null;
  const log = join(node.home, 'recover.log');
  spawnSync(program, [...node.args, `--log-error=${log}`, '--wsrep-recover'], { stdio: 'ignore' });
  const found = /Recovered position: ([0-9a-f-]{36}:\d+)/.exec(read(log) ?? '');
  rmSync(log, { force: true });
  return found?.[1] ?? null;
}

/** Of nodes that were all stopped, the one that knows the most; it begins the cluster anew. */
function mostAdvanced(program, nodes) {
  const known = nodes.map((node) => {
    const state = join(node.data, 'grastate.dat');
    const text = read(state) ?? '';
    if (/safe_to_bootstrap: 1/.test(text)) return { node, state, at: Infinity };
    const position = recoveredPosition(program, node);
    return { node, state, at: position === null ? -1 : Number(position.split(':')[1]) };
  });
  const best = known.reduce((one, other) => (other.at > one.at ? other : one));
  if (best.at !== Infinity) {
    say(`all nodes were killed; ${best.node.name} came furthest and begins.`);
    const text = readFileSync(best.state, 'utf8');
    writeFileSync(best.state, text.replace('safe_to_bootstrap: 0', 'safe_to_bootstrap: 1'));
  }
  return best.node;
}
