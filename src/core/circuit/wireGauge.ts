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
