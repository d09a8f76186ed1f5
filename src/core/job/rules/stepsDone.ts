import type { Verdict } from '../../diagnosis/verdict';
import type { JobState } from '../reduceJob';
import { decisionNow, isMended } from '../worksOf';

/** The nine steps of a job, in the order the work is done. Looking and listening belongs to as found. */
export const STEP_IDS = [
  'complaint',
  'locate',
  'make-safe',
  'as-found',
  'test',
  'decide',
  'fix',
  'prove',
  'hand-over',
] as const;
export type StepId = (typeof STEP_IDS)[number];

/**
 * Steps that are done, as the log and the diagnosis stand. After a work that did not mend it what was done for that one is done for nothing
 * else: the machine is not safe because it once was, and neither is the next part decided on.
 */
export function stepsDone(state: JobState, verdict: Verdict | null): StepId[] {
  const mended = isMended(state);
  const decided = decisionNow(state) !== null;
  const done: Readonly<Record<StepId, boolean>> = {
    complaint: state.complaint !== null || state.codes.length > 0 || state.retest !== null,
    locate: [...state.looked.keys()].some((check) => check.startsWith('found ')),
    // Not while a point that was closed under the signature stands open for a test.
    'make-safe':
      (state.madeSafe?.body.points.every((point) => state.isolated.has(point)) ?? false) ||
      (state.wasMadeSafe && mended),
    'as-found': state.photos.length > 0 || state.wires.found.length > 0 || state.looked.size > 0,
    test: decided || (verdict !== null && verdict.state !== 'keepTesting'),
    decide: decided && state.opinion?.body.says !== 'sendBack',
    fix: mended,
    prove: state.handOver !== null,
    'hand-over': state.handOver !== null,
  };
  return STEP_IDS.filter((step) => done[step]);
}
