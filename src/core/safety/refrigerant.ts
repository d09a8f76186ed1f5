import { oncePerModel, type CircuitModel } from '../circuit/model';
import type { Reading, Test } from '../circuit/schema';
import { openedIn } from './pressedOil';

/**
 * What is done, and shown, when a part of a refrigerant circuit is changed (reference `safety.md`): usual practice, under local codes and
 * the maker's manual.
 */
export const REFRIGERANT_CARES = [
  'hotWork',
  'wetWrap',
  'nitrogen',
  'leakCheck',
  'evacuation',
  'stem',
  'trips',
  'dated',
] as const;
export type RefrigerantCare = (typeof REFRIGERANT_CARES)[number];
/** These are shown, never left with a reason: what leaks, and what was not dry, comes back; a limit that does not trip guards nobody. */
export const CARES_SHOWN: readonly RefrigerantCare[] = ['leakCheck', 'evacuation', 'trips'];

/** Whether changing a part opens a refrigerant circuit: the drawing says it of the part. */
export function isOfRefrigerant({ compiled }: CircuitModel, ref: string): boolean {
  const at = compiled.partIndex.get(ref);
  const part = at === undefined ? undefined : compiled.parts[at]!.part;
  return part !== undefined && 'refrigerant' in part && part.refrigerant === true;
}

const refrigerantNodes = oncePerModel(
  ({ compiled }): ReadonlySet<number> =>
    new Set(
      compiled.parts.flatMap(({ part, nodes }) =>
        'refrigerant' in part && part.refrigerant
          ? nodes.filter((node) => compiled.domains[node] === 'fluid' && node !== compiled.atmosphere)
          : [],
      ),
    ),
);

/** Whether a place is in a refrigerant circuit. */
export function holdsRefrigerant(model: CircuitModel, node: string): boolean {
  return refrigerantNodes(model).has(model.compiled.nodeIndex.get(node) ?? -1);
}

/**
 * Places where a test would open a refrigerant circuit, or put a hand to it. Stopping a compressor empties nothing: it is opened for no
 * reading, whatever is isolated, and a line that is taken off lets it out before its end is stopped. It is read by gauges that who is
 * licensed has fitted.
 */
export function refrigerantOpened(model: CircuitModel, test: Test | Reading): string[] {
  const { lifted = [], plugged = [] } = test.setup;
  const places = new Set([...openedIn(test), ...lifted.map(({ node }) => node), ...plugged]);
  return [...places].filter((name) => holdsRefrigerant(model, name));
}
