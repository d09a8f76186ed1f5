import { DEAD_VOLTS_MOST } from '../../job/rules/provedDead';
import { readAs } from '../../units/readAs';

/**
 * An insulation test over time: readings at set times while the tester's volts stand on, then the wait until what it charged is
 * empty again. A conductor is not touched before that wait is over and a meter has shown it dead.
 */

/** Seconds at which a run is read: for the ratio of 60 over 30 s, and for the index of 600 over 60 s (reference section 16). */
export const RUN_MARKS = {
  60: [15, 30, 45, 60],
  600: [15, 30, 45, 60, 120, 180, 240, 300, 360, 420, 480, 540, 600],
} as const;
export type RunLength = keyof typeof RUN_MARKS;

/** It stays shorted this many times as long as the volts stood on (IEEE 43; reference section 16). */
export const DISCHARGE_TIMES = 4;

export interface InsulationRun {
  from: string;
  to: string;
  length: RunLength;
  /** Milliseconds of the clock that the page has. */
  startedMs: number;
  /** Marks that were read, seconds, in their order. */
  taken: readonly number[];
  /** When the volts came off; null while they stand on. */
  endedMs: number | null;
}

export type RunState =
  | {
      state: 'running';
      seconds: number;
      /** The mark that is read now; one that was missed is gone. */
      due: number | null;
      /** The mark after it; null after the last. */
      next: number | null;
    }
  | { state: 'discharging'; secondsLeft: number }
  /** The wait is over: a meter has to show it. */
  | { state: 'toProve' };

export function runState({ length, startedMs, taken, endedMs }: InsulationRun, nowMs: number): RunState {
  if (endedMs !== null) {
    const wait = (DISCHARGE_TIMES * Math.max(endedMs - startedMs, 0)) / 1000;
    // A clock that was set back has waited for nothing.
    const waited = Math.max(nowMs - endedMs, 0) / 1000;
    return waited < wait
      ? { state: 'discharging', secondsLeft: Math.ceil(wait - waited) }
      : { state: 'toProve' };
  }
  const seconds = Math.max(nowMs - startedMs, 0) / 1000;
  const open = RUN_MARKS[length].filter((mark) => mark > (taken.at(-1) ?? 0));
  return {
    state: 'running',
    seconds,
    due: open.findLast((mark) => mark <= seconds) ?? null,
    next: open.find((mark) => mark > seconds) ?? null,
  };
}

/** The run with its due mark read; it ends with the last one. */
export function markTaken(run: InsulationRun, mark: number, nowMs: number): InsulationRun {
  const last = RUN_MARKS[run.length].at(-1) === mark;
  return { ...run, taken: [...run.taken, mark], endedMs: last ? nowMs : run.endedMs };
}

/** Whether what a meter showed on the conductor after the wait proves it dead. Only volts do, and not over range. */
export function isDischarged(typed: string): boolean {
  const read = readAs('volts', typed.trim(), 'V');
  return read.ok && Math.abs(read.value) <= DEAD_VOLTS_MOST;
}

/** What was kept of a run; null for anything else. */
export function asRun(value: unknown): InsulationRun | null {
  if (typeof value !== 'object' || value === null) return null;
  const { from, to, length, startedMs, taken, endedMs } = value as Record<string, unknown>;
  const whole =
    typeof from === 'string' &&
    typeof to === 'string' &&
    (length === 60 || length === 600) &&
    Number.isFinite(startedMs) &&
    Array.isArray(taken) &&
    taken.every((mark) => Number.isFinite(mark)) &&
    (endedMs === null || Number.isFinite(endedMs));
  return whole ? (value as InsulationRun) : null;
}
