import type { State } from '../path/standing';

/** What the shed shows of a job: what is to be done next, its path in small, and what is wrong with the machine's guards. */
export interface JobDigest {
  /** Made by this version of the program's own words; another one makes it anew. */
  made: number;
  next: string;
  /** Parts along the lane with their turns; the fall is the load. */
  runs: { state: State; turns: number; asked: boolean; fall: boolean }[];
  /** Guards that are out of action, a line each. */
  defects: string[];
}

/** Counted up when a digest is made in another way. */
export const DIGEST_MADE = 1;
