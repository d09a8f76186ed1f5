/** What a technician typed, as a number the engine can weigh. */
export interface TypedReading {
  /** In base units (V, A, ohm …); `"OL"` where the meter showed over-range without a bound. */
  value: number | 'OL';
  /** Base unit, when one was typed: `V`, `A`, `ohm`, `Hz`, `Pa`, `bar` or `psi`. */
  unit?: string;
  overRange: boolean;
  /** The display as a whole number: `27.4` is 274 counts. Zero for `OL`. */
  counts: number;
  /** Size of one count, in the base unit. Zero for `OL`. */
  resolution: number;
}

const PREFIX: Readonly<Record<string, number>> = {
  G: 1e9,
  M: 1e6,
  k: 1e3,
  K: 1e3,
  m: 1e-3,
  u: 1e-6,
  µ: 1e-6,
  μ: 1e-6,
  n: 1e-9,
};

const UNIT: Readonly<Record<string, string>> = {
  v: 'V',
  volt: 'V',
  volts: 'V',
  vdc: 'V',
  vac: 'V',
  a: 'A',
  amp: 'A',
  amps: 'A',
  ω: 'ohm',
  ohm: 'ohm',
  ohms: 'ohm',
  r: 'ohm',
  hz: 'Hz',
  bar: 'bar',
  pa: 'Pa',
  psi: 'psi',
  inhg: 'inHg',
};

/** A bound above this is what a meter shows over its range; one below it is a figure at the least. */
const BOUND_IS_OVER = 6e7;

/** What a reading counts for: its figure, or over range. */
export function shownValue({ value, overRange }: TypedReading): number | 'OL' {
  return value === 'OL' || (overRange && value >= BOUND_IS_OVER) ? 'OL' : value;
}

const OVER_RANGE = /^(o\.?l\.?|0\.?l\.?|over(load|range)?|open|inf(inity)?|∞)$/i;
const PLAIN =
  /^([+\-−–]?)(\d+(?:[.,]\d*)?|[.,]\d+)(?:e([+-]?\d{1,2}))?\s*([GMkKmuµμn]?)\s*(ohms?|volts?|vdc|vac|amps?|bar|psi|inhg|hz|pa|[vaωΩΩr])?$/iu;
const INFIX = /^([+\-−–]?)(\d+)([GMkKRr])(\d+)\s*(ohms?|[ωΩΩ])?$/u;

/**
 * Reads a value the way it is spoken at the meter: `27.4`, `2.7M`, `4k7`, `6.8 kΩ`, `OL`, `.2`, `12,6 V`,
 * `-0.55`, `>2G`, `120mV`.
 *
 * @returns the reading in base units, or `null` when the text is no reading.
 */
export function parseReading(text: string): TypedReading | null {
  let rest = text.trim().replace(/\s+/g, ' ');
  const bounded = /^[>≥]\s*/.test(rest);
  if (bounded) rest = rest.replace(/^[>≥]=?\s*/, '');
  if (OVER_RANGE.test(rest.replace(/\s*(m|k)?[ωΩΩ]$/iu, ''))) {
    return { value: 'OL', overRange: true, counts: 0, resolution: 0 };
  }
  const infix = INFIX.exec(rest);
  if (infix) {
    const [, sign, whole = '', prefix = '', fraction = '', unit] = infix;
    const scale = /^r$/i.test(prefix) ? 1 : (PREFIX[prefix] ?? 1);
    const named = unit ?? (/^r$/i.test(prefix) ? 'ohm' : undefined);
    return typed(sign, `${whole}.${fraction}`, 0, scale, named, bounded);
  }
  const plain = PLAIN.exec(rest);
  if (!plain) return null;
  const [, sign, digits = '', exponent, prefix = '', unit] = plain;
  // The pattern ignores case for units only: a prefix keeps its case, so M is mega and m is milli.
  const scale = prefix === '' ? 1 : PREFIX[prefix];
  if (scale === undefined) return null;
  return typed(sign, digits.replace(',', '.'), Number(exponent ?? 0), scale, unit, bounded);
}

function typed(
  sign: string | undefined,
  digits: string,
  exponent: number,
  scale: number,
  unit: string | undefined,
  bounded: boolean,
): TypedReading {
  const decimals = digits.includes('.') ? digits.length - digits.indexOf('.') - 1 : 0;
  const negative = sign !== undefined && sign !== '' && sign !== '+';
  const value = scaled(Number(digits), exponent, scale) * (negative ? -1 : 1);
  const name = unit === undefined ? undefined : UNIT[unit.toLowerCase()];
  return {
    value,
    ...(name === undefined ? {} : { unit: name }),
    overRange: bounded,
    counts: Number(digits.replace('.', '')),
    resolution: scaled(1, exponent - decimals, scale),
  };
}

/** Multiplies by powers of ten through the decimal form, so that `1.4 k` is 1400 and not 1399.9999999999998. */
function scaled(value: number, exponent: number, scale: number): number {
  const power = exponent + Math.round(Math.log10(scale));
  return Number(`${value}e${power}`);
}
