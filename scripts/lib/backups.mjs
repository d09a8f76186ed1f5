import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import {
  createReadStream,
  createWriteStream,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import mysql from 'mysql2/promise';
import { removeMariaDb, startMariaDb } from './mariadb.mjs';
import { Stop } from './say.mjs';
import { ensureProgram, keep, read } from './system.mjs';

const FORMAT = 'spiraxis-backup';
const VERSION = 1;
const ENDING = '.sql.gz';
/** What the database's own program writes last, when it came to its end. */
const LAST_WORDS = '-- Dump completed';
const TAIL_BYTES = 400;
/** Changed by every start, and nothing of the shed's: which start migrates at the moment. */
const LEFT_ASIDE = ['migration_lock'];

/**
 * One consistent picture of the database, taken while it runs: written beside its name until it is whole, restored into a database of
 * its own and read there before it counts as a backup.
 *
 * @returns the file, and what stands in it
 */
export async function makeBackup({ url, folder, most, now = new Date() }) {
  ensureProgram('mariadb-dump', ['mariadb-client']);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const stamp = now
    .toISOString()
    .replaceAll(/[-:]|\.\d+/g, '')
    .replace('T', '-');
  const file = join(folder, `spiraxis-${stamp}${ENDING}`);
  if (read(manifestOf(file)) !== null) throw new Stop(`${file} is there already; try again in a second.`);
  const part = `${file}.part`;
  try {
    const { sha256, tail } = await dumpInto(url, part);
    if (!tail.includes(LAST_WORDS))
      throw new Stop('the database ended before its copy was whole; nothing was kept, try again.');
    const tables = await restoredTables(part);
    const manifest = {
      format: FORMAT,
      version: VERSION,
      madeAt: now.toISOString(),
      bytes: statSync(part).size,
      sha256,
      tables,
    };
    renameSync(part, file);
    keep(manifestOf(file), `${JSON.stringify(manifest, null, 2)}\n`, { secret: true });
    return { file, manifest, dropped: dropOldest(folder, most) };
  } finally {
    rmSync(part, { force: true });
  }
}

/** What a backup says of itself, once the file is seen to be the one that was written. */
export async function checkedManifest(file) {
  const text = read(manifestOf(file));
  if (text === null)
    throw new Stop(
      `${file} has no ${basename(manifestOf(file))} beside it; name a backup that was finished.`,
    );
  const manifest = JSON.parse(text);
  if (manifest.format !== FORMAT || manifest.version !== VERSION)
    throw new Stop(
      `${manifestOf(file)} is none of this program's (format ${manifest.format}, version ${manifest.version}).`,
    );
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash);
  if (hash.digest('hex') !== manifest.sha256)
    throw new Stop(`${file} is not the file that was written: its SHA-256 differs. Take another backup.`);
  return manifest;
}

/**
 * A backup put into a folder where no database stands yet. The server is stopped again when this returns.
 *
 * @returns its tables as they stand there
 */
export async function restoreInto(file, folder) {
  const database = await startMariaDb({ folder, port: await freePort() });
  try {
    await load(file, database.ownerUrl);
    return await tablesOf(database.ownerUrl);
  } finally {
    await database.stop();
  }
}

/** Tables whose rows or sums are not those of the manifest, in words. */
export function differences(wanted, found) {
  const names = [...new Set([...Object.keys(wanted), ...Object.keys(found)])].sort();
  return names.flatMap((name) => {
    const [before, after] = [wanted[name], found[name]];
    if (!before || !after) return [`${name} is ${after ? 'there and should not be' : 'missing'}`];
    if (before.rows !== after.rows) return [`${name} has ${after.rows} rows and should have ${before.rows}`];
    return before.sum === after.sum ? [] : [`${name} has other figures in it`];
  });
}

/** Rows of each table, and the database's own sum over them. */
export async function tablesOf(url) {
  const db = await mysql.createConnection(url);
  try {
    const [tables] = await db.query("SHOW FULL TABLES WHERE Table_type = 'BASE TABLE'");
    const found = {};
    for (const row of tables) {
      const name = String(Object.values(row)[0]);
      if (LEFT_ASIDE.includes(name)) continue;
      const [[count]] = await db.query('SELECT COUNT(*) AS `rows` FROM ??', [name]);
      const [[sum]] = await db.query('CHECKSUM TABLE ??', [name]);
      found[name] = { rows: Number(count.rows), sum: Number(sum.Checksum) };
    }
    return found;
  } finally {
    await db.end();
  }
}

