/** What a test is worth. */
export interface Worth {
  bits: number;
  /** Of what it tells, for the time it takes. */
  score: number;
  proof: boolean;
  /** May well take a fuse with it. */
  risky: boolean;
}

/** What tells less than this is no reason to spare a fuse. */
const IDLE_BITS = 0.05;

/**
 * Sorts tests in place, the best first. One that may take a fuse with it stands behind every other that tells anything, however much it tells
 * itself; one that tells nothing behind all.
 */
export function sortByWorth(tests: Worth[]): void {
  const isWorthIt = tests.some(({ risky, bits }) => risky && bits >= IDLE_BITS);
  const place = ({ risky, bits, proof }: Worth) => {
    const isIdle = bits < IDLE_BITS;
    if (risky) return isIdle ? 3 : 1;
    return isWorthIt && isIdle && !proof ? 2 : 0;
  };
  tests.sort((a, b) => place(a) - place(b) || b.score - a.score);
}
