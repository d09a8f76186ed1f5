import type { Test } from '@/core/circuit/schema';
import type { PutBack } from '@/core/job/rules/putBack';
import { modeName, testPlace, type Speaker } from './readings';
import { setupSteps } from './setupSteps';

/** A test as it is read aloud: what can hurt first, then how it stands, then what is read. */
export function askedAloud(speaker: Speaker, test: Test, hold: string, back: PutBack = {}): string {
  return [
    hold,
    ...setupSteps(speaker, test, back),
    `Read ${modeName(speaker, test)}, ${testPlace(speaker, test)}.`,
  ]
    .filter((one) => one !== '')
    .join(' ');
}
