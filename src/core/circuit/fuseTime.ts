/**
 * Blade fuses after ISO 8820-3 types C and F at about 23 °C: percent of rating, least and most seconds to open.
 * Rows between are bounded by their neighbours; a single time must not be read from it.
 */
export const FUSE_ROWS: readonly (readonly [percent: number, least: number, most: number])[] = [
  [110, 360_000, Infinity],
  [135, 0.75, 600],
  [160, 0.25, 50],
  [200, 0.15, 5],
  [350, 0.04, 0.5],
  [600, 0.02, 0.1],
];

export interface FuseWindow {
  /** It holds at least this long. */
  leastSeconds: number;
  /** It has opened by then; `Infinity` where nothing is guaranteed. */
  mostSeconds: number;
}

/** Time in which a blade fuse opens at a current given in percent of its rating. */
export function fuseWindow(percent: number): FuseWindow {
  const above = FUSE_ROWS.find(([row]) => row >= percent);
  const below = FUSE_ROWS.filter(([row]) => row <= percent).at(-1);
  return { leastSeconds: above ? above[1] : 0, mostSeconds: below ? below[2] : Infinity };
}

/** Chance that a fuse has opened after some seconds at a steady overload: log-uniform inside its window. */
export function openedBy(seconds: number, percent: number): number {
  const { leastSeconds, mostSeconds } = fuseWindow(percent);
  if (seconds >= mostSeconds) return 1;
  if (seconds <= leastSeconds) return 0;
  if (mostSeconds === Infinity) return seconds === Infinity ? 1 : 0;
  const least = Math.max(leastSeconds, 1e-3);
  return Math.min(1, Math.max(0, Math.log(seconds / least) / Math.log(mostSeconds / least)));
}

/** Which of two fuses in series opens first at one current: certain only if their windows do not overlap. */
export function opensFirst(amps: number, ratingA: number, ratingB: number): 'first' | 'second' | 'either' {
  const [a, b] = [fuseWindow((100 * amps) / ratingA), fuseWindow((100 * amps) / ratingB)];
  if (a.mostSeconds < b.leastSeconds) return 'first';
  if (b.mostSeconds < a.leastSeconds) return 'second';
  return 'either';
}
