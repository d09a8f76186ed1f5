/** A figure rounded to so many significant digits, as a figure: what is worked out is not said more exactly than it is known. */
export function significant(value: number, digits: number): number {
  return Number(value.toPrecision(digits));
}
