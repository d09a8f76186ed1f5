import type { SeverityRange } from './faultTypes';

const GRID_MAIN = 26;
const GRID_TAIL = 8;
const MAIN_SHARE = 0.94;

/** Severities to try: evenly in the logarithm, denser where the fault matters. */
export function severityGrid({ least, most, mainLeast, mainMost }: SeverityRange): number[] {
  const grid = [
    ...logSpaced(least, mainLeast, GRID_TAIL / 2),
    ...logSpaced(mainLeast, mainMost, GRID_MAIN),
    ...logSpaced(mainMost, most, GRID_TAIL),
  ];
  return [...new Set(grid)].sort((a, b) => a - b);
}

/** Few of them, for a look at what a fault does: at its least, as it mostly is, and at its most; once 1 for what has no severity. */
export function fewSeverities(range: SeverityRange | null): number[] {
  if (!range) return [1];
  return [range.least, Math.sqrt(range.mainLeast * range.mainMost), range.most];
}

/** `count` values from one end to the other, evenly in the logarithm. */
export function logSpaced(from: number, to: number, count: number): number[] {
  if (to <= from * 1.0001) return [from];
  return Array.from({ length: count }, (_, k) => from * (to / from) ** (k / (count - 1)));
}

/** Prior density per unit of log severity. */
export function priorDensity(severity: number, range: SeverityRange): number {
  const { least, most, mainLeast, mainMost } = range;
  const main = Math.log(mainMost / mainLeast);
  const tails = Math.log(mainLeast / least) + Math.log(most / mainMost);
  const inMain = severity >= mainLeast && severity <= mainMost;
  if (tails < 1e-6) return 1 / main;
  return inMain ? MAIN_SHARE / main : (1 - MAIN_SHARE) / tails;
}

/**
 * Logarithm of the prior mass that each of the ascending severities stands for: trapezoid over log severity, each side
 * under the density that holds in its middle, so that the step between the main range and the tails is not smeared.
 */
export function logMasses(severities: readonly number[], range: SeverityRange | null): number[] {
  if (!range || severities.length === 1) return severities.map(() => 0);
  const between = severities.map((severity, s) => {
    if (s === 0) return 0;
    const below = severities[s - 1]!;
    return Math.log(severity / below) * priorDensity(Math.sqrt(severity * below), range);
  });
  return severities.map((_one, s) => Math.log(0.5 * (between[s]! + (between[s + 1] ?? 0)) + 1e-300));
}

/** Severities between which the middle `share` of the weight lies. */
export function interval(
  points: readonly { severity: number; weight: number }[],
  share = 0.9,
): [number, number] {
  const sorted = [...points].sort((a, b) => a.severity - b.severity);
  const total = sorted.reduce((all, { weight }) => all + weight, 0);
  const tail = (1 - share) / 2;
  let run = 0;
  let low = sorted[0]?.severity ?? 0;
  for (const { severity, weight } of sorted) {
    if (run / total < tail) low = severity;
    run += weight;
    if (run / total >= 1 - tail) return [low, severity];
  }
  return [low, sorted.at(-1)?.severity ?? 0];
}

/** log(Σ exp), safe against overflow. */
export function logSum(values: ArrayLike<number>): number {
  let top = -Infinity;
  for (let at = 0; at < values.length; at++) top = Math.max(top, values[at]!);
  if (top === -Infinity) return top;
  let total = 0;
  for (let at = 0; at < values.length; at++) total += Math.exp(values[at]! - top);
  return top + Math.log(total);
}

export function sum(values: readonly number[]): number {
  return values.reduce((all, one) => all + one, 0);
}

/** x·ln x, 0 at 0. */
export function xlogx(value: number): number {
  return value > 0 ? value * Math.log(value) : 0;
}
