import type { Reading, Test } from '../circuit/schema';
import { testKey } from '../diagnosis/observations';

/** The pinned answer to a test, if there is one. */
export function answerTo<T extends { reading: Reading }>(pinned: readonly T[], test: Test): T | undefined {
  const key = testKey(test);
  return pinned.findLast(({ reading }) => testKey(reading) === key);
}
