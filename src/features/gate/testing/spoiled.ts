import fc from 'fast-check';
import { z } from 'zod';

/** What nobody who means well sends: wrong kinds, names of the language, half characters, numbers out of all bounds. */
const JUNK: fc.Arbitrary<unknown> = fc.oneof(
  fc.constantFrom<unknown>(
    null,
    undefined,
    0,
    -1,
    1.5,
    NaN,
    Infinity,
    1e308,
    2 ** 53,
    true,
    '',
    ' ',
    '\u0000',
    '\ud800',
    'x\udfff',
    '__proto__',
    'constructor',
    '..',
    '.',
    "' OR 1=1 --",
    '%',
    '\\',
    'G-1\u0007',
    '0',
    '-0',
    '1e9',
    '99999999999999999999',
    'null',
    '𝔊-𝟏',
    'A'.repeat(70_000),
    [],
    {},
    [[]],
    ['G-1'],
    { toString: 'G-1' },
    { length: 3 },
    JSON.parse('{"__proto__":{"admin":true}}'),
    JSON.parse('{"constructor":{"prototype":{}}}'),
  ),
  fc.string({ unit: 'binary', maxLength: 60 }),
  fc.array(fc.anything({ maxDepth: 2 }), { maxLength: 4 }),
  fc.dictionary(fc.string({ maxLength: 12 }), fc.jsonValue({ maxDepth: 3 }), { maxKeys: 5 }),
  fc.double(),
);

/** Values that a schema would take, roughly: what is spoiled afterwards should come past its first question. */
function soundOf(schema: z.core.$ZodType, depth = 0): fc.Arbitrary<unknown> {
  const { def } = schema._zod;
  const inner = (one: z.core.$ZodType) => soundOf(one, depth + 1);
  if (depth > 9) return fc.constant(null);
  if (schema instanceof z.core.$ZodString) return textOf(schema);
  if (schema instanceof z.core.$ZodNumber)
    return fc.oneof(fc.integer({ min: -2, max: 60 }), fc.double({ noNaN: true }));
  if (schema instanceof z.core.$ZodBoolean) return fc.boolean();
  if (schema instanceof z.core.$ZodNull) return fc.constant(null);
  if (schema instanceof z.core.$ZodEnum) return fc.constantFrom(...Object.values(schema._zod.def.entries));
  if (schema instanceof z.core.$ZodLiteral) return fc.constantFrom(...schema._zod.def.values);
  if (schema instanceof z.core.$ZodUnion) return fc.oneof(...schema._zod.def.options.map(inner));
  if (schema instanceof z.core.$ZodObject)
    return fc.record(
      Object.fromEntries(Object.entries(schema._zod.def.shape).map(([key, one]) => [key, inner(one)])),
    );
  if (schema instanceof z.core.$ZodArray) return fc.array(inner(schema._zod.def.element), { maxLength: 3 });
  if (schema instanceof z.core.$ZodTuple) return fc.tuple(...schema._zod.def.items.map(inner));
  if (schema instanceof z.core.$ZodRecord)
    return fc.dictionary(fc.string({ maxLength: 10 }), inner(schema._zod.def.valueType), { maxKeys: 3 });
  if (schema instanceof z.core.$ZodPipe) return inner(schema._zod.def.in);
  if (schema instanceof z.core.$ZodLazy) return inner(schema._zod.def.getter());
  if ('innerType' in def) return inner(def.innerType as z.core.$ZodType);
  // Unknown, or a kind that nothing asks for yet.
  return JUNK;
}

function textOf(schema: z.core.$ZodString): fc.Arbitrary<string> {
  const { format } = schema._zod.def as { format?: string };
  if (format === 'uuid')
    return fc.oneof(
      fc.uuid(),
      fc.uuid().map((one) => one.toUpperCase()),
    );
  if (format === 'datetime') return fc.date({ noInvalidDate: true }).map((one) => one.toISOString());
  return fc.oneof(fc.constantFrom('G-1', 'G-2', 'Tove', 'key', 'F7', 'GND'), fc.string({ maxLength: 30 }));
}

/** A value with one place in it, anywhere, replaced by junk. */
function spoil(value: unknown, path: number, junk: unknown): unknown {
  const keys = typeof value === 'object' && value !== null ? Object.keys(value) : [];
  const at = keys.length === 0 ? 0 : path % (keys.length + 1);
  if (keys.length === 0 || at === keys.length) return junk;
  const key = keys[at]!;
  const rest = Math.floor(path / (keys.length + 1));
  const next = spoil((value as Record<string, unknown>)[key], rest, junk);
  return Array.isArray(value) ? value.with(Number(key), next) : { ...(value as object), [key]: next };
}

/** Values near to what a schema takes, spoiled in one place; now and then one that is sound, or nothing like it. */
export function spoiled(schema: z.core.$ZodType): fc.Arbitrary<unknown> {
  const sound = soundOf(schema);
  return fc.oneof(
    {
      weight: 8,
      arbitrary: fc.tuple(sound, fc.nat(), JUNK).map(([value, path, junk]) => spoil(value, path, junk)),
    },
    { weight: 1, arbitrary: sound },
    { weight: 1, arbitrary: JUNK },
  );
}
export { JUNK };
