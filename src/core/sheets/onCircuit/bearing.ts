import type { CompiledPart } from '../../circuit/compile';
import { isAssumed, saidOf } from '../../circuit/assumed';
import { fuseWindow } from '../../circuit/fuseTime';
import { oncePerModel, setupKey, type CircuitModel } from '../../circuit/model';
import type { Setup } from '../../circuit/schema';
import { findPart } from '../../circuit/situation';
import { branchAmps } from '../../circuit/world';

/** What in an output's run does not bear what its load draws, or of which that cannot be told. */
export type Bearing =
  /** It carries this while the load is on: more than its share of the rating. */
  | { code: 'fuseTooSmall'; part: string; amps: number; rated: number }
  /** It may open within the moment that the load takes to close. */
  | { code: 'fuseAtInrush'; part: string; amps: number; rated: number }
  | { code: 'limitTooSmall'; part: string; amps: number; rated: number }
  /** An alternating coil of which the label says no inrush. */
  | { code: 'inrushNotKnown'; part: string }
  /** Nobody has said what its label says: how much it carries, or what the load draws. */
  | { code: 'labelNotSaid'; part: string };

/** Of its rating a fuse carries for good (shop rule). */
const FOR_GOOD = 0.8;
/** An alternating coil draws its inrush until its gap is closed, at most this long, seconds. */
const CLOSES_SECONDS = 0.15;

/** Fuses and the output itself against what the load draws, steady and at first, in the command that loads it most. */
export function bearingOf(
  model: CircuitModel,
  output: CompiledPart,
  load: CompiledPart,
  setup: Setup,
): Bearing[] {
  const world = model.situation(setup).solve({ mode: 'live' });
  const amps = ({ branches }: CompiledPart) => Math.abs(branchAmps(world, branches[0]!.index));
  const steady = amps(load);
  const alternating = load.branches[0]!.reactance > 0 || !load.branches[0]!.impedanceKnown;
  const { part } = load;
  const inrush = part.kind === 'coil' || part.kind === 'relay' ? part.inrushAmps : undefined;
  const found: Bearing[] = [];
  if (!load.branches[0]!.ohmsKnown && inrush === undefined)
    found.push({ code: 'labelNotSaid', part: part.ref });
  else if (alternating && inrush === undefined) found.push({ code: 'inrushNotKnown', part: part.ref });
  const first = Math.max(steady, inrush ?? 0);
  for (const fuse of model.compiled.parts) {
    if (fuse.part.kind !== 'fuse' && fuse.part.kind !== 'breaker') continue;
    const carried = amps(fuse);
    if (carried < steady * FOR_GOOD || !feeds(model, fuse.part.ref, load, setup, steady)) continue;
    const { ref, amps: rated } = fuse.part;
    if (isAssumed(fuse.part, 'amps')) found.push({ code: 'labelNotSaid', part: ref });
    else if (carried > FOR_GOOD * rated)
      found.push({ code: 'fuseTooSmall', part: ref, amps: carried, rated });
    else if (fuseWindow((100 * (carried + first - steady)) / rated).leastSeconds < CLOSES_SECONDS)
      found.push({ code: 'fuseAtInrush', part: ref, amps: carried + first - steady, rated });
  }
  const limit = output.part.kind === 'driver' ? saidOf(output.part, 'limitAmps') : undefined;
  if (limit !== undefined && first > limit)
    found.push({ code: 'limitTooSmall', part: output.part.ref, amps: first, rated: limit });
  return found;
}

/** A blade fuse that a load hangs on, and what it carries besides in that position, amperes. */
export interface FuseOnTheWay {
  part: string;
  rated: number;
  besides: number;
}

/** Fuses on the way to a load on direct volts: the bounds of a blade fuse's times are known for those alone. */
export function fusesOf(model: CircuitModel, ref: string, setup: Setup): FuseOnTheWay[] {
  const { compiled } = model;
  const load = compiled.parts[findPart(compiled, ref, 'part')]!;
  if (compiled.alternating[load.branches[0]!.a] === 1) return [];
  const world = model.situation(setup).solve({ mode: 'live' });
  const amps = ({ branches }: CompiledPart) => Math.abs(branchAmps(world, branches[0]!.index));
  const steady = amps(load);
  return compiled.parts.flatMap((fuse): FuseOnTheWay[] => {
    if (
      fuse.part.kind !== 'fuse' ||
      isAssumed(fuse.part, 'amps') ||
      // What feeds the coil of its contactor carries nothing of the load itself.
      amps(fuse) < FOR_GOOD * steady ||
      !feeds(model, fuse.part.ref, load, setup, steady)
    )
      return [];
    const { ref: part, amps: rated } = fuse.part;
    return [{ part, rated, besides: Math.max(amps(fuse) - steady, 0) }];
  });
}

/** Of its rating a blade fuse stands for as long as a reading takes (ISO 8820-3: at 135 % up to ten minutes, at 200 % five seconds at most). */
const WHILE_READ = 1.6;

/**
 * How many times what a load draws may flow on its way: what its supply and the way itself give into a short at its place, by how far they fall for
 * the load, and what a blade fuse of known size stands. Infinite in a moment that is over before one opens, and on alternating volts.
 */
export function mostDrawn(model: CircuitModel, ref: string, setup: Setup): number {
  const known = mostDrawnOf(model);
  const key = `${ref} ${setupKey(setup)}`;
  const most = known.get(key) ?? workOutMost(model, ref, setup);
  known.set(key, most);
  return most;
}
const mostDrawnOf = oncePerModel(() => new Map<string, number>());

function workOutMost(model: CircuitModel, ref: string, setup: Setup): number {
  const { compiled } = model;
  const { index, a, b } = compiled.parts[findPart(compiled, ref, 'part')]!.branches[0]!;
  if (setup.afterSeconds !== undefined || compiled.alternating[a] === 1) return Infinity;
  const loaded = model.situation(setup).solve({ mode: 'live' });
  const open = model
    .situation(setup)
    .solve({ mode: 'live' }, [{ type: 'ohms', branch: index, ohms: Infinity }]);
  const steady = Math.abs(branchAmps(loaded, index));
  const [atRest, atWork] = [open, loaded].map(({ changed }) => Math.abs(changed.pairVolts(a, b)));
  const falls = atRest! - atWork!;
  return Math.min(
    falls > 0 ? atRest! / falls : Infinity,
    ...fusesOf(model, ref, setup).map(({ rated, besides }) => (WHILE_READ * rated - besides) / steady),
  );
}

/** Whether a load draws nothing with a fuse out. */
function feeds(model: CircuitModel, fuse: string, load: CompiledPart, setup: Setup, steady: number): boolean {
  const without = model
    .situation({ ...setup, pulled: [...(setup.pulled ?? []), fuse] })
    .solve({ mode: 'live' });
  return Math.abs(branchAmps(without, load.branches[0]!.index)) < 0.1 * steady;
}
