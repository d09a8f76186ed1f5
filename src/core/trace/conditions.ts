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

/** What a trace is watched for: a plunger that moves, a start that settles, pulses. */
export const TRACE_KINDS = ['dip', 'inrush', 'pwm'] as const;
export type TraceKind = (typeof TRACE_KINDS)[number];
