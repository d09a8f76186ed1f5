import { readFileSync } from 'node:fs';
import { InputError } from '../core/circuit/inputError';
import { parseCase } from '../core/circuit/parse';
import { runCommand } from './commands';

/** `spiraxis COMMAND …`: one JSON document on standard output, one readable line on standard error. */
function main(args: readonly string[]): number {
  try {
    const result = runCommand(args, (path) => {
      const text = readFileSync(path === '-' ? 0 : path, 'utf8');
      try {
        return parseCase(JSON.parse(text));
      } catch (error) {
        if (error instanceof SyntaxError) throw new InputError(path, `not JSON: ${error.message}`);
        throw error;
      }
    });
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
