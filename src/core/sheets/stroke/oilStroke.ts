/** A stroke on oil: what the pump delivers fills the driven chamber; air that is trapped in it is squeezed before anything moves. */

const ATMOSPHERE_PA = 101_325;
const LITRES_A_MINUTE = 1 / 60_000;
/** Of the chamber: less air than this is dissolved, or nobody's stop-watch shows it. */
const AIR_SHARE = 0.02;
/** A hand on a stop-watch is no quicker, seconds. */
const HAND_SECONDS = 0.2;
/** Under so little pressure air is hardly squeezed, and how much there is cannot be told, Pa. */
const LEAST_SQUEEZE_PA = 50_000;

export interface OilStroke {
  /** Face that is driven, m², and how far it goes, m. */
  drivenM2: number;
  strokeM: number;
  /** Of the pump, L/min. */
  flowLpm: number;
  /** Load and friction against it, N. */
  againstNewton: number;
  /** From the valve's shifting until it began to move, where that was timed, s. */
  startSeconds: number | undefined;
}

/**
 * Seconds that a stroke takes once it moves, and how much air at the atmosphere's pressure its late start speaks for, cm³; null where that was
 * not timed, cannot be told, or is too little to matter. Oil itself hardly gives: what is compressed is the air (Boyle).
 */
export function oilStroke({ drivenM2, strokeM, flowLpm, againstNewton, startSeconds }: OilStroke): {
  seconds: number;
  airCm3: number | null;
} {
  const flow = flowLpm * LITRES_A_MINUTE;
  const seconds = (drivenM2 * strokeM) / flow;
  const gauge = againstNewton / drivenM2;
  if (startSeconds === undefined || startSeconds <= HAND_SECONDS || gauge < LEAST_SQUEEZE_PA)
    return { seconds, airCm3: null };
  const squeezed = 1 - ATMOSPHERE_PA / (ATMOSPHERE_PA + gauge);
  const air = (flow * (startSeconds - HAND_SECONDS)) / squeezed;
  return { seconds, airCm3: air > AIR_SHARE * drivenM2 * strokeM ? 1e6 * air : null };
}
