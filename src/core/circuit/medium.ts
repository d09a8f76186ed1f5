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

/** What the gauge at a circuit is marked in: one that shows psi above the atmosphere shows inches of mercury below it. */
export function gaugeOn(model: CircuitModel, site: GaugeUnit): GaugeMark {
  return site === 'psi' && mediumOf(model) === 'vacuum' ? 'inHg' : site;
}
