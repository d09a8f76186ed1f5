import type { Diagnosis } from '../../diagnosis/diagnose';
import type { Test } from '../../circuit/schema';
import type { EntryOf } from '../entries';
import type { JobState } from '../reduceJob';
import { decisionNow, isMended } from '../worksOf';

/** What is to be done next on a job. The wording lives in the interface. */
export type NextStep =
  | { step: 'handedOver' }
  /** It was handed over, and then something came that nobody had known. */
  | { step: 'overtaken' }
  | { step: 'prove' }
  | { step: 'decideAgain'; note: string }
  | { step: 'fix'; action: EntryOf<'decision'>['body']['action']; part: string }
  | { step: 'handOver' }
  | { step: 'decide'; part: string | null }
  | { step: 'test'; test: Test }
  | { step: 'noTestLeft' };

/** The next thing to do, as the log stands and the diagnosis says. */
export function nextStep(state: JobState, { verdict, next }: Pick<Diagnosis, 'verdict' | 'next'>): NextStep {
  const { handOver, overtaken, fixes, opinion, retest, failed } = state;
  const decision = decisionNow(state);
  if (handOver) return { step: 'handedOver' };
  if (overtaken) return { step: 'overtaken' };
  if (failed && !decision) {
    // What was mended is not what is still wrong.
    const named = verdict.state === 'name' ? verdict.part : null;
    if (named !== null && !fixes.some(({ body }) => body.part === named))
      return { step: 'decide', part: named };
    return next[0] ? { step: 'test', test: next[0].test } : { step: 'noTestLeft' };
  }
  if (isMended(state)) return { step: 'prove' };
  // A look at a sound machine that finds something is a job like any other.
  if (retest !== null && !decision)
    return verdict.state === 'name' ? { step: 'decide', part: verdict.part } : { step: 'prove' };
  if (decision) {
    if (opinion?.body.says === 'sendBack') return { step: 'decideAgain', note: opinion.body.note };
    const { action, part } = decision.body;
    return part ? { step: 'fix', action, part } : { step: 'handOver' };
  }
  if (verdict.state === 'name') return { step: 'decide', part: verdict.part };
  if (verdict.state === 'noFault') return { step: 'decide', part: null };
  const best = next[0];
  return best ? { step: 'test', test: best.test } : { step: 'noTestLeft' };
}
