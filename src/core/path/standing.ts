import type { Edit } from '../circuit/edits';
import { setupKey, type CircuitModel } from '../circuit/model';
import type { Reading } from '../circuit/schema';
import { branchAmps, type World } from '../circuit/world';
import type { Diagnosis } from '../diagnosis/diagnose';
import { faultByName } from '../diagnosis/faults';
import { blownIn } from '../diagnosis/observations';
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

/** How much of the doubt has to agree that a part carried its current, and how many suspects at most. */
const AGREED_SHARE = 0.9;
const MOST_ASKED = 6;
/** Readings of a meter or an eye on what the machine did. A code says what the controller thinks, through whatever way. */
const SAYS_LOADED: readonly Reading['kind'][] = [
  'volts',
  'amps',
  'function',
  'fuse',
  'click',
  'hertz',
  'pressure',
  'flow',
  'moves',
  'gauge',
];

/**
 * Parts that carried current in some live reading, whichever of the likely suspects is true: a fault that leads past a part must not
 * vouch for it.
 */
function loadedParts(
  model: CircuitModel,
  faults: readonly CandidateFault[],
  { suspects, noFault }: Diagnosis,
  readings: readonly Reading[],
): Set<number> {
  const loaded = new Set<number>();
  const likely: (readonly Edit[])[] = noFault > 1 - AGREED_SHARE ? [[]] : [];
  let run = noFault;
  for (const { part, fault, other, severityOhms, severity, share } of suspects.slice(0, MOST_ASKED)) {
    if (run >= AGREED_SHARE && likely.length > 0) break;
    run += share;
    const ref = other === undefined ? part : `${part}+${other}`;
    const found = faultByName(faults, ref, fault, severityOhms ?? severity?.value);
    likely.push(found.fault.variants[0]!.edits(found.severity));
  }
  const blown = blownIn(readings);
  for (const { kind, setup } of readings) {
    // What flowed for the moment that a fuse took to go was no load that anything has borne.
    if (!SAYS_LOADED.includes(kind) || blown.has(setupKey(setup))) continue;
    const solver = model.situation(setup);
    const healthy = solver.solve({ mode: 'live' });
    const worlds: World[] = likely.map((edits) => solver.solve({ mode: 'live' }, edits));
    for (const { index, branches } of model.compiled.parts) {
      const flows = branches.some((branch) => {
        const nominal = Math.abs(branchAmps(healthy, branch.index));
        return (
          nominal > 1e-6 &&
          worlds.every((world) => Math.abs(branchAmps(world, branch.index)) > LOADED_SHARE * nominal)
        );
      });
      if (flows) loaded.add(index);
    }
  }
  return loaded;
}
