import { GAUGE_STANDS, type Reading, type Setup, type Test } from '@/core/circuit/schema';
import { seenWork } from '@/core/job/seenWork';
import { workingPatterns } from '@/core/diagnosis/patterns';
import { gaugeName, partWords, standWords, type Speaker } from '@/words/en/readings';

/** One question of the complaint: what was tried, where the controls stood, and what may be answered. */
export interface Trial {
  test: Test;
  label: string;
  position: string;
  answers: Reading['value'][];
}

/** What can be asked about a function without a meter: what works in which position, what the machine's own gauges showed, and which fuse goes. */
export function complaintTrials(speaker: Speaker): Record<'functions' | 'gauges' | 'fuses', Trial[]> {
  const { model } = speaker;
  const functions: Trial[] = [];
  const gauges: Trial[] = [];
  const fuses: Trial[] = [];
  const positionOf = (setup: Setup) => standWords(model.compiled.circuit.controls, setup);
  for (const { ref, setup } of seenWork(model)) {
    functions.push({
      test: { kind: 'function', part: ref, setup },
      label: partWords(speaker, ref),
      position: positionOf(setup),
      answers: ['works', 'weak', 'dead'],
    });
    const { part } = model.compiled.parts[model.compiled.partIndex.get(ref)!]!;
    if ('ownGauge' in part && part.ownGauge)
      gauges.push({
        test: { kind: 'gauge', part: ref, setup },
        label: gaugeName(speaker, ref),
        position: positionOf(setup),
        answers: [...GAUGE_STANDS],
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
  return { functions, gauges, fuses };
}
