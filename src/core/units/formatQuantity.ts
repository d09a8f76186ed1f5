const STEPS: readonly (readonly [number, string])[] = [
  [1e9, 'G'],
  [1e6, 'M'],
  [1e3, 'k'],
];

/** Number to three figures as a meter would show it, without trailing noise: 0.02, 31.4, 1.2 k, 3.3 M. */
export function formatQuantity(value: number, unit: string): string {
  const size = Math.abs(value);
  if (unit === 'Ω') {
    for (const [step, prefix] of STEPS) {
      if (size >= step) return `${threeFigures(value / step)} ${prefix}${unit}`;
    }
  }
  return unit === '' ? threeFigures(value) : `${threeFigures(value)} ${unit}`;
}

/** Three significant figures, at most two decimals; never an exponent. */
export function threeFigures(value: number): string {
  const size = Math.abs(value);
  if (size < 0.005) return '0';
  const decimals = size >= 100 ? 0 : size >= 10 ? 1 : 2;
  const text = value.toFixed(decimals);
  return size < 10 && text.includes('.') ? text.replace(/0$/, '').replace(/\.0$/, '') : text;
}
