import type { z } from 'zod';
import { InputError } from './inputError';
import { caseSchema, circuitSchema, type Case, type Circuit } from './schema';

/** Checks a circuit file's content. Throws {@link InputError} naming the first field that is wrong. */
export function parseCircuit(data: unknown): Circuit {
  return checked(circuitSchema, data, 'circuit');
}

/** Checks a case file's content. Throws {@link InputError} naming the first field that is wrong. */
export function parseCase(data: unknown): Case {
  return checked(caseSchema, data, 'case');
}

/** Checks data against a schema. Throws {@link InputError} naming the first field that is wrong, what was given and the mend. */
export function checked<S extends z.ZodType>(schema: S, data: unknown, what: string): z.infer<S> {
  const result = schema.safeParse(data);
  if (result.success) return result.data;
  const issue = result.error.issues[0];
  const path = issue?.path ?? [];
  throw new InputError(fieldName(path, what), `${issue?.message ?? 'not valid'}${given(data, path)}`);
}

function fieldName(path: readonly PropertyKey[], what: string): string {
  if (path.length === 0) return what;
  return path
    .map((key, at) => (typeof key === 'number' ? `[${key}]` : `${at ? '.' : ''}${String(key)}`))
    .join('');
}

function given(data: unknown, path: readonly PropertyKey[]): string {
  let value = data;
  for (const key of path) value = (value as Record<PropertyKey, unknown> | undefined)?.[key];
  if (value === undefined) return ' (nothing given)';
  const text = JSON.stringify(value) ?? String(value);
  return ` (given ${text.length > 60 ? `${text.slice(0, 57)}…` : text})`;
}
