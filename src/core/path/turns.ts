/** The whole doubt about a job, in turns. */
export const ALL_TURNS = 20;

/** Shares as whole turns that add to `ALL_TURNS`, by largest remainder. Shares need not add to one exactly. */
export function shareTurns(shares: readonly number[]): number[] {
  const total = shares.reduce((sum, share) => sum + share, 0);
  if (total <= 0) return shares.map(() => 0);
  const exact = shares.map((share) => (share / total) * ALL_TURNS);
  const turns = exact.map(Math.floor);
  const left = ALL_TURNS - turns.reduce((sum, one) => sum + one, 0);
  exact
    .map((value, at) => ({ at, rest: value - Math.floor(value) }))
    .sort((a, b) => b.rest - a.rest || a.at - b.at)
    .slice(0, left)
    .forEach(({ at }) => (turns[at] = turns[at]! + 1));
  return turns;
}
