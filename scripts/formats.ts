/** Writes the JSON Schemas of the open formats from the Zod schemas of the core. `npm run formats`. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { format } from 'prettier';
import { jsonSchemas } from '../src/core/circuit/jsonSchemas';

const folder = join(import.meta.dirname, '..', 'docs', 'schema');
mkdirSync(folder, { recursive: true });
for (const [name, schema] of Object.entries(jsonSchemas())) {
  writeFileSync(
    join(folder, `${name}.schema.json`),
    await format(JSON.stringify(schema), { parser: 'json', printWidth: 110 }),
  );
}
