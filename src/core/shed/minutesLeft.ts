import type { CircuitModel } from '../circuit/model';
import { accessMinutes } from '../diagnosis/access';
import type { Diagnosis } from '../diagnosis/diagnose';
import { proofList, proofStanding } from '../job/proofList';
import type { JobState } from '../job/reduceJob';
import { decisionNow, isMended } from '../job/worksOf';

/** Minutes of work that a job still needs, at the least and up to. */
export interface MinutesLeft {
  least: number;
  most: number;
}

/** A reading tells so many bits of the doubt as a rule; minutes of one line of the proof list; of mending what lies open (shop rules). */
const BITS_A_TEST = 0.8;
const MINUTES_A_PROOF = 1.5;
const MEND_LEAST = 10;
const MEND_MOST = 35;
/** A part with less doubt is hardly the one that has to be reached. */
const LEAST_DOUBT = 0.05;
/** Whatever the doubt, nobody reads more than that in one go. */
const MOST_TESTS = 12;

/**
 * What a job still needs, from the doubt that is left: the next test alone where it may settle it, as many as the doubt asks for at the most;
 * reaching and mending the part; showing what is on the list. Null once it is handed over. What it waits for, a part or a lock, is not in it.
 */
export function minutesLeft(
  model: CircuitModel,
  state: JobState,
  { suspects, noFault, verdict, next }: Pick<Diagnosis, 'suspects' | 'noFault' | 'verdict' | 'next'>,
): MinutesLeft | null {
  if (state.handOver) return null;
  const open = proofList(model, state).filter((proof) => proofStanding(proof, state).state !== 'done').length;
  const prove = { least: MINUTES_A_PROOF * open, most: 2 * MINUTES_A_PROOF * open };
  if (isMended(state) || (state.retest && !state.decision)) return prove;
  const reach = (ref: string) => {
    const at = model.compiled.partIndex.get(ref);
    return at === undefined ? 0 : accessMinutes(model.compiled.parts[at]!.part);
  };
  const decision = decisionNow(state);
  if (decision) {
    const { part, action, minutes } = decision.body;
    if (action === 'nothing') return prove;
    const mend =
      minutes === null
        ? { least: reach(part) + MEND_LEAST, most: reach(part) + MEND_MOST }
        : { least: minutes, most: minutes };
    return { least: mend.least + prove.least, most: mend.most + prove.most };
  }
  const shares = new Map<string, number>([['', noFault]]);
  for (const { part, share } of suspects) shares.set(part, (shares.get(part) ?? 0) + share);
  const bits = [...shares.values()].reduce(
    (sum, share) => (share > 0 ? sum - share * Math.log2(share) : sum),
    0,
  );
  const settled = verdict.state !== 'keepTesting';
  const minutesEach = next[0]?.minutes ?? 0;
  const tests = settled ? 0 : Math.min(MOST_TESTS, Math.max(1, Math.ceil(bits / BITS_A_TEST)));
  const doubted = [...shares]
    .filter(([part, share]) => part !== '' && share >= LEAST_DOUBT)
    .map(([part]) => reach(part));
  return {
    least: (settled ? 0 : minutesEach) + Math.min(...doubted, MEND_MOST) + MEND_LEAST + prove.least,
    most: tests * minutesEach + Math.max(0, ...doubted) + MEND_MOST + prove.most,
  };
}
