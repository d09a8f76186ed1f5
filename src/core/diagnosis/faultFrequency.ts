/** Share of "nothing is wrong here" before any reading. */
export const NO_FAULT_PRIOR = 0.12;
