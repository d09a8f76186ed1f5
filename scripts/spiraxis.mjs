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

/** The bundle is there, and nothing that went into it has changed since; what went in stands beside it. */
function isCurrent() {
  if (!existsSync(bundle) || !existsSync(list)) return false;
  const made = statSync(bundle).mtimeMs;
  const inputs = JSON.parse(readFileSync(list, 'utf8'));
  return inputs.every((name) => {
    const path = join(ROOT, name);
    return existsSync(path) && statSync(path).mtimeMs < made;
  });
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
  writeFileSync(`${own}.json`, JSON.stringify([...Object.keys(metafile.inputs), 'package-lock.json']));
  renameSync(`${own}.json`, list);
  renameSync(own, bundle);
}

await bundled();
await import(pathToFileURL(bundle));
