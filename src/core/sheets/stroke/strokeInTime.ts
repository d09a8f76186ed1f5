/** A pneumatic stroke in time: two chambers of gas at the temperature around them, ISO 6358 flows, a piston that friction and a load hold back. */

/** Critical pressure ratio of throttles and small lines where nobody says it (ISO 6358, usual 0.2 to 0.5). */
const CRITICAL = 0.35;
const BEYOND = (1 - CRITICAL) ** 2;
export const ATMOSPHERE_BAR = 1.013;
const NEWTON_PER_BAR_DM2 = 1000;

/** Steps of a stroke that the exhaust alone, or the feed alone, would let go; after so many times that it is not moving any more. */
const STEPS = 1000;
const MOST_TIMES = 60;
/** Halvings of the speed within a step. */
const HALVINGS = 45;

export interface Stroke {
  /** Piston faces that are driven and let go, dm². */
  drivenDm2: number;
  releasedDm2: number;
  strokeDm: number;
  /** What stands in each chamber and its line beside the stroke's own volume, dm³. */
  deadDm3: number;
  /** At the valve, absolute, bar. */
  supplyBar: number;
  /** Of the feed and of what lets the other chamber go, dm³/(s·bar). */
  feed: number;
  exhaust: number;
  /** Load and friction against it, N. */
  againstNewton: number;
}

/**
 * Seconds from the valve's shifting until the piston begins to move and until it is at its end; null where it never gets there.
 *
 * Isothermal: the product of a chamber's pressure and volume, its content, follows its flow, d(pV)/dt = C · p₁ · φ(p₂/p₁) · 1 bar (ISO 6358). The
 * piston's mass is neglected: in each step it takes the speed at which the forces on it balance, or stands where they hold it back. Implicit
 * Euler, stable however fast a small chamber fills; first order, within a few thousandths at these steps. A cushion is not in it.
 */
export function strokeInTime(stroke: Stroke): { begins: number; ends: number } | null {
  const { drivenDm2, releasedDm2, strokeDm, deadDm3, supplyBar, feed, exhaust, againstNewton } = stroke;
  const against = againstNewton / NEWTON_PER_BAR_DM2;
  const dt =
    Math.max(
      (deadDm3 + releasedDm2 * strokeDm) / exhaust,
      // Full, the driven chamber holds no more than the supply's pressure.
      (deadDm3 + drivenDm2 * strokeDm) / feed,
    ) / STEPS;
  let [x, begins] = [0, -1];
  // The chamber that is let go stood under the supply until then.
  let content1 = ATMOSPHERE_BAR * deadDm3;
  let content2 = supplyBar * (deadDm3 + releasedDm2 * strokeDm);
  /** Pressures at the end of a step in which the piston goes so far. */
  const after = (travel: number) => ({
    driven: filled(content1, deadDm3 + drivenDm2 * (x + travel), supplyBar, feed * dt),
    released: emptied(content2, deadDm3 + releasedDm2 * (strokeDm - x - travel), exhaust * dt),
  });
  const pushes = (travel: number) => {
    const { driven, released } = after(travel);
    return (driven - ATMOSPHERE_BAR) * drivenDm2 - (released - ATMOSPHERE_BAR) * releasedDm2 - against;
  };
  for (let step = 1; step <= STEPS * MOST_TIMES; step++) {
    let travel = 0;
    if (pushes(0) > 0) {
      if (begins < 0) begins = (step - 1) * dt;
      let [low, high] = [0, strokeDm - x];
      if (pushes(high) >= 0) return { begins, ends: step * dt };
      for (let half = 0; half < HALVINGS; half++) {
        const middle = (low + high) / 2;
        if (pushes(middle) > 0) low = middle;
        else high = middle;
      }
      travel = low;
    }
    const { driven, released } = after(travel);
    x += travel;
    content1 = driven * (deadDm3 + drivenDm2 * x);
    content2 = released * (deadDm3 + releasedDm2 * (strokeDm - x));
  }
  return null;
}

/** Pressure of a chamber after a step in which its feed, so wide times the step, lets gas in from the supply, bar. */
function filled(content: number, volume: number, supply: number, width: number): number {
  if (content / volume >= supply) return content / volume;
  const most = width * supply;
  const choked = (content + most) / volume;
  if (choked <= CRITICAL * supply) return choked;
  // p V − content = width · supply · √(1 − ((p/supply − b)/(1 − b))²), squared: its larger root.
  const square = most * most;
  const a = volume * volume + square / (supply * supply * BEYOND);
  const b = -2 * volume * content - (2 * square * CRITICAL) / (supply * BEYOND);
  const c = content * content + (square * CRITICAL * CRITICAL) / BEYOND - square;
  return Math.min((-b + Math.sqrt(Math.max(b * b - 4 * a * c, 0))) / (2 * a), supply);
}

/** The same of a chamber that is let go into the open. */
function emptied(content: number, volume: number, width: number): number {
  const still = content / volume;
  if (still <= ATMOSPHERE_BAR) return still;
  const choked = content / (volume + width);
  if (ATMOSPHERE_BAR <= CRITICAL * choked) return choked;
  // content − p V = width · p · √(1 − ((p₀/p − b)/(1 − b))²), which falls on the one side and rises on the other.
  let [low, high] = [ATMOSPHERE_BAR, still];
  for (let half = 0; half < HALVINGS; half++) {
    const middle = (low + high) / 2;
    const over = (ATMOSPHERE_BAR / middle - CRITICAL) / (1 - CRITICAL);
    const share = over <= 0 ? 1 : Math.sqrt(Math.max(1 - over * over, 0));
    if (content - middle * volume > width * middle * share) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
