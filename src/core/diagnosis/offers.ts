import type { Test } from '../circuit/schema';

/** Something a person must know before touching anything; the wording is the interface's. */
export type Caution =
  | 'live'
  | 'moves'
  | 'lineVolts'
  | 'powerOff'
  | 'unplug'
  | 'mayBlowFuse'
  | 'testerVolts'
  | 'electronicsOff'
  | 'takeOut'
  | 'heldLoad'
  | 'pressure'
  | 'jumper'
  | 'swap'
  | 'benchSupply';

/** Tests of one sort, best first; each may take a share of the room. */
export interface Family {
  name: string;
  offers: Iterable<Offer>;
}

export interface Offer {
  test: Test;
  cautions: Caution[];
  extraMinutes?: number;
}
