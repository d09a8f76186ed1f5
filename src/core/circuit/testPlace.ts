import type { Reading, Test } from './schema';

/** Node names that a test's probes, gauge or finger are put to; none for a reading of a part. */
export function nodesOfTest(test: Test | Reading): readonly string[] {
  if ('from' in test) return [test.from, test.to];
  return 'at' in test ? [test.at] : [];
}

/** Part that a test names: clamped, watched or listened to; null for a reading between nodes. */
export function partOfTest(test: Test | Reading): string | null {
  if ('through' in test) return test.through;
  return 'part' in test ? test.part : null;
}

/** Kinds that want the sources off, the meter being the source. */
export function isDeadKind(kind: Test['kind']): kind is 'ohms' | 'diode' | 'insulation' | 'changes' {
  return kind === 'ohms' || kind === 'diode' || kind === 'insulation' || kind === 'changes';
}
