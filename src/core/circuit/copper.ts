/** Temperature coefficient of copper at 20 °C, 1/K, and the temperature that resistances are held against (reference section 2). */
export const COPPER_PER_K = 0.00393;
export const REFERENCE_C = 20;

/** Copper resistance as it would be at 20 °C. */
export function ohmsAt20(ohms: number, celsius: number): number {
  return ohms / (1 + COPPER_PER_K * (celsius - REFERENCE_C));
}
