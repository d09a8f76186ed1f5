/**
 * Bundles what runs in threads of its own (every `*.thread.ts`) for the production build: a thread starts from one file
 * and knows nothing of TypeScript.
 */
import { join } from 'node:path';
import { build } from 'esbuild';
import { ROOT } from './lib/system.mjs';

await build({
  absWorkingDir: ROOT,
  entryPoints: ['src/**/*.thread.ts'],
  outdir: join(ROOT, '.next', 'threads'),
  outExtension: { '.js': '.mjs' },
  entryNames: '[name]',
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  jsx: 'automatic',
  packages: 'external',
  logLevel: 'warning',
});
