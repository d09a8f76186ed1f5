import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { jsonSchemas } from './jsonSchemas';
import { kindsThat } from '../kinds/part/index';
import { fluidSchemaKinds, partSchema } from './partSchema';

const docs = (file: string) => readFileSync(join('docs', file), 'utf8');

describe('the written formats', () => {
  it.each(['circuit', 'case'] as const)(
    'docs/schema/%s.schema.json is what the code checks (npm run formats)',
    (name) => {
      expect(JSON.parse(docs(`schema/${name}.schema.json`))).toEqual(
        JSON.parse(JSON.stringify(jsonSchemas()[name])),
      );
    },
  );

  it('docs/formats.md has a row for every kind of part', () => {
    const page = docs('formats.md');
    for (const { shape } of partSchema.options) expect(page).toMatch(new RegExp(`\\b${shape.kind.value}\\b`));
  });
});

it('the kinds of the fluid side are those that the schemas say', () => {
  expect(kindsThat('fluid').sort()).toEqual([...fluidSchemaKinds].sort());
});
