/** Middle value; of an even number the mean of the two in the middle. Throws for none. */
export function median(values: readonly number[]): number {
  if (values.length === 0) throw new Error('the middle of nothing');
  // As numbers they are sorted without being compared by a function.
  const sorted = Float64Array.from(values).sort();
  const at = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[at]! : (sorted[at - 1]! + sorted[at]!) / 2;
}

/** Median of the distances from the median, scaled to a standard deviation of a normal spread. */
export function robustSpread(values: readonly number[]): number {
  const middle = median(values);
  return 1.4826 * median(values.map((value) => Math.abs(value - middle)));
}
