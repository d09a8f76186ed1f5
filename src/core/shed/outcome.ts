import type { CircuitModel } from '../circuit/model';
import type { Circumstance } from '../circuit/circumstances';
import { listFaults } from '../diagnosis/faults';
import type { FaultName } from '../diagnosis/faultTypes';
import type { Suspect } from '../diagnosis/suspects';
import type { ProvedMeasure } from '../job/provedMeasures';
import type { JobState } from '../job/reduceJob';
import type { Weather } from '../job/weather';

/** How a job ended that was handed over: what was wrong, as the work showed, and what the program had said before. */
export interface Outcome {
  /** The part that was mended or changed and after which the machine was shown to work. */
  part: string;
  /** Its fault; null where the decision names none that the part can have. */
  fault: FaultName | null;
  when: readonly Circumstance[];
  /** The weather it failed in; null where nobody said. */
  weather: Weather | null;
  /**
   * The program's doubt on each part after each reading, shares of one, the largest first and small ones left out: what it said on the way
   * as well as at the end.
   */
  doubt: readonly Doubt[];
  /** The part that the program named; null while it had not. */
  named: string | null;
  /** Minutes from the first entry to the hand-over. */
  minutes: number;
}

/** Shares by part, as they stood after one reading. */
export type Doubt = readonly (readonly [part: string, share: number])[];

/** What a job leaves behind for the shed, with what it is counted under. */
export interface JobLeft {
  measures: readonly ProvedMeasure[];
  outcome: Outcome | null;
  /** Type of its function: see `likeness`. */
  type: string;
  /** Where it stands: see `placeOfCircuit`. */
  place: string;
}

/** A doubt of less is not worth keeping. */
const LEAST_DOUBT = 0.02;
const SHARE_DIGITS = 4;
const MINUTE_MS = 60_000;

/**
 * What a job that was handed over shows of its fault; null where it shows none: it was closed without work, or what was done was never
 * seen to help.
 *
 * @param said what its readings said before the work, after each of them
 * @param named the part that they named in the end
 */
export function outcomeOf(
  model: CircuitModel,
  state: JobState,
  { said, named, began }: { said: readonly (readonly Suspect[])[]; named: string | null; began: string },
): Outcome | null {
  const { decision, handOver, fixes } = state;
  if (!handOver || !decision || decision.body.action === 'nothing') return null;
  const { part } = decision.body;
  if (!fixes.some(({ body }) => body.part === part) || !seenToWork(state)) return null;
  if (!model.compiled.partIndex.has(part)) return null;
  const fault = listFaults(model).find((one) => one.ref === part && one.fault === decision.body.fault);
  return {
    part,
    fault: fault?.fault ?? null,
    when: state.when,
    weather: state.weather,
    doubt: said.map(doubtOf),
    named,
    minutes: Math.max(0, (Date.parse(handOver.at) - Date.parse(began)) / MINUTE_MS),
  };
}

/** Doubt on each part, whatever its fault. */
function doubtOf(suspects: readonly Suspect[]): Doubt {
  const shares = new Map<string, number>();
  for (const { part, share } of suspects) shares.set(part, (shares.get(part) ?? 0) + share);
  return [...shares]
    .filter(([, share]) => share >= LEAST_DOUBT)
    .sort(([, a], [, b]) => b - a)
    .map(([part, share]) => [part, Number(share.toFixed(SHARE_DIGITS))] as const);
}

/** Something was read or watched after the work, and nothing that was looked for stayed away. */
function seenToWork({ after, proofs, lastFix }: JobState): boolean {
  const shown = [...proofs.values()].some(({ body }) => body.done);
  // What was read after an earlier work says nothing of the last one.
  return shown || after.some(({ position }) => position > lastFix);
}
