import type { ReadAs } from '@/core/units/readAs';
import type { GaugeMark, Quantity } from '@/core/units/quantities';

interface Typed {
  name: string;
  as: string;
}

/** What each quantity is called, and how one is typed: without its unit, and with another. */
const TYPED: Readonly<Record<Exclude<Quantity, 'pressure'>, Typed>> = {
  volts: { name: 'voltage', as: 'volts, as 27.4, or with its unit, as 410 mV' },
  amps: { name: 'current', as: 'amps, as 1.8, or with its unit, as 640 mA' },
  ohms: { name: 'resistance', as: 'ohms, as 31.2, or with its unit, as 6.8 kΩ' },
  hertz: { name: 'frequency', as: 'hertz, as 50.1' },
};

/** A gauge's unit at the head of a label. */
export const GAUGE_NAMES: Readonly<Record<GaugeMark, string>> = {
  bar: 'Bar',
  kPa: 'kPa',
  psi: 'psi',
  inHg: 'Inches of mercury',
};

/** A usual pressure, as each gauge shows it, and how one with another unit is typed. */
const PRESSURE_AS: Readonly<Record<GaugeMark, string>> = {
  bar: 'bar, as 5.2, or another with its unit, as 75 psi',
  kPa: 'kPa, as 520, or another with its unit, as 5.2 bar',
  psi: 'psi, as 75, or another with its unit, as 5.2 bar',
  inHg: 'inches of mercury, as 18, or another with its unit, as -0.6 bar',
};

/** Why what was typed is not taken for a quantity, in a sentence that names it and says what to type. */
export function figureTrouble(
  quantity: Quantity,
  text: string,
  { why }: Extract<ReadAs, { ok: false }>,
  unit: GaugeMark,
): string {
  const { name, as }: Typed =
    quantity === 'pressure' ? { name: 'pressure', as: PRESSURE_AS[unit] } : TYPED[quantity];
  switch (why) {
    case 'empty':
      return `Nothing is typed; type ${as}.`;
    case 'overRange':
      return `“${text.trim()}” is over range, no ${name}; take a higher range and type ${as}.`;
    case 'unit':
    case 'noValue':
      return `“${text.trim()}” is no ${name}; type ${as}.`;
  }
}
