/**
 * Third-party notices from the lock file: `node scripts/notices.mjs` writes `docs/third-party.md`, with `--check` it says
 * whether that is up to date and whether every licence is one that may be shipped or built with.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { run, say, Stop } from './lib/say.mjs';
import { read, ROOT } from './lib/system.mjs';

/** May be shipped with an application under the MIT licence. The LGPL ones are libraries that stand by themselves. */
const MAY_SHIP = new Set([
  '0BSD',
  'Apache-2.0',
  'BlueOak-1.0.0',
  'BSD-2-Clause',
  'BSD-3-Clause',
  'CC-BY-4.0',
  'CC0-1.0',
  'EPL-2.0',
  'ISC',
  'LGPL-3.0-or-later',
  'MIT',
  'MIT-0',
  'OFL-1.1',
]);
/** May be built and tested with. */
const MAY_BUILD = new Set([...MAY_SHIP, 'MPL-2.0', 'Python-2.0', 'Unlicense']);
/** Packages whose lock entry names no licence, with what their own files say. */
const SAID_ELSEWHERE = { 'png-js': 'MIT' };

/** Whether an expression leaves a choice, or a set, of licences that are all in order. */
function isInOrder(expression, allowed) {
  return expression
    .replace(/[()]/g, '')
    .split(' OR ')
    .some((choice) => choice.split(' AND ').every((one) => allowed.has(one.trim())));
}

await run(async () => {
  const { packages } = JSON.parse(readFileSync(join(ROOT, 'package-lock.json'), 'utf8'));
  const all = Object.entries(packages)
    .filter(([path]) => path !== '')
    .map(([path, { version, license, dev = false }]) => {
      const name = path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length);
      return { name, version, license: license ?? SAID_ELSEWHERE[name] ?? 'not said', dev };
    });
  const wrong = all.filter(({ license, dev }) => !isInOrder(license, dev ? MAY_BUILD : MAY_SHIP));
  if (wrong.length > 0)
    throw new Stop(
      `licences to look at: ${wrong.map(({ name, license }) => `${name} (${license})`).join(', ')}.`,
    );
  const shipped = new Map(all.filter(({ dev }) => !dev).map((one) => [`${one.name} ${one.version}`, one]));
  const text = [
    '# Third-party notices',
    '',
    `Spiraxis is under the MIT licence. It is shipped with these ${shipped.size} packages of others, each under its own;`,
    'their texts lie beside them in `node_modules`. Written by `node scripts/notices.mjs` from the lock file.',
    '',
    '| package | version | licence |',
    '|---|---|---|',
    ...[...shipped.values()]
      .sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : a.version < b.version ? -1 : 1))
      .map(({ name, version, license }) => `| ${name} | ${version} | ${license} |`),
    '',
  ].join('\n');
  const file = join(ROOT, 'docs', 'third-party.md');
  if (!process.argv.includes('--check')) writeFileSync(file, text);
  else if (read(file) !== text)
    throw new Stop('docs/third-party.md is not what the lock file says; run "node scripts/notices.mjs".');
  say(`${shipped.size} packages shipped, ${all.length} in all, every licence in order.`);
});
