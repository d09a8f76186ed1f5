import type { CircuitModel } from '../circuit/model';
import type { Reading } from '../circuit/schema';
import { branchAmps, type World } from '../circuit/world';
import type { Diagnosis } from '../diagnosis/diagnose';
import { faultByName } from '../diagnosis/faults';
import type { CandidateFault } from '../diagnosis/faultTypes';
import { partShares } from './partShares';
import { shareTurns } from './turns';

/** How a part stands: in doubt, cleared with current through it, cleared without, or proved bad. */
export type State = 'doubt' | 'held' | 'spared' | 'bad';

export interface Standing {
  state: State;
  share: number;
  turns: number;
}

/** Below this share a part counts as cleared, if a reading speaks against the fault it is most often met with. */
const CLEARED_SHARE = 0.02;
/** Share of its healthy current that a part must have carried for "proved under load". */
const LOADED_SHARE = 0.3;

/**
 * Standing of every part, in circuit order. Ticks are earned under load only: a part no reading has seen carry
 * current is at best held.
 */
export function partStandings(
  model: CircuitModel,
  faults: readonly CandidateFault[],
  diagnosis: Diagnosis,
  readings: readonly Reading[],
): { parts: Standing[]; soundTurns: number } {
  const { parts } = model.compiled;
  const shares = partShares(model, diagnosis);
  const turns = shareTurns([...shares, diagnosis.noFault]);
  const loaded = loadedParts(model, faults, diagnosis, readings);
  const unasked = unaskedParts(faults, diagnosis);
  const { verdict } = diagnosis;
  return {
    parts: parts.map(({ part, index }): Standing => {
      const share = shares[index]!;
      const bad = verdict.state === 'name' && verdict.part === part.ref;
      const cleared =
        readings.length > 0 && turns[index] === 0 && share < CLEARED_SHARE && !unasked.has(part.ref);
      const state: State = bad ? 'bad' : !cleared ? 'doubt' : loaded.has(index) ? 'spared' : 'held';
      return { state, share, turns: turns[index]! };
    }),
    soundTurns: turns.at(-1)!,
  };
}

/** Parts whose commonest fault no reading speaks against: of many parts each has little doubt on it before anything is looked at. */
function unaskedParts(faults: readonly CandidateFault[], { suspects }: Diagnosis): ReadonlySet<string> {
  const commonest = new Map<string, CandidateFault>();
  for (const fault of faults) {
    if (fault.frequency > (commonest.get(fault.ref)?.frequency ?? 0)) commonest.set(fault.ref, fault);
  }
  return new Set(
    suspects
      .filter(({ part, fault, against }) => commonest.get(part)?.fault === fault && against.length === 0)
      .map(({ part }) => part),
  );
}

/** Parts that carried current in some live reading, were the likeliest suspect true. */
function loadedParts(
  model: CircuitModel,
  faults: readonly CandidateFault[],
  { suspects, noFault }: Diagnosis,
  readings: readonly Reading[],
): Set<number> {
  const top = suspects[0];
  const loaded = new Set<number>();
  const edits =
    top && top.share > noFault
      ? (() => {
          const found = faultByName(faults, top.part, top.fault, top.severityOhms ?? top.severity?.value);
          return found.fault.variants[0]!.edits(found.severity);
        })()
      : [];
  for (const { kind, setup } of readings) {
    if (kind === 'ohms' || kind === 'diode' || kind === 'insulation') continue;
    const solver = model.situation(setup);
    const found: World = solver.solve({ mode: 'live' }, edits);
    const healthy = solver.solve({ mode: 'live' });
    for (const { index, branches } of model.compiled.parts) {
      const flows = branches.some((branch) => {
        const nominal = Math.abs(branchAmps(healthy, branch.index));
        return nominal > 1e-6 && Math.abs(branchAmps(found, branch.index)) > LOADED_SHARE * nominal;
      });
      if (flows) loaded.add(index);
    }
  }
  return loaded;
}
