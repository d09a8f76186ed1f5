import { oncePerModel, type CircuitModel } from '../circuit/model';
import type { Setup } from '../circuit/schema';
import { branchAmps } from '../circuit/world';
import { kindOf } from '../kinds/part';
import { workingPatterns } from '../diagnosis/patterns';
import { motionOf } from '../diagnosis/predictFluid';

/** Share of a load's current or an actuator's speed from which it does something else than before. */
const OTHERWISE_SHARE = 0.05;

/**
 * Whether an operator sees what a load does. Relays and resistors do no work that anybody sees, nor does a valve's coil where
 * what the valve moves is drawn and moves as well.
 */
export function isSeenWorking(model: CircuitModel, ref: string, moves: boolean): boolean {
  const { parts } = model.compiled.circuit;
  const { kind } = parts.find((one) => one.ref === ref)!;
  if (kind === 'relay' || kind === 'resistor') return false;
  return !(moves && parts.some((one) => one.kind === 'valve' && (one.coil === ref || one.coil2 === ref)));
}

/**
 * Whether a load or actuator that works in both set-ups tells nothing in the first that it does not tell in the second: only
 * more controls are moved from rest, another function runs beside it, and it does the same. A second speed is not the same.
 */
export function tellsNoMore(model: CircuitModel, ref: string, setup: Setup, fewer: Setup): boolean {
  if (setup === fewer || !addsControls(model, setup, fewer)) return false;
  const [one, other] = [workOf(model, ref, setup), workOf(model, ref, fewer)];
  return one.every((value, at) => Math.abs(value - other[at]!) <= OTHERWISE_SHARE * Math.abs(other[at]!));
}

/** A load or actuator in a command in which an operator sees it work. */
export interface SeenWork {
  ref: string;
  setup: Setup;
  /** Place of the command among the patterns of the circuit. */
  pattern: number;
}

/** Everything that an operator can be asked about: each load and actuator in the commands that show something of its own. */
export const seenWork = oncePerModel((model): readonly SeenWork[] => {
  const patterns = workingPatterns(model);
  return patterns.flatMap(({ setup, loads, driven }, pattern) =>
    [...loads, ...driven].flatMap((ref) => {
      if (!isSeenWorking(model, ref, driven.length > 0)) return [];
      // Tried with another function running at the same time, a load tells nothing that it does not tell alone.
      const alone = patterns.some(
        (other) =>
          other.setup.afterSeconds === setup.afterSeconds &&
          [...other.loads, ...other.driven].includes(ref) &&
          tellsNoMore(model, ref, setup, other.setup),
      );
      return alone ? [] : [{ ref, setup, pattern }];
    }),
  );
});

/** What a part does in a set-up: its current in amperes, or the direction and flow of its motion. */
function workOf(model: CircuitModel, ref: string, setup: Setup): number[] {
  const index = model.compiled.partIndex.get(ref)!;
  const { part, branches } = model.compiled.parts[index]!;
  const world = model.situation(setup).solve({ mode: 'live' });
  if (!kindOf(part).traits.actuator) return [branchAmps(world, branches[0]!.index)];
  const { direction, flow } = motionOf(world, index);
  return [direction, flow];
}

/** Whether a set-up is another one with more controls moved from rest. */
function addsControls(
  model: CircuitModel,
  { controls = {} }: Setup,
  { controls: fewer = {} }: Setup,
): boolean {
  return Object.entries(model.compiled.circuit.controls).every(([control, [rest]]) => {
    const [more, less] = [controls[control] ?? rest, fewer[control] ?? rest];
    return less === rest || more === less;
  });
}
