/** Kelvin over which insulation halves, warmer, and doubles, colder: the general rule of IEEE 43. */
const HALVES_OVER_K = 10;
const REFERENCE_C = 20;

/** How many times as much insulation has at one temperature as at another, °C. */
export function insulationFactor(fromC: number, toC: number): number {
  return 0.5 ** ((toC - fromC) / HALVES_OVER_K);
}

/** What insulation that was read at a temperature would have read at 20 °C. */
export function insulationAt20(ohms: number, celsius: number): number {
  return ohms * insulationFactor(celsius, REFERENCE_C);
}
