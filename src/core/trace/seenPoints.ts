/** A chart of more points than it has pixels shows each stretch's ends, lowest and highest only. */
const MOST_POINTS = 1200;

/** No more points than can be seen: of each stretch its lowest and its highest, in their order. */
export function seenPoints(
  points: readonly (readonly [number, number])[],
): readonly (readonly [number, number])[] {
  if (points.length <= MOST_POINTS) return points;
  const kept: (readonly [number, number])[] = [points[0]!];
  const size = (2 * points.length) / MOST_POINTS;
  for (let from = 0; from < points.length; from += size) {
    const stretch = points.slice(Math.floor(from), Math.floor(from + size));
    if (stretch.length === 0) continue;
    const low = stretch.reduce((least, one) => (one[1] < least[1] ? one : least));
    const high = stretch.reduce((most, one) => (one[1] > most[1] ? one : most));
    kept.push(...(low[0] <= high[0] ? [low, high] : [high, low]));
  }
  kept.push(points.at(-1)!);
  return kept;
}
