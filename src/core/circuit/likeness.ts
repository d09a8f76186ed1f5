import type { Circuit } from './schema';

/** Equal for functions that are drawn alike: the same parts of the same kinds. What is read of one says something of the other. */
export function likeness({ parts }: Circuit): string {
  return parts
    .map(({ ref, kind }) => `${ref}:${kind}`)
    .sort()
    .join(' ');
}
