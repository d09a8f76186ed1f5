import { z } from 'zod';
import { InputError } from '../circuit/inputError';

/** One thing that a sheet found, as data; the wording belongs to the interface. */
export interface Finding<C extends string = string> {
  code: C;
  [detail: string]: unknown;
}

/** What would settle most: a cell of the grid, or a field that nobody has filled in. */
export type Next =
  | { ask: string }
  | { from: string; to: string; state?: 'rest' | 'operated' }
  | { commanded: string; measured: string; how: 'volts' | 'lowImpedance' }
  | { after: string }
  | string;

/** What every sheet answers, beside what is its own. */
export interface SheetAnswer {
  findings: Finding[];
  /** Null when nothing more is needed, or would help. */
  next: Next | null;
}

/** What every sheet's document begins with. */
export const sheetHead = <N extends string>(name: N) => ({
  format: z.literal('spiraxis-sheet'),
  version: z.literal(1),
  sheet: z.literal(name),
});

/** A field that may be left out; `null` is as good as nothing. */
export function maybe<S extends z.ZodType>(schema: S) {
  return schema.nullish().transform((value): z.infer<S> | undefined => value ?? undefined);
}

export const figure = z.number();
export const positive = z.number().positive();
/** Ohms as a meter shows them: a shade below zero where its zero is off, `OL` over its range. */
export const ohmsShown = z.union([z.number().min(-0.5), z.literal('OL')]);
export const voltsShown = z.union([z.number(), z.literal('OL')]);
export type Shown = number | 'OL';

/** An American wire gauge, as `gaugeArea` takes it. */
export const gauge = z.union([
  z.number().int().min(0).max(40),
  z
    .string()
    .trim()
    .regex(/^(?:0{1,4}|[1-9]|[1-3]\d|40)$/, 'is no wire gauge: 0000 to 40'),
]);

const nameOfThing = z.string().trim().min(1).max(80);
export const thing = nameOfThing;
/** Names of what a grid runs over, each once. */
export function names(least = 1, most = 500) {
  return z
    .array(nameOfThing)
    .min(least)
    .max(most)
    .refine((list) => new Set(list).size === list.length, 'names one of them twice; give each its own name');
}

/** Throws {@link InputError} where a name is not one of the sheet's. */
export function mustKnow(known: readonly string[], name: string, field: string): void {
  if (known.includes(name)) return;
  throw new InputError(field, `"${name}" is not on this sheet; known: ${known.slice(0, 12).join(', ')}`);
}

/** Throws {@link InputError} where a pair is one place twice. */
export function mustDiffer(from: string, to: string, field: string): void {
  if (from === to) throw new InputError(field, `runs from "${from}" to itself; name two places`);
}

/** Key of a pair whichever way round it was read. */
export function pairKey(from: string, to: string): string {
  return JSON.stringify(from < to ? [from, to] : [to, from]);
}

/** The meter's part in a reading of ohms where nobody says otherwise: 1 % and two counts of a digit that its size allows, ohms. */
export function meterOhms(ohms: number, digits: readonly number[] = [ohms]): number {
  const shown = Math.max(0, ...digits.map(decimalsOf));
  const usual = Math.abs(ohms) < 60 ? 1 : 0;
  const count = 10 ** -Math.max(shown, Math.abs(ohms) >= 600 ? 0 : usual);
  return 0.01 * Math.abs(ohms) + 2 * Math.max(count, Math.abs(ohms) * 1e-4);
}

function decimalsOf(value: number): number {
  const text = String(value);
  if (text.includes('e')) return 0;
  const [, decimals = ''] = text.split('.');
  return Math.min(decimals.length, 4);
}
