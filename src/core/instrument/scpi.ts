import { MEASURES, type Measures, type MeterMode } from './meterMode';

/**
 * Words of SCPI-99 (Standard Commands for Programmable Instruments, volumes 1 and 2) that a multimeter speaks: what its functions are
 * called, and how figures come.
 */

/** Functions by their short names, the direct one first where there are two. */
const FUNCTIONS: Readonly<Record<Measures, { short: string; long: string; coupled: boolean }>> = {
  volts: { short: 'VOLT', long: 'VOLTAGE', coupled: true },
  amps: { short: 'CURR', long: 'CURRENT', coupled: true },
  ohms: { short: 'RES', long: 'RESISTANCE', coupled: false },
  diode: { short: 'DIOD', long: 'DIODE', coupled: false },
  hertz: { short: 'FREQ', long: 'FREQUENCY', coupled: false },
};
/** Ohms by other ways: four wires, and the beep. */
const ALSO_OHMS = ['FRES', 'FRESISTANCE', 'CONT', 'CONTINUITY'];

/** A function as the standard writes it, such as `VOLT:AC`. */
export function functionName({ measures, coupling }: MeterMode): string {
  const { short, coupled } = FUNCTIONS[measures];
  return coupled ? `${short}:${(coupling ?? 'dc').toUpperCase()}` : short;
}

/** What an instrument's answer to `FUNCtion?` or `CONFigure?` means; null for a function that is none of a meter's here. */
export function readFunction(answer: string): MeterMode | null {
  const name = /^\s*"?([A-Za-z:]+)/.exec(answer)?.[1]?.toUpperCase().split(':') ?? [];
  const [base = '', coupling] = name;
  if (ALSO_OHMS.includes(base)) return { measures: 'ohms' };
  const measures = MEASURES.find((one) => [FUNCTIONS[one].short, FUNCTIONS[one].long].includes(base));
  if (!measures) return null;
  if (!FUNCTIONS[measures].coupled) return { measures };
  // A function without its coupling is the direct one (volume 2, 4.2).
  return { measures, coupling: coupling === 'AC' ? 'ac' : 'dc' };
}

/** Infinity and "not a number" as the standard writes them (volume 1, 7.2.1.4 and 7.2.1.5). */
const INFINITE = 9.9e37;
const NOT_A_NUMBER = 9.91e37;

/** A figure as an instrument sends it: over range where it is infinite, null where it is none. */
export function readFigure(answer: string): number | 'OL' | null {
  const text = answer.trim();
  if (!/^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(text)) return null;
  const value = Number(text);
  if (Math.abs(value) === NOT_A_NUMBER) return null;
  return Math.abs(value) >= INFINITE ? 'OL' : value;
}

/** A figure as the standard has it sent. */
export function writeFigure(value: number | 'OL'): string {
  if (value === 'OL') return '+9.90000000E+37';
  const [digits = '', power = '+0'] = value.toExponential(8).split('e');
  const sign = power.startsWith('-') ? '-' : '+';
  return `${value < 0 ? '' : '+'}${digits}E${sign}${power.slice(1).padStart(2, '0')}`;
}
