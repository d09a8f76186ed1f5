import { isolationPlan, type IsolationPoint } from '../../safety/isolationPlan';
import type { CircuitModel } from '../../circuit/model';
import type { JobState } from '../reduceJob';

/**
 * Locks that are still on, in the order they come off: the plan backwards. What holds a load mechanically comes off last, when the oil
 * or air that held it is back; a lock that is in no plan comes first.
 */
export function locksOff(
  model: CircuitModel,
  { isolated }: JobState,
  known?: readonly IsolationPoint[],
): JobState['isolated'] {
  if (isolated.size < 2) return isolated;
  const plan = known ?? isolationPlan(model);
  const place = new Map(plan.map(({ point }, at) => [point, at]));
  const placeOf = (point: string) => place.get(point) ?? plan.length;
  return new Map([...isolated].sort(([one], [two]) => placeOf(two) - placeOf(one)));
}
