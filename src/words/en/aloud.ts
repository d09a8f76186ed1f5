import type { Test } from '@/core/circuit/schema';
import { modeName, testPlace, type Speaker } from './readings';
import { setupSteps } from './setupSteps';

/** A test as it is read aloud: what can hurt first, then how it stands, then what is read. */
export function askedAloud(speaker: Speaker, test: Test, hold: string): string {
  return [hold, ...setupSteps(speaker, test), `Read ${modeName(speaker, test)}, ${testPlace(speaker, test)}.`]
    .filter((one) => one !== '')
    .join(' ');
}
