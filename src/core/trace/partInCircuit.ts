import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import type { Setup } from '../circuit/schema';
import { findPart } from '../circuit/situation';
import { elementAmps } from '../transient/elementAmps';
import type { Iron } from '../transient/irons';
import { timeCircuit } from '../transient/ofCircuit';
import { runInTime } from '../transient/run';
import type { Switching } from './coilCourse';
import type { Trace } from './trace';

/**
 * A load's current in its whole circuit, from rest over switching on to switching off, with relays, drivers and neighbours as they come.
 * Throws a `RangeError` for a part that draws nothing by itself, and `InputError` for one that is not there.
 */
export function partInCircuit(
  model: CircuitModel,
  ref: string,
  { rest, on }: { rest: Setup; on: Setup },
  times: Switching,
  edits: readonly Edit[] = [],
  irons: ReadonlyMap<string, Iron> = new Map(),
): Trace {
  const own = model.compiled.parts[findPart(model.compiled, ref, 'part')]!.branches[0]!;
  const moments = [
    { seconds: 0, setup: rest },
    { seconds: times.on, setup: on },
    ...(times.off === undefined ? [] : [{ seconds: times.off, setup: rest }]),
  ];
  const { nodes, elements, elementOf, mostStep } = timeCircuit(model, moments, edits, irons);
  const at = elementOf.get(own.index);
  if (at === undefined) return { seconds: [0, times.end], values: [0, 0] };
  const course = runInTime(nodes, elements, times.end, {
    mostStep: Math.min(times.end / 400, mostStep),
    tolerance: 1e-3,
  });
  return { seconds: [...course.seconds], values: [...elementAmps(elements, at, course)] };
}
