import { z } from 'zod';
import { maybe, sheetHead, thing, type Finding, type SheetAnswer } from '../sheet';

export const functionsSheet = z.object({
  ...sheetHead('functions'),
  functions: z
    .array(
      z.object({
        name: thing,
        parts: z.array(thing).max(400),
        state: maybe(z.enum(['works', 'weak', 'dead'])),
      }),
    )
    .min(1)
    .max(400),
});
export type FunctionsSheet = z.infer<typeof functionsSheet>;

export type FunctionsFinding = Finding<'moreThanOne' | 'nothingFails' | 'nothingTried'>;

export interface FunctionsAnswer extends SheetAnswer {
  cleared: string[];
  suspect: { part: string; share: number }[];
  next: string | null;
}

/**
 * What is left when the parts of everything that works are cleared: the parts common to all that fails. Nothing left says that more
 * than one thing is wrong, or that the table is (reference `logic.md` section 4).
 */
export function compareFunctions({ functions }: FunctionsSheet): FunctionsAnswer {
  const findings: FunctionsFinding[] = [];
  const cleared = new Set(functions.filter(({ state }) => state === 'works').flatMap(({ parts }) => parts));
  const failing = functions.filter(({ state }) => state === 'weak' || state === 'dead');
  const untried = functions.filter(({ state }) => state === undefined);
  const all = [...new Set(functions.flatMap(({ parts }) => parts))];
  const common = failing.reduce((left, { parts }) => {
    const needed = new Set(parts);
    return left.filter((part) => needed.has(part));
  }, all);
  const left = common.filter((part) => !cleared.has(part));
  if (failing.length === 0) {
    findings.push({ code: untried.length === functions.length ? 'nothingTried' : 'nothingFails' });
    // Nothing is known to be wrong: any part that no working function uses may still be.
    return { cleared: [...cleared], suspect: [], findings, next: splitting(untried, left) };
  }
  if (left.length === 0) {
    const each = failing.map(({ name, parts }) => ({
      name,
      left: parts.filter((part) => !cleared.has(part)),
    }));
    findings.push({ code: 'moreThanOne', each });
  }
  const suspect = left.map((part) => ({ part, share: 1 / left.length }));
  return { cleared: [...cleared], suspect, findings, next: splitting(untried, left) };
}

/** The untried function that parts the suspects most evenly; none where each holds all of them or none. */
function splitting(untried: FunctionsSheet['functions'], left: readonly string[]): string | null {
  let best: { name: string; uneven: number } | null = null;
  for (const { name, parts } of untried) {
    const needed = new Set(parts);
    const inside = left.filter((part) => needed.has(part)).length;
    if (inside === 0 || inside === left.length) continue;
    const uneven = Math.abs(2 * inside - left.length);
    if (!best || uneven < best.uneven) best = { name, uneven };
  }
  return best?.name ?? null;
}
