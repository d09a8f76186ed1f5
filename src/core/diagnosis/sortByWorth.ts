/** What a test is worth. */
export interface Worth {
  bits: number;
  /** Of what it tells, for the time it takes. */
  score: number;
  proof: boolean;
  /** May well take a fuse with it. */
  risky: boolean;
}

/** What tells less than this tells next to nothing: it is no reason to spare a fuse, and nobody is sent for it. */
const IDLE_BITS = 0.05;

/** Whether no test of these is worth its way: each tells next to nothing, and none is a proof of what leads. */
export function areIdle(tests: readonly Pick<Worth, 'bits' | 'proof'>[]): boolean {
  return tests.every(({ bits, proof }) => bits < IDLE_BITS && !proof);
}

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
