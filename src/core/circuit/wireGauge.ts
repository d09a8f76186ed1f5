/** Resistivity of annealed copper at 20 °C, Ω·mm²/m (IEC 60028). */
const COPPER = 1 / 58;

/** Cross-section of an American wire gauge, mm². Accepts 0 to 40 and `"00"`, `"000"`, `"0000"`. */
export function gaugeArea(awg: number | string): number {
  const text = String(awg).trim();
  const number = /^0{2,4}$/.test(text) ? 1 - text.length : Number(text);
  const millimetres = 0.127 * 92 ** ((36 - number) / 39);
  return (Math.PI / 4) * millimetres ** 2;
}

/** Resistance of a copper conductor at 20 °C, ohms. */
export function conductorOhms(lengthMetres: number, mm2: number): number {
  return (COPPER * lengthMetres) / mm2;
}

/** Usual sections, mm², and the most that a kilometre of bare flexible copper of each may have at 20 °C, ohms (IEC 60228 class 5). */
export const CLASS_5: readonly (readonly [mm2: number, ohmsPerKm: number])[] = [
  [0.5, 39],
  [0.75, 26],
  [1, 19.5],
  [1.5, 13.3],
  [2.5, 7.98],
  [4, 4.95],
  [6, 3.3],
  [10, 1.91],
  [16, 1.21],
  [25, 0.78],
  [35, 0.554],
  [50, 0.386],
  [70, 0.272],
  [95, 0.206],
  [120, 0.161],
];
