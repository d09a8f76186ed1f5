import { spawnSync } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import {
  chmodSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { say, Stop } from './say.mjs';

export const ROOT = join(import.meta.dirname, '..', '..');
export const VAR = join(ROOT, 'var');
const OLDEST_NODE = 20;

export function checkNode() {
  const [major] = process.versions.node.split('.').map(Number);
  if (major < OLDEST_NODE)
    throw new Stop(`Node.js ${OLDEST_NODE} or newer is needed, this is ${process.versions.node}.`);
}

export function has(command) {
  return spawnSync('sh', ['-c', `command -v ${command}`], { stdio: 'ignore' }).status === 0;
}

/** Installs Debian packages when `command` is missing. */
export function ensureProgram(command, packages) {
  if (has(command)) return;
  const list = packages.join(' ');
  if (!has('apt-get')) {
    throw new Stop(
      `${command} is missing and there is no apt-get here: install ${list} with your package manager, then start again.`,
    );
  }
  const root = process.getuid?.() === 0;
  if (!root && !has('sudo'))
    throw new Stop(`${command} is missing: run "apt-get install ${list}" as root, then start again.`);
  say(`installing ${list}`);
  const prefix = root ? [] : ['sudo', '-E'];
  const apt = (...args) => {
    const [program, ...rest] = [...prefix, 'apt-get', ...args];
    return spawnSync(program, rest, {
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  };
  apt('update', '-qq');
  const done = apt('install', '-y', '-qq', '--no-install-recommends', ...packages);
  if (done.status !== 0 || !has(command)) {
    const last = String(done.stderr).trim().split('\n').at(-1);
    throw new Stop(`apt-get could not install ${list} (${last}); install it by hand, then start again.`);
  }
}

/** Runs a command, its output shown; throws a Stop naming it when it fails. */
export function must(program, args, options = {}) {
  const done = spawnSync(program, args, { cwd: ROOT, stdio: 'inherit', ...options });
  if (done.status !== 0)
    throw new Stop(
      `"${[program, ...args].join(' ')}" failed (status ${done.status ?? done.signal}); see above.`,
    );
}

/** `npm ci` when node_modules does not match the lock file. */
export function ensurePackages() {
  const stamp = join(VAR, 'packages.stamp');
  const wanted = digest([join(ROOT, 'package-lock.json')]);
  if (existsSync(join(ROOT, 'node_modules', 'next')) && read(stamp) === wanted) return;
  say('installing packages (npm ci)');
  must('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  keep(stamp, wanted);
}

/** What cookies are sealed with: made at the first start, and its owner's alone. */
export function sessionSecret(folder) {
  const file = join(folder, 'session-secret');
  const known = existsSync(file) ? readFileSync(file, 'utf8').trim() : '';
  if (known.length >= 32) return known;
  const fresh = randomBytes(48).toString('base64url');
  mkdirSync(folder, { recursive: true });
  writeFileSync(file, `${fresh}\n`, { mode: 0o600 });
  return fresh;
}

/** Production build when a source file changed since the last one. */
export function ensureBuild() {
  const stamp = join(VAR, 'build.stamp');
  const parts = [
    'src',
    'package-lock.json',
    'next.config.ts',
    'tsconfig.json',
    join('scripts', 'threads.mjs'),
    join('scripts', 'compress.mjs'),
  ];
  const wanted = digest(parts.map((part) => join(ROOT, part)));
  if (
    existsSync(join(ROOT, '.next', 'BUILD_ID')) &&
    existsSync(join(ROOT, '.next', 'threads')) &&
    read(stamp) === wanted
  )
    return;
  say('building');
  must('npm', ['run', 'build', '--silent'], { env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' } });
  keep(stamp, wanted);
}

/** Rejects with one clear line when a loopback port is taken. */
export function checkPort(port, name, option) {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.once('error', () =>
      reject(
        new Stop(`port ${port} (${name}) is taken: stop what uses it, or set ${option} to another port.`),
      ),
    );
    server.listen(port, '127.0.0.1', () => server.close(() => resolve()));
  });
}

/** Writes a file; one with a secret is its owner's alone. */
export function keep(file, text, { secret = false } = {}) {
  mkdirSync(join(file, '..'), { recursive: true });
  writeFileSync(file, text, secret ? { mode: 0o600 } : {});
  // One that was there before keeps the rights it had.
  if (secret) chmodSync(file, 0o600);
}

export function read(file) {
  return existsSync(file) ? readFileSync(file, 'utf8') : null;
}

function digest(paths) {
  const hash = createHash('sha256');
  const walk = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort()) walk(join(path, name));
    } else hash.update(path).update(readFileSync(path));
  };
  paths.forEach(walk);
  return hash.digest('hex');
}

/** Waits for something; does the other thing after so many seconds, and waits on. */
export async function within(work, seconds, otherwise) {
  const timer = setTimeout(otherwise, seconds * 1000);
  await work;
  clearTimeout(timer);
}
