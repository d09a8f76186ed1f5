import type { CircuitModel } from '../circuit/model';
import type { Reading, Setup, Test } from '../circuit/schema';
import { branchAmps } from '../circuit/world';
import { isGroundStud } from './setApart';
import { twinsOf } from './twins';
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
      .filter((connector) => !isGroundStud(model, connector) && carriesFor(model, part, setup, connector))
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
