/** Writes the demonstration's traces into demo/traces; the same ones every time. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { DEMO_TRACES, traceCsv } from '../demo/traces';

const folder = join(process.cwd(), 'demo', 'traces');
mkdirSync(folder, { recursive: true });
for (const { file, make } of DEMO_TRACES) writeFileSync(join(folder, file), traceCsv(make()));
