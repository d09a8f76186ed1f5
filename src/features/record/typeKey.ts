import { createHash } from 'node:crypto';
import { likeness } from '@/core/circuit/likeness';
import type { Circuit } from '@/core/circuit/schema';

/** Key of a function's type, the same as the database gives it. No secret: it only shortens words. */
export function typeKey(circuit: Circuit): string {
  return createHash('md5').update(likeness(circuit)).digest('hex');
}
