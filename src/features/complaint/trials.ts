import type { Reading, Test } from '@/core/circuit/schema';
import { isSeenWorking, tellsNoMore } from '@/core/job/seenWork';
import { workingPatterns } from '@/core/diagnosis/patterns';
import { partWords, positionWords, type Speaker } from '@/words/en/readings';

/** One question of the complaint: what was tried, where the controls stood, and what may be answered. */
export interface Trial {
  test: Test;
  label: string;
  position: string;
  answers: Reading['value'][];
}

/** What can be asked about a function without a meter: what works in which position, and which fuse goes. */
export function complaintTrials(speaker: Speaker): { functions: Trial[]; fuses: Trial[] } {
  const { model } = speaker;
  const functions: Trial[] = [];
  const fuses: Trial[] = [];
  const patterns = workingPatterns(model);
  for (const { setup, loads, driven } of patterns) {
    const position = positionWords(model.compiled.circuit.controls, setup);
    for (const ref of [...loads, ...driven]) {
      if (!isSeenWorking(model, ref, driven.length > 0)) continue;
      // Tried with another function running at the same time, a load tells nothing that it does not tell alone.
      const alone = patterns.some(
        (other) =>
          other.setup.afterSeconds === setup.afterSeconds &&
          [...other.loads, ...other.driven].includes(ref) &&
          tellsNoMore(model, ref, setup, other.setup),
      );
      if (alone) continue;
      functions.push({
        test: { kind: 'function', part: ref, setup },
        label: partWords(speaker, ref),
        position,
        answers: ['works', 'weak', 'dead'],
      });
    }
    if (loads.length === 0) continue;
    for (const { part } of model.compiled.parts) {
      if (part.kind !== 'fuse' && part.kind !== 'breaker') continue;
      fuses.push({
        test: { kind: 'fuse', part: part.ref, setup },
        label: partWords(speaker, part.ref),
        position,
        answers: ['holds', 'blows'],
      });
    }
  }
  return { functions, fuses };
}
