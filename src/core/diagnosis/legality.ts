import type { CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';
import { nodesOfTest } from '../circuit/testPlace';
import type { Situation } from '../circuit/situation';
import { countsAsElectronic } from '../safety/electronics';
import type { BoundTest } from './predict';

const LIVE_VOLTS = 0.05;

/** Either point stands at a voltage, even where both stand at the same: no place for an ohmmeter. */
export function standsLive({ compiled }: CircuitModel, { test, solver }: BoundTest): boolean {
  const { changed } = solver.solve({ mode: 'live' });
  return nodesOfTest(test).some((name) => {
    const volts = changed.pairVolts(compiled.nodeIndex.get(name)!, compiled.frame);
    return Math.abs(volts) > LIVE_VOLTS;
  });
}

/** Test volts at a point would reach a driver or sensor: through anything that is in place, whatever its state. */
export function reachesElectronics({ compiled }: CircuitModel, { test, solver }: BoundTest): boolean {
  const sensitive = compiled.parts.filter(({ part }) => countsAsElectronic(part));
  if (sensitive.length === 0) return false;
  const { situation } = solver;
  const reached = new Set(
    nodesOfTest(test)
      .map((name) => compiled.nodeIndex.get(name)!)
      .filter((node) => node !== compiled.frame),
  );
  for (let before = -1; before !== reached.size;) {
    before = reached.size;
    for (const [a, b] of joints(situation)) {
      if (a === compiled.frame || b === compiled.frame) continue;
      if (reached.has(a)) reached.add(b);
      if (reached.has(b)) reached.add(a);
    }
  }
  return sensitive.some(({ part, branches }) => {
    if (situation.setup.removed?.includes(part.ref)) return false;
    return branches.some(({ index }) => reached.has(situation.a[index]!) || reached.has(situation.b[index]!));
  });
}

function joints({ compiled, a, b, present, jumpers }: Situation): [number, number][] {
  const sensitive = (part: number) => countsAsElectronic(compiled.parts[part]!.part);
  const list: [number, number][] = jumpers.map((one) => [one.a, one.b]);
  for (const { index, part } of compiled.branches) {
    if (present[index] && !sensitive(part)) list.push([a[index]!, b[index]!]);
  }
  return list;
}

/** Whether a test asks for more than looking: something taken off, bridged or pushed. */
export function isPlain({ setup }: Test): boolean {
  const { unplugged, removed, lifted, jumpers, energised, override, open, plugged, swapped } = setup;
  return [unplugged, removed, lifted, jumpers, energised, override, open, plugged, swapped].every(
    (list) => !list || list.length === 0,
  );
}
