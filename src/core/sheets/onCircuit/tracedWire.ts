import { InputError } from '../../circuit/inputError';
import type { CircuitModel } from '../../circuit/model';
import { median } from '../../statistics';
import type { Trace } from '../../trace/trace';
import type { TimelineMoment } from './timelineSheet';

/** A moment of a sequence that is run through at a pace: when it is turned, and between when a trace is read for it, seconds. */
export interface PacedMoment {
  /** Null where the moment before was already turned so, and its timer runs out. */
  turnSeconds: number | null;
  from: number;
  to: number;
}

/** A hand turns a little early or late: so much of a moment is left out at its beginning and its end. */
const LEFT_OUT = 0.3;
/** What a timer lets through is looked for over this share of its time, and a while after it has run out. */
const TIMER_SHARE = 0.6;
const RUN_OUT_SECONDS = 0.5;

/** When each moment of a sequence comes, where something is turned every so many seconds; what waits for a timer waits for it. */
export function pacedMoments(
  { compiled }: CircuitModel,
  moments: readonly TimelineMoment[],
  paceSeconds: number,
): PacedMoment[] {
  const timers = compiled.circuit.parts.flatMap((part) => (part.kind === 'timer' ? [part.seconds] : []));
  const [shortest, longest] = [Math.min(...timers), Math.max(0, ...timers)];
  let turned = 0;
  let end = paceSeconds;
  return moments.map(({ turned: what, atOnce }, k) => {
    const goesOn = k > 0 && moments[k - 1]!.atOnce;
    if (what !== null && !goesOn) [turned, end] = [end, end + paceSeconds];
    const begin = what === null ? 0 : turned;
    const turnSeconds = what === null || goesOn ? null : turned;
    if (atOnce) {
      const span = Math.min(paceSeconds, TIMER_SHARE * shortest);
      return { turnSeconds, from: begin + LEFT_OUT * span, to: begin + span };
    }
    const settled = goesOn ? begin + longest + RUN_OUT_SECONDS : begin;
    end = Math.max(end, settled + paceSeconds);
    const span = end - settled;
    return { turnSeconds, from: settled + LEFT_OUT * span, to: end - LEFT_OUT * span };
  });
}

/**
 * What a wire carried at each moment of its sequence, by a trace of its volts that begins with the sequence at rest. Throws `InputError` for
 * one that ends before the sequence does.
 */
export function readAlong({ seconds, values }: Trace, moments: readonly PacedMoment[]): number[] {
  const begin = seconds[0]!;
  const [last, end] = [seconds.at(-1)! - begin, Math.max(...moments.map(({ to }) => to))];
  if (last < end)
    throw new InputError(
      'trace',
      `lasts ${last.toFixed(1)} s where the sequence takes ${end.toFixed(1)} s; record until it is at rest again`,
    );
  return moments.map(({ from, to }, k) => {
    const inside = values.filter((_one, at) => seconds[at]! - begin >= from && seconds[at]! - begin <= to);
    if (inside.length === 0)
      throw new InputError(
        'trace',
        `has no point at moment ${k + 1} of the sequence; record more points a second`,
      );
    return median(inside);
  });
}
