/** A lamp that was seen to go on or off. */
export interface LampEdge {
  seconds: number;
  on: boolean;
}

/** At least this much longer than the one before is another kind of pause. */
const LONGER = 1.6;

/**
 * Reads a blink code from when the lamp went on and off: flashes make a digit, a pause ends a digit, a longer pause ends
 * a code. No time is fixed beforehand: the pauses are sorted into two or three lengths by the gaps between them. Gives
 * each code as its digits ("2-3"), in the order shown, repeats included; none when there are fewer than two flashes.
 */
export function decodeBlinks(edges: readonly LampEdge[]): string[] {
  const pauses: number[] = [];
  let flashes = 0;
  let darkSince: number | null = null;
  for (const { seconds, on } of edges) {
    if (on) {
      if (darkSince !== null && flashes > 0) pauses.push(seconds - darkSince);
      flashes++;
    } else darkSince = seconds;
  }
  if (flashes < 2) return [];
  const [digitEnds, codeEnds] = pauseLimits(pauses);
  const codes: number[][] = [[1]];
  for (const pause of pauses) {
    const digits = codes.at(-1)!;
    if (pause >= codeEnds) codes.push([1]);
    else if (pause >= digitEnds) digits.push(1);
    else digits[digits.length - 1]!++;
  }
  return codes.map((digits) => digits.join('-'));
}

/** Shortest pause that ends a digit, and that ends a code. */
function pauseLimits(pauses: readonly number[]): [number, number] {
  const sorted = [...pauses].sort((a, b) => a - b);
  const jumps = sorted
    .slice(1)
    .map((longer, at) => ({ ratio: longer / Math.max(sorted[at]!, 1e-3), from: longer }))
    .filter(({ ratio }) => ratio >= LONGER)
    .sort((a, b) => b.ratio - a.ratio)
    .slice(0, 2)
    .map(({ from }) => from)
    .sort((a, b) => a - b);
  return [jumps[0] ?? Infinity, jumps[1] ?? Infinity];
}

/** A code shown twice alike is believed; the reference asks for two full cycles. */
export function agreedBlinks(codes: readonly string[]): string[] {
  return [...new Set(codes.filter((code, at) => codes.indexOf(code) !== at))];
}
