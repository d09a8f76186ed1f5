import type { Reading, Test } from '@/core/circuit/schema';
import type { Outcome } from '@/core/diagnosis/outcomes';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import { readingKind } from '@/core/kinds/reading/index';
import { parseReading, shownValue } from '@/core/units/parseReading';
import { middleShown, WANDERS } from '@/core/units/wandering';
import { baseUnit, toBase, type GaugeMark } from '@/core/units/quantities';

/** What the typed text amounts to for the test at hand. */
export type TypedCheck =
  | { state: 'empty' }
  | { state: 'refused'; why: string }
  | {
      state: 'ready';
      /** What counts for the outcome: the reading, or the middle of a wandering display. */
      value: Reading['value'];
      outcome: number | null;
      /** Every value of a display that wandered. */
      wandered?: Reading['value'][];
    };

const MODE_WORDS: Readonly<Record<Test['kind'], string>> = {
  volts: 'volts',
  diode: 'volts on the diode range',
  amps: 'amps',
  ohms: 'ohms',
  insulation: 'ohms',
  pressure: 'a pressure',
  hertz: 'hertz',
  // Pressed, not typed.
  fuse: 'what the fuse does',
  click: 'a click or none',
  trace: 'what its trace shows',
  bit: '1 or 0',
  function: 'what it does',
  code: 'codes',
  flow: 'what blows',
  hold: 'holds or falls',
  changes: 'a pressure',
  moves: 'which way it goes',
  gauge: 'where it stands',
};
/** More volts or amps than this many times the supply can only be a slip. */
const ABSURD = 1.6;

/** Checks typed text against the mode of the test and the bands of its outcomes. */
export function checkTyped(
  text: string,
  ranked: RankedTest,
  supplyVolts: number,
  gaugeUnit: GaugeMark,
): TypedCheck {
  if (text.trim() === '') return { state: 'empty' };
  if (text.includes(WANDERS)) return checkWandering(text, ranked, supplyVolts, gaugeUnit);
  const { test } = ranked;
  const typed = parseReading(text);
  if (!typed) return { state: 'refused', why: 'Type it as the meter shows it: 27.4, 2.7M, OL.' };
  const wants = MODE_WORDS[test.kind];
  const { shows } = readingKind(test.kind);
  const quantity = shows.is === 'figure' ? shows.quantity : null;
  // A bare figure is in the unit that is kept, but for a gauge: that is read as it is marked.
  const unit = typed.unit ?? (quantity === 'pressure' ? gaugeUnit : quantity ? baseUnit(quantity) : '');
  const figure = typed.value === 'OL' ? 0 : typed.value;
  const kept = quantity ? toBase(quantity, unit, figure) : null;
  if (typed.unit && kept === null) {
    const got =
      typed.unit === 'ohm' ? 'ohms' : typed.unit === 'V' ? 'volts' : typed.unit === 'A' ? 'amps' : typed.unit;
    return { state: 'refused', why: `That is ${got}. This test wants ${wants}.` };
  }
  if (test.kind === 'volts' || test.kind === 'amps') {
    if (typed.value === 'OL') return { state: 'refused', why: `OL is ohms. This test wants ${wants}.` };
    if (test.kind === 'volts' && Math.abs(typed.value) >= 1000 && !typed.unit) {
      return { state: 'refused', why: 'That is ohms. This test wants volts.' };
    }
    if (test.kind === 'volts' && Math.abs(typed.value) > ABSURD * supplyVolts) {
      return {
        state: 'refused',
        why: `${typed.value} V on a ${Math.round(supplyVolts)} V run? Check the point.`,
      };
    }
  } else if (quantity !== 'pressure' && typed.value !== 'OL' && typed.value < -0.5) {
    return { state: 'refused', why: 'Below zero? Short the leads, zero the meter, take it again.' };
  }
  const value = shownValue(typed) === 'OL' ? 'OL' : (kept ?? figure);
  return { state: 'ready', value, outcome: outcomeOf(ranked, value) };
}

/** Each value on its own must be one; together they count by their middle. */
function checkWandering(
  text: string,
  ranked: RankedTest,
  supplyVolts: number,
  gaugeUnit: GaugeMark,
): TypedCheck {
  const wandered: Reading['value'][] = [];
  for (const piece of text.split(WANDERS)) {
    const check = checkTyped(piece, ranked, supplyVolts, gaugeUnit);
    if (check.state === 'refused') return check;
    if (check.state === 'ready') wandered.push(check.value);
  }
  if (wandered.length === 0) return { state: 'empty' };
  const value = middleShown(wandered);
  return { state: 'ready', value, outcome: outcomeOf(ranked, value), wandered };
}

/** Which of a test's outcomes a value falls in; lower limits are inside. Null where it fits none. */
export function outcomeOf({ outcomes, test }: RankedTest, value: Reading['value']): number | null {
  if (typeof value === 'number' && hasWrongSign(outcomes, test, value)) return null;
  const at = outcomes.findIndex(({ reading, low, high }) => {
    if (typeof value !== 'number' && value !== 'OL') return JSON.stringify(reading) === JSON.stringify(value);
    if (value === 'OL') return high === Infinity || reading === 'OL';
    if (low === undefined || high === undefined) return false;
    const { shows } = readingKind(test.kind);
    const seen = shows.is === 'figure' && shows.unsigned ? Math.abs(value) : value;
    return seen >= low && (seen < high || high === Infinity) && low !== Infinity;
  });
  return at < 0 ? null : at;
}

/** Share of the greatest answer by which a figure may be below zero where none should be. */
const BELOW_ZERO = 0.05;

/** Leads turned round: a figure well below zero where no answer is. */
function hasWrongSign(outcomes: readonly Outcome[], test: Test, value: number): boolean {
  const { shows } = readingKind(test.kind);
  if (shows.is !== 'figure' || shows.unsigned) return false;
  const figures = outcomes.flatMap(({ reading }) => (typeof reading === 'number' ? [reading] : []));
  const most = Math.max(0, ...figures.map(Math.abs));
  return figures.every((one) => one > -BELOW_ZERO * most) && value < -BELOW_ZERO * most - shows.leastSigma;
}

/** Letter of an outcome: A, B, C … */
export function outcomeLetter(at: number): string {
  return String.fromCharCode(65 + at);
}
