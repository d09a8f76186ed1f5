/** When a fault shows itself, and what else the operator saw: what words can say before any reading. */
export const CIRCUMSTANCES = [
  'atOnce',
  'onCommand',
  'afterMinutes',
  'hot',
  'wet',
  'bumps',
  'comesAndGoes',
  'betterWarm',
  'afterPause',
  'movesByItself',
  'doesNotStop',
  'wrongOneMoves',
  'shock',
  'fuseHoldsSeconds',
  'fuseHoldsMinutes',
] as const;
export type Circumstance = (typeof CIRCUMSTANCES)[number];
