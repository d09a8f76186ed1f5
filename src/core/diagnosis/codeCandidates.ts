import type { Circuit, Reading } from '../circuit/schema';
import { codedDrivers, codeReading, type CodedDriver } from './codeEvidence';
import { Diagnoser, type Diagnosis } from './diagnose';
import { NO_FAULT_PRIOR } from './faultFrequency';

/** A function that a code may be about. */
export interface CodeCandidate<T> {
  of: T;
  driver: CodedDriver;
  /** Share among all candidates, from how often the faults that would set this code happen in each circuit. */
  share: number;
  /** The likeliest cause there. */
  lead: { part: string; fault: string; share: number } | null;
}

/**
 * Functions that a failure mode may be about, likeliest first: every driver of theirs that can set it, weighed by the
 * frequency of the faults that would make it do so. `part` keeps to one driver.
 */
export function codeCandidates<T extends { circuit: Circuit; part?: string | undefined }>(
  functions: readonly T[],
  mode: number,
): CodeCandidate<T>[] {
  const found: { of: T; driver: CodedDriver; weight: number; lead: CodeCandidate<T>['lead'] }[] = [];
  for (const one of functions) {
    const diagnoser = new Diagnoser(one.circuit);
    const frequency = diagnoser.faults.reduce((sum, fault) => sum + fault.frequency, 0);
    for (const driver of codedDrivers(diagnoser.model)) {
      if (!driver.modes.includes(mode) || (one.part && one.part !== driver.part)) continue;
      const reading = codeReading(driver, [mode]);
      const diagnosis = diagnoser.diagnose([reading], { most: 0, tests: [] });
      const weight = frequency * faultEvidence(diagnoser, reading, diagnosis);
      const [first] = diagnosis.suspects;
      found.push({
        of: one,
        driver,
        weight,
        lead: first ? { part: first.part, fault: first.fault, share: first.share } : null,
      });
    }
  }
  const total = found.reduce((sum, { weight }) => sum + weight, 0);
  return found
    .map(({ weight, ...rest }) => ({ ...rest, share: total > 0 ? weight / total : 0 }))
    .sort((a, b) => b.share - a.share);
}

/** Chance that some fault of the circuit gives the reading, from what the healthy circuit's chance and share are. */
function faultEvidence(diagnoser: Diagnoser, reading: Reading, { noFault }: Diagnosis): number {
  const healthy = Math.log(NO_FAULT_PRIOR) + diagnoser.healthyFit([reading]);
  const all = Math.exp(healthy - Math.log(Math.max(noFault, 1e-300)));
  return (all * (1 - noFault)) / (1 - NO_FAULT_PRIOR);
}
