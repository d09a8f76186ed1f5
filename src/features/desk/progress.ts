import type { JobState } from '@/core/job/reduceJob';
import type { Verdict } from '@/core/diagnosis/verdict';
import type { StepId } from './steps';

/** Steps that are done, as the log stands. */
export function stepsDone(state: JobState, verdict: Verdict | null): StepId[] {
  const done: [StepId, boolean][] = [
    ['complaint', state.complaint !== null || state.codes.length > 0],
    ['locate', [...state.looked.keys()].some((check) => check.startsWith('found '))],
    ['make-safe', state.madeSafe !== null || (state.wasMadeSafe && state.fixes.length > 0)],
    ['as-found', state.photos.length > 0 || state.wires.found.length > 0 || state.looked.size > 0],
    ['test', state.decision !== null || (verdict !== null && verdict.state !== 'keepTesting')],
    ['decide', state.decision !== null && state.opinion?.body.says !== 'sendBack'],
    ['fix', state.fixes.length > 0],
    ['prove', state.handOver !== null],
    ['hand-over', state.handOver !== null],
  ];
  return done.flatMap(([step, is]) => (is ? [step] : []));
}
