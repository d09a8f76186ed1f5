import { oncePerModel, type CircuitModel } from '../circuit/model';
import type { Setup } from '../circuit/schema';
import type { Part } from '../circuit/partSchema';
import { branchAmps } from '../circuit/world';
import { kindOf } from '../kinds/part/index';

/** Current that may already free a load, amperes: a brake is not trusted on a share of its current. */
const FREES_AMPS = 0.01;

/** How a set-up lets a load go: its coil loses current, its coil gets current, or what holds it by pressure is touched. */
export type LetGo = 'cut' | 'fed' | 'pressure';

export interface FreedLoad {
  /** Part that holds the load. */
  ref: string;
  by: LetGo;
}

/** Whether something that would come down hangs on a part. */
export function isLoaded(part: Part): boolean {
  return ('holdsLoad' in part && part.holdsLoad === true) || ('freesLoad' in part && part.freesLoad === true);
}

const loadedParts = oncePerModel(({ compiled }) => compiled.parts.filter(({ part }) => isLoaded(part)));

/**
 * Loads that a set-up would let go, those that are secured in it left out. A coil that holds lets go when anything of its run is
 * taken away; a coil that frees (a spring-applied brake) when it is fed, in whatever way; an actuator whose pressure or vacuum
 * holds the load when a line, a valve or a supply of it is touched. What the controls do by themselves on a coil that holds is
 * the operator's own doing and is not counted.
 */
export function freedLoads(model: CircuitModel, setup: Setup): FreedLoad[] {
  const loaded = loadedParts(model);
  if (loaded.length === 0) return [];
  const some = (...lists: (readonly unknown[] | undefined)[]) =>
    lists.some((list) => list !== undefined && list.length > 0);
  const { isolated, pulled, unplugged, removed, lifted, swapped, override, open, plugged, energised } = setup;
  const taken = some(isolated, pulled, unplugged, removed, lifted, swapped);
  const touched = taken || some(override, open, plugged, energised);
  const found: FreedLoad[] = [];
  const live = () => model.situation(setup).solve({ mode: 'live' });
  for (const { part, branches } of loaded) {
    if (setup.secured?.includes(part.ref)) continue;
    if (kindOf(part).traits.actuator) {
      if (touched) found.push({ ref: part.ref, by: 'pressure' });
      continue;
    }
    if ('holdsLoad' in part && part.holdsLoad && taken) found.push({ ref: part.ref, by: 'cut' });
    if (!('freesLoad' in part) || !part.freesLoad) continue;
    const fed =
      energised?.includes(part.ref) ||
      some(setup.jumpers) ||
      Math.abs(branchAmps(live(), branches[0]!.index)) > FREES_AMPS;
    if (fed) found.push({ ref: part.ref, by: 'fed' });
  }
  return found;
}
