/** A sudden sound, seconds from the beginning of what was heard, and how far above the quiet it stood. */
export interface Click {
  seconds: number;
  overQuiet: number;
}

/** Loudness is taken over so long, seconds: shorter than a click, longer than a period of what rumbles. */
const WINDOW_SECONDS = 0.004;
/** A click stands so many times over the quiet, and rises from it within so many windows. */
const OVER_QUIET = 6;
const RISES_WITHIN = 3;
/** A second click this soon is the first one's echo, seconds. */
const ECHO_SECONDS = 0.06;
/** Quieter than this is no sound, of full scale. */
const LEAST_LOUD = 0.002;

/**
 * Clicks in what a microphone heard: loudness that jumps out of the quiet within milliseconds. What swells slowly, an engine or a voice, is
 * none.
 *
 * @param samples from -1 to 1
 * @param rate samples a second
 */
export function clicksIn(samples: ArrayLike<number>, rate: number): Click[] {
  const size = Math.max(1, Math.round(WINDOW_SECONDS * rate));
  const loud: number[] = [];
  for (let from = 0; from + size <= samples.length; from += size) {
    let sum = 0;
    let last = samples[from]!;
    // Differences of neighbours: a click is sharp, what rumbles is not.
    for (let at = from + 1; at < from + size; at++) {
      const now = samples[at]!;
      sum += (now - last) ** 2;
      last = now;
    }
    loud.push(Math.sqrt(sum / size));
  }
  const sorted = [...loud].sort((a, b) => a - b);
  const quiet = Math.max(sorted[sorted.length >> 1] ?? 0, LEAST_LOUD);
  const found: Click[] = [];
  for (let at = 1; at < loud.length; at++) {
    const before = Math.min(...loud.slice(Math.max(0, at - RISES_WITHIN), at));
    const jumps = loud[at]! > OVER_QUIET * quiet && loud[at]! > OVER_QUIET * Math.max(before, LEAST_LOUD);
    const seconds = (at * size) / rate;
    const echo = found.length > 0 && seconds - found.at(-1)!.seconds < ECHO_SECONDS;
    if (jumps && !echo) found.push({ seconds, overQuiet: loud[at]! / quiet });
  }
  return found;
}

/** Slower than this nothing was recorded that anybody could hear, points a second. */
const LEAST_RATE = 4000;

/**
 * Sharp sounds on the other channels of a recording: a microphone beside the clamp, on one clock. Seconds of the recording; none where another
 * channel is a current or volts, or too slow for a sound.
 */
export function heardBeside(
  seconds: ArrayLike<number>,
  channels: readonly { quantity: string | null; values: readonly number[] }[],
  chosen: number,
): number[] {
  const span = seconds[seconds.length - 1]! - seconds[0]!;
  const rate = (seconds.length - 1) / span;
  if (!(rate >= LEAST_RATE)) return [];
  return channels.flatMap(({ quantity, values }, at) => {
    if (at === chosen || quantity !== null) return [];
    const most = values.reduce((top, one) => Math.max(top, Math.abs(one)), 0);
    if (most === 0) return [];
    return clicksIn(
      values.map((one) => one / most),
      rate,
    ).map((click) => seconds[0]! + click.seconds);
  });
}
