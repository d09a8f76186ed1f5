import type { Reading, Setup, Test } from '@/core/circuit/schema';
import { seenWork } from '@/core/job/seenWork';
import { workingPatterns } from '@/core/diagnosis/patterns';
import { partWords, standWords, type Speaker } from '@/words/en/readings';

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
  const positionOf = (setup: Setup) => standWords(model.compiled.circuit.controls, setup);
  for (const { ref, setup } of seenWork(model)) {
    functions.push({
      test: { kind: 'function', part: ref, setup },
      label: partWords(speaker, ref),
      position: positionOf(setup),
      answers: ['works', 'weak', 'dead'],
    });
  }
  for (const { setup, loads } of workingPatterns(model)) {
    if (loads.length === 0) continue;
    for (const { part } of model.compiled.parts) {
      if (part.kind !== 'fuse' && part.kind !== 'breaker') continue;
      fuses.push({
        test: { kind: 'fuse', part: part.ref, setup },
        label: partWords(speaker, part.ref),
        position: positionOf(setup),
        answers: ['holds', 'blows'],
      });
    }
  }
  return { functions, fuses };
}
