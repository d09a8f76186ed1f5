import { isSpent } from '../circuit/edits';
import type { Test } from '../circuit/schema';
import type { Hypothesis } from './hypotheses';
import { figureOf } from '../kinds/reading/index';
import { totalSigma } from './likelihood';
import { INSTEAD_SHARE, type Prediction } from './prediction';
import { xlogx } from './severity';

/** Cells a person can tell apart on the display. */
const CELLS = 640;
const OVER_CELL = CELLS - 1;
/** A spread over more cells than this, from 1.3 sigma below to 1.3 above, is more than three points. */
const WIDE_CELLS = 6;
/** How far a wide spread is followed, sigma. */
const WIDE_SIGMA = 2;

export function cellOf(kind: Test['kind'], value: number): number {
  if (value === Infinity) return OVER_CELL;
  const at = figureOf(kind).step(value, CELLS / 2);
  return Math.min(Math.max(Math.round(at), 0), OVER_CELL - 1);
}

/** Counts how a test's answers divide the doubt between parts. Scratch arrays are kept between tests. */
export class Scorer {
  /** Weight of every answer cell and part, and of every cell. */
  private readonly cells: Float64Array;
  private readonly totals = new Float64Array(CELLS);
  private readonly touched: number[] = [];
  private readonly touchedCells: number[] = [];
  private readonly slots: number;
  private readonly priorEntropy: number;
  private part = 0;
  private weight = 0;

  constructor(
    partCount: number,
    private readonly hypotheses: readonly Hypothesis[],
  ) {
    this.slots = partCount + 1;
    this.cells = new Float64Array(CELLS * this.slots);
    const parts = new Float64Array(this.slots);
    for (const { part, weight } of hypotheses) parts[part + 1] = parts[part + 1]! + weight;
    this.priorEntropy =
      -parts.reduce((all, p) => all + xlogx(p), 0) + xlogx(parts.reduce((a, b) => a + b, 0));
  }

  private readonly put = (cell: number, share: number): void => {
    const weight = this.weight * share;
    const at = cell * this.slots + this.part;
    if (this.cells[at] === 0) this.touched.push(at);
    this.cells[at] = this.cells[at]! + weight;
    if (this.totals[cell] === 0) this.touchedCells.push(cell);
    this.totals[cell] = this.totals[cell]! + weight;
  };

  /** Expected fall of the entropy over parts, bits. */
  information(test: Test, predictions: readonly Prediction[]): number {
    const { cells, totals, touched, touchedCells } = this;
    const dead = deadSigma(predictions);
    for (let h = 0; h < predictions.length; h++) {
      this.part = this.hypotheses[h]!.part + 1;
      this.weight = this.hypotheses[h]!.weight;
      spread(test, predictions[h]!, dead, this.put);
    }
    let after = 0;
    for (const at of touched) {
      after -= xlogx(cells[at]!);
      cells[at] = 0;
    }
    for (const cell of touchedCells) {
      after += xlogx(totals[cell]!);
      totals[cell] = 0;
    }
    touched.length = 0;
    touchedCells.length = 0;
    return Math.max(0, (this.priorEntropy - after) / Math.LN2);
  }

  /**
   * How surely an answer would clear the leading part if it were sound, bits: half the overlap distance. Less where
   * another suspect moves the reading the same way: with a short beside it, a sound coil reads low as well. The sound circuit has
   * its fuse, so that it is compared with worlds that have theirs, as long as the part has one.
   */
  refutation(test: Test, predictions: readonly Prediction[], ref: string): number {
    const guilty = new Map<number, number>();
    const sound = new Map<number, number>();
    let guiltyTotal = 0;
    const dead = deadSigma(predictions);
    const isWhole = ({ edits }: Hypothesis) => !edits.some(isSpent);
    const hasWhole = this.hypotheses.some((one) => one.ref === ref && isWhole(one));
    const counts = (one: Hypothesis) => !hasWhole || isWhole(one);
    predictions.forEach((prediction, h) => {
      const one = this.hypotheses[h]!;
      const { ref: own, weight } = one;
      if (own === ref && counts(one)) {
        guiltyTotal += weight;
        spread(test, prediction, dead, (cell, share) =>
          guilty.set(cell, (guilty.get(cell) ?? 0) + weight * share),
        );
      }
    });
    spread(test, predictions[0]!, dead, (cell, share) => sound.set(cell, (sound.get(cell) ?? 0) + share));
    let overlap = 0;
    for (const [cell, share] of sound)
      overlap += Math.min(share, (guilty.get(cell) ?? 0) / (guiltyTotal || 1));
    return 2 * (1 - overlap) * (1 - this.mimicry(predictions, ref, counts));
  }

