import type { State } from '../path/standing';
import type { Licence } from '../people/roles';

/** What the shed shows of a job: what is to be done next, its path in small, and what is wrong with the machine's guards. */
export interface JobDigest {
  /** Made by this version of the program's own words; another one makes it anew. */
  made: number;
  next: string;
  /** Parts along the lane with their turns; the fall is the load. */
  runs: { state: State; turns: number; asked: boolean; fall: boolean }[];
  /** Guards that are out of action, and what a hand-over did not know, a line each. */
  defects: string[];
  /** Minutes of work that it still needs; null once it is handed over, and where its readings cannot be weighed. */
  left: { least: number; most: number } | null;
  /** What whoever does it holds. */
  licences: Licence[];
}

/** Counted up when a digest is made in another way. */
export const DIGEST_MADE = 6;

const STATE_LETTERS = { spared: 's', held: 'h', bad: 'b', doubt: 'd' } as const satisfies Record<
  State,
  string
>;
const STATE_OF = Object.fromEntries(
  Object.entries(STATE_LETTERS).map(([state, letter]) => [letter, state as State]),
);

/** Runs as a few letters each, for a list of many jobs: state, turns, `?` where it was asked, `!` at the fall. */
export function packRuns(runs: JobDigest['runs']): string {
  return runs
    .map(
      ({ state, turns, asked, fall }) =>
        `${STATE_LETTERS[state]}${turns}${asked ? '?' : ''}${fall ? '!' : ''}`,
    )
    .join(' ');
}

/** Runs from their letters; what is none is left out. */
export function unpackRuns(packed: string): JobDigest['runs'] {
  return packed.split(' ').flatMap((one) => {
    const [, letter = '', turns = '', asked, fall] = /^([a-z])(\d+)(\??)(!?)$/.exec(one) ?? [];
    const state = STATE_OF[letter];
    return state ? [{ state, turns: Number(turns), asked: asked === '?', fall: fall === '!' }] : [];
  });
}
