/**
 * Lays a compressed copy beside each file of the production build that a browser asks for, once, as small as it goes: done at each
 * request anew it cost the server more than the page that asks for them.
 */
import { readdir, readFile, writeFile } from 'node:fs/promises';
import { extname, join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';
import pLimit from 'p-limit';
import { ROOT } from './lib/system.mjs';

/** What is compressed already (fonts, pictures) stays as it is. */
const TEXT = ['.js', '.css', '.svg', '.json', '.txt', '.wasm', '.mjs'];
/** Smaller ones fit one packet as they are. */
const LEAST_BYTES = 1400;
const AT_ONCE = 4;

const folder = join(ROOT, '.next', 'static');
const copies = [
  [
    '.br',
    (bytes) =>
      promisify(brotliCompress)(bytes, { params: { [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length } }),
  ],
  ['.gz', (bytes) => promisify(gzip)(bytes, { level: 9 })],
];
const inTurn = pLimit(AT_ONCE);
const files = await readdir(folder, { recursive: true, withFileTypes: true });
await Promise.all(
  files
    .filter((one) => one.isFile() && TEXT.includes(extname(one.name)))
    .map((one) =>
      inTurn(async () => {
        const path = join(one.parentPath ?? one.path, one.name);
        const bytes = await readFile(path);
        if (bytes.length < LEAST_BYTES) return;
        for (const [ending, compress] of copies) await writeFile(path + ending, await compress(bytes));
      }),
    ),
);
