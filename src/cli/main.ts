import { closeSync, openSync, readFileSync, readSync } from 'node:fs';
import { StringDecoder } from 'node:string_decoder';
import { InputError } from '../core/circuit/inputError';
import { parseCase, parseCircuit } from '../core/circuit/parse';
import { parseSheet } from '../core/sheets/parseSheet';
import { runCommand } from './commands';

const CHUNK_BYTES = 1 << 20;
/** Text of a file, a piece at a time: a log may be larger than memory. */
function* piecesOf(path: string): Generator<string> {
  const file = path === '-' ? 0 : openSync(path, 'r');
  try {
    const chunk = Buffer.alloc(CHUNK_BYTES);
    const decoder = new StringDecoder('utf8');
    for (let size = readSync(file, chunk); size > 0; size = readSync(file, chunk)) {
      yield decoder.write(chunk.subarray(0, size));
    }
    yield decoder.end();
  } finally {
    if (file !== 0) closeSync(file);
  }
}

/** A JSON file, or standard input, checked. */
function readJson<T>(path: string, check: (data: unknown) => T): T {
  const text = readFileSync(path === '-' ? 0 : path, 'utf8');
  try {
    return check(JSON.parse(text));
  } catch (error) {
    if (error instanceof SyntaxError) throw new InputError(path, `not JSON: ${error.message}`);
    throw error;
  }
}

/** `spiraxis COMMAND …`: one JSON document on standard output, one readable line on standard error. */
function main(args: readonly string[]): number {
  try {
    const result = runCommand(
      args,
      (path) => readJson(path, parseCase),
      piecesOf,
      (path) => readJson(path, parseCircuit),
      (path) => readJson(path, parseSheet),
    );
    process.stdout.write(`${JSON.stringify(result)}\n`);
    return 0;
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error);
    process.stderr.write(`spiraxis: ${message.replace(/\s*\n\s*/g, ' ')}\n`);
    const missing = error instanceof Error && 'code' in error && error.code === 'ENOENT';
    return error instanceof InputError || missing ? 2 : 1;
  }
}

process.exitCode = main(process.argv.slice(2));
