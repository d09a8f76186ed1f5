/** What a meter or a person would find in one world. */
export type Prediction =
  | {
      type: 'number';
      /** Volts, amperes, ohms or kPa; `Infinity` is over-range. */
      mean: number;
      /** Scatter from part tolerances, without the meter's own. */
      sigma: number;
      /** The pair floats, or the circuit chatters: the display wanders, the figure says little. */
      loose: boolean;
    }
  | { type: 'choice'; odds: Readonly<Record<string, number>> };

/** Softness of thresholds (fuse, pull-in, works or weak), relative. */
const THRESHOLD_SOFTNESS = 0.06;

/** Probability that a quantity is above its threshold, from the logarithm of their ratio. */
export function soft(logRatio: number, softness = THRESHOLD_SOFTNESS): number {
  return 1 / (1 + Math.exp(-logRatio / softness));
}
