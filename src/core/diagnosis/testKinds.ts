import type { Test } from '../circuit/schema';

/** A look at the bit by which a program asks for an output. */
export function isCommandBit(test: Test, ref: string): boolean {
  return test.kind === 'bit' && test.which === 'command' && test.part === ref;
}
