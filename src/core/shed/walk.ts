import { isDeadKind } from '../circuit/testPlace';
import type { Test } from '../circuit/schema';

/** Machines in the order in which they stand in a row: G-2 before G-10. */
export function inWalkingOrder<T extends { machine_code: string; function_name: string }>(
  rows: readonly T[],
): T[] {
  const compare = new Intl.Collator('en', { numeric: true }).compare;
  return [...rows].sort(
    (a, b) => compare(a.machine_code, b.machine_code) || compare(a.function_name, b.function_name),
  );
}

/** Readings in the order in which they are taken: the dead circuit first, as it is locked once, then running. */
export function inReadingOrder<T extends { test: Test | null }>(places: readonly T[]): T[] {
  const isDead = ({ test }: T) => (test && isDeadKind(test.kind) ? 0 : 1);
  return [...places].sort((a, b) => isDead(a) - isDead(b));
}
