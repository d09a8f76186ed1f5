const TYPED = /^([+\-−–]?)(\d+(?:[.,]\d+)?)\s*(?:°?\s*([CF]))?$/iu;
/** What a winding, or a place that people work in, can be, °C. */
export const CELSIUS_LEAST = -60;
export const CELSIUS_MOST = 250;

/** A temperature as it is typed, °C: `23`, `23 °C`, `-5,5`, `74 F`. Null where the text is none, or none that a machine can have. */
export function parseCelsius(text: string): number | null {
  const [, sign = '', digits = '', scale = 'C'] = TYPED.exec(text.trim()) ?? [];
  if (digits === '') return null;
  const typed = (/[-−–]/.test(sign) ? -1 : 1) * Number(digits.replace(',', '.'));
  const celsius = scale.toUpperCase() === 'F' ? (typed - 32) / 1.8 : typed;
  return celsius >= CELSIUS_LEAST && celsius <= CELSIUS_MOST ? celsius : null;
}
