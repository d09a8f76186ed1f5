import type { Branch } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import { figureOf } from '../kinds/reading/index';
import { mistakeRate, normalDensity, slipDensity, totalSigma } from './likelihood';
import type { Observation } from './observations';
import type { Prediction } from './prediction';
import { TOLERANCE_SIGMA } from './scatter';

/** Readings that contradict each other by more than this are no deviation of the supply: one of them is a slip, log. */
const SLIP_COST = Math.log(0.02);
/** A supply's share of what a prediction scatters beside what one branch moves: the rest is never nothing. */
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
 * its circuit, and says so once; a coil of which nobody knows what it draws draws the same in each. Their scatter is a common factor
 * of each circuit's supply (its sensitivities the predicted values) and of each such branch, beside what each has of its own;
 * the determinant and the inverse of that are corrections of as low a rank. A reading that looks like a slip has no part in it.
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
  if (observations.length < 2) return 0;
  const factors = new Factors();
  let alone = 0;
  observations.forEach((observation, k) => {
    const { kind, value, meter } = observation.readings[0]!;
    if (typeof value !== 'number' || observation.unsteady) return;
    const { unsigned, withSupply } = figureOf(kind);
    const due = peek(k);
    if (due.type !== 'number' || due.loose || due.mean === Infinity || due.mean === 0 || due.instead) return;
    const sign = unsigned && due.mean < 0 ? -1 : 1;
    const mean = sign * due.mean;
    const moved = due.common ? sign * due.common.reach : 0;
    const left = MOST_OF_IT * Math.sqrt(Math.max(due.sigma * due.sigma - moved * moved, 0));
    const supply = withSupply ? Math.sign(mean) * Math.min(share * Math.abs(mean), left) : 0;
    if (supply === 0 && moved === 0) return;
    const off = (unsigned ? Math.abs(value) : value) - mean;
    const sigma = totalSigma(kind, due.mean, due.sigma, meter);
    const mistake = mistakeRate(kind);
    const right = (1 - mistake) * normalDensity(off, sigma);
    const range = observation.range > 0 ? observation.range : supplyVolts;
    const taken = right / (right + mistake * slipDensity(kind, value, due, meter, range));
    const own = sigma * sigma - supply * supply - moved * moved;
    alone +=
      taken * (0.5 * Math.log((sigma * sigma) / own) + 0.5 * off * off * (1 / (sigma * sigma) - 1 / own));
    factors.add(
      taken / own,
      off,
      supply === 0 ? -1 : factors.of('supply', range),
      supply,
      due.common ? factors.of('branch', due.common.branch) : -1,
      moved,
    );
  });
  return factors.readings < 2 ? 0 : Math.max(alone + factors.gain(), factors.count * SLIP_COST);
}

/**
 * Factors that some readings have in common, each of them of two at most: with `A = I + Σ w·r·rᵀ` and `b = Σ w·off·r` over readings of
 * weight `w` and sensitivities `r`, they gain `½ bᵀA⁻¹b − ½ log|A|` over readings that stand alone.
 */
class Factors {
  private readonly at = new Map<string, number>();
  /** Rows of A without the unit, and b. */
  private readonly rows: number[][] = [];
  private readonly sums: number[] = [];
  readings = 0;

  get count(): number {
    return this.sums.length;
  }

  /** Place of a factor by what it is. */
  of(kind: 'supply' | 'branch', which: number): number {
    const key = `${kind} ${which}`;
    const known = this.at.get(key);
    if (known !== undefined) return known;
    const place = this.sums.length;
    this.at.set(key, place);
    for (const row of this.rows) row.push(0);
    this.sums.push(0);
    this.rows.push(new Array<number>(place + 1).fill(0));
    return place;
  }

  /** One reading; a place of -1 is no factor. */
  add(weight: number, off: number, one: number, oneReach: number, two: number, twoReach: number): void {
    this.readings++;
    const { rows, sums } = this;
    if (one >= 0) {
      sums[one]! += weight * off * oneReach;
      rows[one]![one]! += weight * oneReach * oneReach;
    }
    if (two >= 0) {
      sums[two]! += weight * off * twoReach;
      rows[two]![two]! += weight * twoReach * twoReach;
    }
    if (one >= 0 && two >= 0) {
      rows[one]![two]! += weight * oneReach * twoReach;
      rows[two]![one]! += weight * oneReach * twoReach;
    }
  }

  /** By elimination; A is symmetric and no smaller than the unit, so nothing changes places. */
  gain(): number {
    const { rows, sums } = this;
    let gained = 0;
    for (let k = 0; k < sums.length; k++) {
      const pivot = 1 + rows[k]![k]!;
      gained += (sums[k]! * sums[k]!) / (2 * pivot) - 0.5 * Math.log(pivot);
      for (let j = k + 1; j < sums.length; j++) {
        const share = rows[j]![k]! / pivot;
        if (share === 0) continue;
        sums[j]! -= share * sums[k]!;
        for (let c = k + 1; c < sums.length; c++) rows[j]![c]! -= share * rows[k]![c]!;
      }
    }
    return gained;
  }
}
