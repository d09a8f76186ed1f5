/**
 * The command line. What it is made of is bundled once after a change, so that a call starts in a fraction of the time
 * that reading every TypeScript file takes. Several calls at once may bundle it: each writes a file of its own and puts it in place whole.
 */
import { existsSync, mkdirSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ROOT, VAR } from './lib/system.mjs';

const bundle = join(VAR, 'cli', 'spiraxis.mjs');
const list = `${bundle}.json`;

/** When a file was changed and how long it is; null where it is gone. Compared for being the same, not for being later: clocks go back. */
function stampOf(name) {
  const found = statSync(join(ROOT, name), { throwIfNoEntry: false });
  return found ? [name, found.mtimeMs, found.size] : null;
}

/** What went into the bundle; null where its list cannot be read, which is as good as none. */
function readInputs() {
  try {
    const inputs = JSON.parse(readFileSync(list, 'utf8'));
    return Array.isArray(inputs) ? inputs : null;
  } catch (error) {
    if (error instanceof SyntaxError) return null;
    throw error;
  }
}

/** The bundle is there, and nothing that went into it has changed since; what went in stands beside it. */
function isCurrent() {
  if (!existsSync(bundle) || !existsSync(list)) return false;
  const inputs = readInputs();
  return inputs !== null && inputs.every((was) => String(stampOf(was[0])) === String(was));
}

async function bundled() {
  if (isCurrent()) return;
  const { build } = await import('esbuild');
  mkdirSync(join(VAR, 'cli'), { recursive: true });
  const own = `${bundle}.${process.pid}`;
  const { metafile } = await build({
    metafile: true,
    absWorkingDir: ROOT,
    entryPoints: ['src/cli/main.ts'],
    outfile: own,
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    logLevel: 'warning',
    // What is bundled and speaks CommonJS asks for `require`.
    banner: {
      js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);",
    },
  });
  const inputs = [...Object.keys(metafile.inputs), 'package-lock.json'];
  writeFileSync(`${own}.json`, JSON.stringify(inputs.map(stampOf)));
  // The list last: whoever comes between finds a bundle that its list does not know, and makes it anew.
  renameSync(own, bundle);
  renameSync(`${own}.json`, list);
}

await bundled();
await import(pathToFileURL(bundle));
