import type { Test } from '../circuit/schema';

/** Tests of one sort, best first; each may take a share of the room. */
export interface Family {
  name: string;
  offers: Iterable<Offer>;
}

export interface Offer {
  test: Test;
  extraMinutes?: number;
}
