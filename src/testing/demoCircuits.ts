import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseCircuit } from '@/core/circuit/parse';
import type { Circuit } from '@/core/circuit/schema';

const FOLDER = join('demo', 'circuits');
const ENDING = '.circuit.json';

/** A circuit of the demo shed by the name of its file. */
export function demoCircuit(name: string): Circuit {
  return parseCircuit(JSON.parse(readFileSync(join(FOLDER, `${name}${ENDING}`), 'utf8')));
}

/** All of them. */
export function demoCircuits(): { name: string; circuit: Circuit }[] {
  return readdirSync(FOLDER).map((file) => {
    const name = file.replace(ENDING, '');
    return { name, circuit: demoCircuit(name) };
  });
}