  /** Share of the doubt on other parts that would show most of what the leading part shows. */
  private mimicry(
    predictions: readonly Prediction[],
    ref: string,
    counts: (one: Hypothesis) => boolean,
  ): number {
    const sound = figure(predictions[0]!);
    let [heaviest, guilty] = [0, NaN];
    let [others, alike] = [0, 0];
    this.hypotheses.forEach((one, h) => {
      const { ref: own, weight } = one;
      if (own !== ref || weight <= heaviest || !counts(one)) return;
      [heaviest, guilty] = [weight, figure(predictions[h]!)];
    });
    const departure = guilty - sound;
    if (!(Math.abs(departure) > 0) || !Number.isFinite(departure)) return 0;
    this.hypotheses.forEach((one, h) => {
      const { ref: own, weight } = one;
      if (own === ref || !counts(one)) return;
      others += weight;
      const shown = (figure(predictions[h]!) - sound) / departure;
      if (shown > 0) alike += weight * Math.min(1, shown, 1 / shown);
    });
    return others > 0 ? alike / others : 0;
  }
}

/** The figure that is foreseen; of a choice there is none. */
function figure(prediction: Prediction): number {
  return prediction.type === 'number' ? prediction.mean : NaN;
}

/** How far a dead place scatters, where some predictions float; a floating one counts as that. */
function deadSigma(predictions: readonly Prediction[]): number {
  let floats = false;
  let dead = 0;
  for (const one of predictions) {
    if (one.type !== 'number') return 0;
    if (one.loose) floats = true;
    else if (one.mean === 0) dead = Math.max(dead, one.sigma);
  }
  return floats ? dead : 0;
}

/** Puts an answer into cells: three points of its spread, or the choices. */
function spread(
  test: Test,
  prediction: Prediction,
  dead: number,
  put: (cell: number, share: number) => void,
): void {
  if (prediction.type === 'choice') {
    for (const key in prediction.odds) {
      const share = prediction.odds[key]!;
      if (share > 1e-6) put(choiceCell(key), share);
    }
    return;
  }
  const { mean, loose, instead } = prediction;
  if (mean === Infinity) return put(OVER_CELL, 1);
  if (instead) {
    spread(test, { type: 'number', ...instead, loose: false }, dead, (cell, share) =>
      put(cell, INSTEAD_SHARE * share),
    );
    const { instead: _other, ...due } = prediction;
    return spread(test, due, dead, (cell, share) => put(cell, (1 - INSTEAD_SHARE) * share));
  }
  // A pair that floats reads about nothing and wanders: it cannot be told from a dead one, and its width tells nothing either.
  const wide = totalSigma(test.kind, mean, loose ? dead : prediction.sigma, test.meter);
  const middle = cellOf(test.kind, mean);
  const below = cellOf(test.kind, mean - 1.3 * wide);
  const above = cellOf(test.kind, mean + 1.3 * wide);
  if (below === above) return put(middle, 1);
  if (above - below > WIDE_CELLS)
    return spreadWide(
      cellOf(test.kind, mean - WIDE_SIGMA * wide),
      middle,
      cellOf(test.kind, mean + WIDE_SIGMA * wide),
      put,
    );
  put(middle, 0.5);
  put(below, 0.25);
  put(above, 0.25);
}

/** A wide spread fills every cell it reaches: three points of two that overlap would never meet, and look told apart. */
function spreadWide(low: number, middle: number, high: number, put: (cell: number, share: number) => void) {
  const weight = (cell: number) => {
    const reach = cell < middle ? middle - low : high - middle;
    const off = reach === 0 ? 0 : (WIDE_SIGMA * (cell - middle)) / reach;
    return Math.exp(-0.5 * off * off);
  };
  let total = 0;
  for (let cell = low; cell <= high; cell++) total += weight(cell);
  for (let cell = low; cell <= high; cell++) put(cell, weight(cell) / total);
}

function choiceCell(key: string): number {
  let hash = 7;
  for (const letter of key) hash = (hash * 31 + letter.charCodeAt(0)) % (CELLS - 2);
  return hash;
}
