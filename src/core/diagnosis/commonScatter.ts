import type { Branch } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import { figureOf } from '../kinds/reading/index';
import { mistakeRate, normalDensity, slipDensity, totalSigma } from './likelihood';
import type { Observation } from './observations';
import type { Prediction } from './prediction';
import { TOLERANCE_SIGMA } from './scatter';

/** Readings that contradict each other by more than this are no deviation of the supply: one of them is a slip, log. */
const SLIP_COST = Math.log(0.02);
/** A supply's share of what a prediction scatters: the rest is never nothing. */
const MOST_OF_IT = 0.98;

/** One standard deviation of what good supplies stand off, as a share; 0 where there is none. */
export function supplySigma({ compiled }: CircuitModel): number {
  const most = (domain: Branch['domain']) =>
    Math.max(0, ...compiled.branches.map((one) => (one.domain === domain ? one.emfTolerance : 0)));
  // A pressure that nobody has said loosens no volts.
  return TOLERANCE_SIGMA * (most('electrical') || most('fluid'));
}

/**
 * What readings say together more, or less, than each by itself, log: a supply that stands 3 % low is 3 % low in every reading of
 * its circuit, and says so once. Their scatter is a common factor of each circuit (its sensitivities the predicted values) beside
 * what each has of its own; the determinant and the inverse of that are rank-one corrections. A reading that looks like a slip has no
 * part in it.
 *
 * @param share {@link supplySigma}
 * @param peek prediction of an observation
 */
export function commonScatter(
  observations: readonly Observation[],
  share: number,
  supplyVolts: number,
  peek: (observation: number) => Prediction,
): number {
  if (share === 0 || observations.length < 2) return 0;
  const groups = new Map<number, { count: number; a: number; b: number; c: number }>();
  observations.forEach((observation, k) => {
    const [first] = observation.readings;
    const { kind, value, meter } = first!;
    if (typeof value !== 'number' || observation.unsteady) return;
    const { unsigned, withSupply } = figureOf(kind);
    if (!withSupply) return;
    const due = peek(k);
    if (due.type !== 'number' || due.loose || due.mean === Infinity || due.mean === 0) return;
    if (due.instead) return;
    const mean = unsigned ? Math.abs(due.mean) : due.mean;
    const off = (unsigned ? Math.abs(value) : value) - mean;
    const sigma = totalSigma(kind, due.mean, due.sigma, meter);
    const reach = Math.sign(mean) * Math.min(share * Math.abs(mean), MOST_OF_IT * due.sigma);
    if (reach === 0) return;
    const mistake = mistakeRate(kind);
    const right = (1 - mistake) * normalDensity(off, sigma);
    const range = observation.range > 0 ? observation.range : supplyVolts;
    const taken = right / (right + mistake * slipDensity(kind, value, due, meter, range));
    const own = sigma * sigma - reach * reach;
    const group = groups.get(range) ?? { count: 0, a: 0, b: 0, c: 0 };
    groups.set(range, group);
    group.count++;
    group.a += (taken * reach * reach) / own;
    group.b += (taken * reach * off) / own;
    group.c +=
      taken * (0.5 * Math.log((sigma * sigma) / own) + 0.5 * off * off * (1 / (sigma * sigma) - 1 / own));
  });
  let total = 0;
  for (const { count, a, b, c } of groups.values())
    if (count > 1) total += Math.max(c + (b * b) / (2 * (1 + a)) - 0.5 * Math.log(1 + a), SLIP_COST);
  return total;
}
