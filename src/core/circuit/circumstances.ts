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

/** What is looked at without a meter: a plug, a loom, hoses for a leak, a rod or a rotor by hand, how far a throttle is open, a relief valve by ear and warmth, the whole for water. */
export const LOOKED_AT = ['plug', 'loom', 'leak', 'rod', 'rotor', 'throttle', 'relief', 'water'] as const;
