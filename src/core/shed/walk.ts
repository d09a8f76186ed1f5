import { isDeadKind } from '../circuit/testPlace';
import type { Test } from '../circuit/schema';

/** A function on its machine, and where that stands. */
export interface Stand {
  machine_place: string | null;
  machine_code: string;
  function_name: string;
}

/** Machines place by place, and in each as they stand in a row, G-2 before G-10; those of which nobody said where they stand come last. */
export function inWalkingOrder<T extends Stand>(rows: readonly T[]): T[] {
  const { compare } = new Intl.Collator('en', { numeric: true });
  return [...rows].sort(
    (a, b) =>
      Number(a.machine_place === null) - Number(b.machine_place === null) ||
      compare(a.machine_place ?? '', b.machine_place ?? '') ||
      compare(a.machine_code, b.machine_code) ||
      compare(a.function_name, b.function_name),
  );
}

/** Readings in the order in which they are taken: the dead circuit first, as it is locked once, then running. */
export function inReadingOrder<T extends { test: Test | null }>(places: readonly T[]): T[] {
  const isDead = ({ test }: T) => (test && isDeadKind(test.kind) ? 0 : 1);
  return [...places].sort((a, b) => isDead(a) - isDead(b));
}
