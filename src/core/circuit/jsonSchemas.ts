import { z } from 'zod';
import { caseSchema, circuitSchema } from './schema';

/** JSON Schemas (draft 2020-12) of the open formats, as a file may be written. */
export function jsonSchemas(): Readonly<Record<'circuit' | 'case', unknown>> {
  const of = (schema: z.ZodType, title: string) => ({ title, ...z.toJSONSchema(schema, { io: 'input' }) });
  return { circuit: of(circuitSchema, 'Spiraxis circuit file'), case: of(caseSchema, 'Spiraxis case file') };
}
