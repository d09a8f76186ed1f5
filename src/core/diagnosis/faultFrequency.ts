/** Share of "nothing is wrong here" before any reading. */
export const NO_FAULT_PRIOR = 0.12;
/**
 * How far the odds of faults are trusted, as their exponent: 1 as they stand, 0 not at all. They are rules of thumb, right within a factor
 * of some; taken at their word they made shares of a half come true five points too seldom on machines that break otherwise.
 */
export const ODDS_TRUST = 0.8;
