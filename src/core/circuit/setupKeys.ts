import type { Setup } from './schema';

/** What a set-up may say, for places that the schema's weight keeps away from. `schema.ts` is the source. */
export const SETUP_KEYS: readonly (keyof Setup)[] = [
  'controls',
  'isolated',
  'pulled',
  'unplugged',
  'removed',
  'lifted',
  'jumpers',
  'energised',
  'afterSeconds',
  'override',
  'plugged',
  'open',
  'secured',
  'swapped',
];
