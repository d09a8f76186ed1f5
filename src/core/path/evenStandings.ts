import type { Standing } from './standing';
import { ALL_TURNS, shareTurns } from './turns';

/** Before the first answer: the doubt spread evenly. */
export function evenStandings(count: number): Standing[] {
  const turns = shareTurns(new Array<number>(count).fill(1 / Math.max(count, 1)));
  return turns.map((own) => ({ state: 'doubt', share: own / ALL_TURNS, turns: own }));
}
