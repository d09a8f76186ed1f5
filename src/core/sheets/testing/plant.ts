import type { Random } from '../../random';
import type { Next } from '../sheet';
import type { SheetName } from '../sheets';

/** Takes the sheet's own answer. */
export type Judge = (answer: never) => 'right' | 'wrong' | 'open';

/** A sheet filled in by somebody at a part with something known wrong with it. */
export interface Planted {
  document: Record<string, unknown>;
  /** What was planted, in a word. */
  cause: string;
  /** How the answer stands to it: `right`, `wrong`, or `open` where it leaves open what cannot be told. */
  judge: Judge;
  /** The sheet with what it asked for read as well; null where the person has nothing more to read. */
  read?: (document: Record<string, unknown>, next: Next) => Record<string, unknown> | null;
}

export const head = (sheet: SheetName) => ({ format: 'spiraxis-sheet', version: 1, sheet });
export const pick = <T>(random: Random, list: readonly T[]): T =>
  list[Math.floor(random.next() * list.length)]!;
export const between = (random: Random, low: number, high: number) => low + (high - low) * random.next();
export const digits = (value: number, decimals: number) => Number(value.toFixed(decimals));
/** A meter's 0.8 % and its last digit. */
export const metered = (random: Random, value: number, decimals = 1) =>
  digits(value * (1 + 0.004 * random.normal()), decimals);
export const decided = (value: unknown, right: boolean): 'right' | 'wrong' | 'open' =>
  value === null || value === 'unknown' ? 'open' : right ? 'right' : 'wrong';