function manifestOf(file) {
  return `${file.slice(0, -ENDING.length)}.json`;
}

/** Restores into a database that is thrown away, and reads it there. */
async function restoredTables(file) {
  const folder = mkdtempSync(join(tmpdir(), 'spiraxis-restore-'));
  try {
    const database = await startMariaDb({ folder, port: await freePort(), lasting: false });
    try {
      await load(file, database.ownerUrl);
      return await tablesOf(database.ownerUrl);
    } finally {
      await database.stop();
    }
  } finally {
    removeMariaDb(folder);
  }
}

async function dumpInto(url, file) {
  const hash = createHash('sha256');
  let tail = '';
  const watch = new Transform({
    transform(piece, _encoding, done) {
      tail = (tail + piece.subarray(-TAIL_BYTES).toString('latin1')).slice(-TAIL_BYTES);
      done(null, piece);
    },
  });
  const hashed = new Transform({
    transform(piece, _encoding, done) {
      hash.update(piece);
      done(null, piece);
    },
  });
  await withOptions(url, async (options, database) => {
    const child = spawn(
      'mariadb-dump',
      [
        options,
        '--single-transaction',
        '--quick',
        '--skip-lock-tables',
        '--hex-blob',
        '--triggers',
        database,
      ],
      { stdio: ['ignore', 'pipe', 'pipe'] },
    );
    await finished(child, 'mariadb-dump', () =>
      pipeline(
        child.stdout,
        watch,
        createGzip(),
        hashed,
        createWriteStream(file, { mode: 0o600, flush: true }),
      ),
    );
  });
  return { sha256: hash.digest('hex'), tail };
}

async function load(file, url) {
  await withOptions(url, async (options, database) => {
    const child = spawn('mariadb', [options, database], { stdio: ['pipe', 'ignore', 'pipe'] });
    await finished(child, 'mariadb', () => pipeline(createReadStream(file), createGunzip(), child.stdin));
  });
}

/** Runs a program's pipe and waits for both; what it says on its error output becomes the one line of the refusal. */
async function finished(child, name, pipe) {
  const words = [];
  child.stderr.on('data', (piece) => words.push(piece));
  const ended = once(child, 'close').then(([status]) => status);
  const piped = await pipe().then(
    () => null,
    (error) => error,
  );
  const status = await ended;
  const said = Buffer.concat(words).toString().trim().split('\n').at(-1);
  if (status !== 0) throw new Stop(`${name} failed (${said || `status ${status}`}).`);
  if (piped) throw piped;
}

/** Address and password go by a file that only its owner reads: a command line is seen by everybody on the machine. */
async function withOptions(url, work) {
  const { hostname, port, username, password, pathname } = new URL(url);
  const folder = mkdtempSync(join(tmpdir(), 'spiraxis-client-'));
  try {
    const file = join(folder, 'client.cnf');
    const lines = [
      '[client]',
      `host=${hostname}`,
      `port=${port || 3306}`,
      `user=${decodeURIComponent(username)}`,
      `password="${decodeURIComponent(password)}"`,
      'protocol=tcp',
      'default-character-set=utf8mb4',
    ];
    keep(file, `${lines.join('\n')}\n`, { secret: true });
    await work(`--defaults-file=${file}`, pathname.slice(1));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Takes away the oldest backups beyond so many; only those that this program made. */
function dropOldest(folder, most) {
  const made = readdirSync(folder)
    .filter((name) => /^spiraxis-\d{8}-\d{6}Z\.sql\.gz$/.test(name))
    .sort();
  const old = made.slice(0, Math.max(0, made.length - most));
  for (const name of old) {
    rmSync(join(folder, name), { force: true });
    rmSync(manifestOf(join(folder, name)), { force: true });
  }
  return old;
}

function freePort() {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.once('error', reject);
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });
}
