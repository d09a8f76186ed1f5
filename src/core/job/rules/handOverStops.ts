import { isDeadKind } from '../../circuit/testPlace';
import type { CircuitModel } from '../../circuit/model';
import { proofList, proofStanding, type Proof } from '../proofList';
import type { JobState } from '../reduceJob';
import { isUnseen } from './signing';

/** What keeps a machine from being handed over. The wording lives in the interface. */
export type HandOverStop =
  | { code: 'undecided' }
  | { code: 'sentBack' }
  /** A learner decided, and nobody else has approved it. */
  | { code: 'unseen'; by: string }
  /** What was decided on was not done. */
  | { code: 'noFix'; part: string }
  /** A test was taken that needs the work dead, and nobody ever signed that it was. */
  | { code: 'neverMadeSafe' }
  | { code: 'notShown'; proof: Proof };

/** Everything that still stands between this job and the machine going out; empty when it may. */
export function handOverStops(model: CircuitModel, state: JobState): HandOverStop[] {
  const { decision, opinion, fixes, wasMadeSafe, retest } = state;
  const stops: HandOverStop[] = [];
  // A look at a sound machine decides nothing; one that found something is a job like any other.
  if (!decision && (retest === null || fixes.length > 0)) stops.push({ code: 'undecided' });
  if (opinion?.body.says === 'sendBack') stops.push({ code: 'sentBack' });
  if (decision && isUnseen(decision, opinion)) stops.push({ code: 'unseen', by: decision.person });
  if (decision && decision.body.action !== 'nothing') {
    const { part } = decision.body;
    if (!fixes.some(({ body }) => body.part === part)) stops.push({ code: 'noFix', part });
  }
  const deadTest = [...state.readings, ...state.after].some(({ reading }) => isDeadKind(reading.kind));
  if (deadTest && !wasMadeSafe) stops.push({ code: 'neverMadeSafe' });
  for (const proof of proofList(model, state)) {
    const now = proofStanding(proof, state).state;
    if (now === 'open' || now === 'wrong') stops.push({ code: 'notShown', proof });
  }
  return stops;
}
