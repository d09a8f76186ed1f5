/** What a coil's trace can be the trace of. */
export const COIL_CONDITIONS = [
  'sound',
  'nothing',
  'starved',
  'shortedTurns',
  'jammedOut',
  'jammedIn',
  'slow',
  'weakSpring',
  'bare',
] as const;
export type CoilCondition = (typeof COIL_CONDITIONS)[number];
