import { type CircuitModel } from '../circuit/model';
import type { Circuit, Reading, Setup, Test } from '../circuit/schema';
import { branchAmps } from '../circuit/world';
import { twinsOf } from './twins';
import { Diagnoser, type Diagnosis } from './diagnose';
import { NO_FAULT_PRIOR } from './faultFrequency';
import { workingPatterns } from './patterns';

/** A controller output that sets codes: which part, the modes it can set, and the set-up that commands it. */
export interface CodedDriver {
  part: string;
  label: string;
  modes: number[];
  setup: Setup;
}

/** The drivers of a circuit that set codes, each with the first set-up that commands it. */
export function codedDrivers(model: CircuitModel): CodedDriver[] {
  const patterns = workingPatterns(model);
  return model.compiled.parts.flatMap(({ part, branches }) => {
    if (part.kind !== 'driver' || Object.keys(part.codes ?? {}).length === 0) return [];
    const commanding = patterns.find(
      ({ setup }) => model.situation(setup).situation.commanded[branches[0]!.index] === 1,
    );
    if (!commanding) return [];
    const modes = Object.keys(part.codes!).map(Number);
    return [{ part: part.ref, label: part.label ?? part.ref, modes, setup: commanding.setup }];
  });
}

/** A code as the engine's evidence: what the driver saw while it was commanded. No mode: no code was there. */
export function codeReading({ part, setup }: CodedDriver, modes: readonly number[]): Reading {
  return { kind: 'code', part, setup, value: [...modes] };
}

/** Reads of a code with one thing changed: each plug off in turn. What the code does then says on which side the fault is. */
export function unplugTests(model: CircuitModel): Test[] {
  return codedDrivers(model).flatMap(({ part, setup }) =>
    model.compiled.connectors
      .filter((connector) => carriesFor(model, part, setup, connector))
      .map((connector): Test => ({ kind: 'code', part, setup: { ...setup, unplugged: [connector] } })),
  );
}

/** Reads of a code with two alike loads in each other's place: it goes along with a bad load and stays with a bad place. */
export function swapTests(model: CircuitModel): Test[] {
  return codedDrivers(model).flatMap(({ part, setup }) =>
    model.compiled.parts.flatMap((load) =>
      twinsOf(model, load)
        .filter((twin) => twin.index > load.index)
        .map((twin): Test => {
          const swapped: Setup['swapped'] = [[load.part.ref, twin.part.ref]];
          return { kind: 'code', part, setup: { ...setup, swapped } };
        }),
    ),
  );
}

/** Whether taking a plug off changes what a sound driver carries. */
function carriesFor(model: CircuitModel, part: string, setup: Setup, connector: string): boolean {
  const branch = model.compiled.parts.find((one) => one.part.ref === part)!.branches[0]!.index;
  const amps = (more: Setup) =>
    Math.abs(branchAmps(model.situation({ ...setup, ...more }).solve({ mode: 'live' }), branch));
  return Math.abs(amps({}) - amps({ unplugged: [connector] })) > 1e-4;
}

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
