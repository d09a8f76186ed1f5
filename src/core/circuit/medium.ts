import type { GaugeMark, GaugeUnit } from '../units/quantities';
import type { CircuitModel } from './model';

/** What a circuit works with besides electricity. */
export type Medium = 'air' | 'oil' | 'vacuum';

/** By what supplies it. */
export function mediumOf({ compiled }: CircuitModel): Medium {
  const supplies = compiled.circuit.parts;
  if (supplies.some((part) => part.kind === 'pump' && part.kPa >= 0)) return 'oil';
  const pulls = supplies.some((part) => (part.kind === 'airSupply' || part.kind === 'pump') && part.kPa < 0);
  return pulls ? 'vacuum' : 'air';
}

/** Whether a node, by its name, is a port or a line rather than a terminal. */
export function isFluidNode({ compiled }: CircuitModel, node: string): boolean {
  return compiled.domains[compiled.nodeIndex.get(node) ?? -1] === 'fluid';
}

/** What the gauge at a circuit is marked in: one that shows psi above the atmosphere shows inches of mercury below it. */
export function gaugeOn(model: CircuitModel, site: GaugeUnit): GaugeMark {
  return site === 'psi' && mediumOf(model) === 'vacuum' ? 'inHg' : site;
}
