import type { Entry, EntryOf } from './entries';

/** What was decided on, done and shown on a job, work by work. Entries that another one took back count for nothing. */
export interface WorksState {
  decision: EntryOf<'decision'> | null;
  /** Decisions that were carried out, in order, and the one that stands, carried out or not. */
  decisions: EntryOf<'decision'>[];
  /** It is of the work that comes next: made after the last one and, where that did not mend it, after this was seen. */
  decidedSince: boolean;
  /** The lead's last word on each decision, by its entry. */
  opinions: ReadonlyMap<string, EntryOf<'opinion'>>;
  /** That on the decision that stands. */
  opinion: EntryOf<'opinion'> | null;
  fixes: EntryOf<'fix'>[];
  /** Place in the log of the last one, counted from 0; -1 while there is none. */
  lastFix: number;
  /** Works after which something was shown not to be as it should, by their entries: they did not mend it. */
  failedFixes: ReadonlySet<string>;
  /** Something was shown not to be as it should since the last work: the fault, or another one, is still there. */
  failed: boolean;
  /** Readings of spares on the bench. */
  spareTests: EntryOf<'spareTest'>[];
  /** Of these, those of a spare that is not fitted yet: what the one before it read says nothing of the next. */
  sparesInHand: EntryOf<'spareTest'>[];
  /** What was shown, or left with a reason, since the last work on the machine, by line: what was shown before it is open again. */
  proofs: Map<string, EntryOf<'proof'>>;
  /** Lines that were shown, or left, before the last work. */
  shownBefore: ReadonlySet<string>;
}

/** Places in the log at which works stand, for what else counts by them. */
export interface WorkPlaces {
  /** How often something was mended before a place. */
  worksBefore: (position: number) => number;
  /** Numbers of works, from one, that did not mend it; 0 where something was wrong before any. */
  failedWorks: ReadonlySet<number>;
  /** Where the work that is under way, or else the last, was decided on; -1 for the first. */
  began: number;
}

/** @param positions place of each entry in the log, by its id */
export function worksOf(
  standing: readonly Entry[],
  positions: ReadonlyMap<string, number>,
): { state: WorksState; places: WorkPlaces } {
  const all = <T extends Entry['type']>(type: T) =>
    standing.filter((entry): entry is EntryOf<T> => entry.type === type);
  const at = ({ id }: Entry) => positions.get(id)!;
  const decided = all('decision');
  const decision = decided.at(-1) ?? null;
  const opinions = new Map(all('opinion').map((entry) => [entry.body.decision, entry]));
  const fixes = all('fix');
  const fixedAt = fixes.map(at);
  const lastFix = Math.max(-1, ...fixedAt);
  const worksBefore = (position: number) => fixedAt.filter((one) => one < position).length;
  const proofs = all('proof').map((entry) => ({ entry, after: worksBefore(at(entry)) }));
  const wrongAfter = firstWrong(proofs, at);
  const failedWorks = new Set(wrongAfter.keys());
  const failed = failedWorks.has(fixes.length);
  // Where each work was over: words of its decision that are put right before anybody sees that it did not help are of the same one.
  const overAt = fixedAt.map((fix, k) => wrongAfter.get(k + 1) ?? fix);
  const decidedSince = decision !== null && at(decision) > (overAt.at(-1) ?? -1);
  const fittedAt = new Map(fixes.map((entry) => [entry.body.part, at(entry)]));
  const spareTests = all('spareTest');
  return {
    state: {
      decision,
      decisions: decided.filter((one, k) => {
        const next = decided[k + 1];
        if (!next) return true;
        const carriedOut = fixes.flatMap((_fix, w) =>
          overAt[w]! > at(one) && overAt[w]! < at(next) ? [w + 1] : [],
        );
        // Said anew of the same part, while nobody saw that it did not help, it is the same decision in other words.
        const inOtherWords = next.body.part === one.body.part && !carriedOut.some((w) => failedWorks.has(w));
        return carriedOut.length > 0 && !inOtherWords;
      }),
      decidedSince,
      opinions,
      opinion: (decision && opinions.get(decision.id)) ?? null,
      fixes,
      lastFix,
      failedFixes: new Set(fixes.flatMap(({ id }, k) => (failedWorks.has(k + 1) ? [id] : []))),
      failed,
      spareTests,
      sparesInHand: spareTests.filter((entry) => at(entry) > (fittedAt.get(entry.body.part) ?? -1)),
      proofs: new Map(
        proofs.flatMap(({ entry, after }) => (after === fixes.length ? [[entry.body.proof, entry]] : [])),
      ),
      shownBefore: new Set(
        proofs.flatMap(({ entry, after }) => (after < fixes.length ? [entry.body.proof] : [])),
      ),
    },
    places: {
      worksBefore,
      failedWorks,
      began: beganAt(decided.map(at), fixedAt, overAt, failed && decidedSince ? Infinity : lastFix),
    },
  };
}

/**
 * Works, counted from one, after which something was shown not to be as it should, and was not shown to be so since; with the place where
 * this was first seen. 0 stands for before any work.
 */
function firstWrong(
  proofs: readonly { entry: EntryOf<'proof'>; after: number }[],
  at: (entry: Entry) => number,
): ReadonlyMap<number, number> {
  const lineOf = ({ entry, after }: (typeof proofs)[number]) => `${after} ${entry.body.proof}`;
  const last = new Map(proofs.map((one) => [lineOf(one), one.entry]));
  const found = new Map<number, number>();
  for (const one of proofs)
    if (isWrong(one.entry) && isWrong(last.get(lineOf(one))!) && !found.has(one.after))
      found.set(one.after, at(one.entry));
  return found;
}

const isWrong = ({ body }: EntryOf<'proof'>) => !body.done && !body.reason;

/** Where the work that was decided on before a place was first decided on, after the one before it was over; -1 where there is none before it. */
function beganAt(
  decided: readonly number[],
  fixedAt: readonly number[],
  overAt: readonly number[],
  end: number,
): number {
  const carried = decided.findLast((one) => one < end) ?? -1;
  const over = overAt[fixedAt.findLastIndex((one) => one < carried)];
  return over === undefined ? -1 : (decided.find((one) => one > over && one < end) ?? over);
}

/** Something was mended, and nothing was shown since that is not as it should be. */
export function isMended({ fixes, failed }: Pick<WorksState, 'fixes' | 'failed'>): boolean {
  return fixes.length > 0 && !failed;
}

/** The decision that is to be carried out, or was and helped; null where the last one was carried out and something is still wrong. */
export function decisionNow({
  decision,
  decidedSince,
  failed,
}: Pick<WorksState, 'decision' | 'decidedSince' | 'failed'>): WorksState['decision'] {
  return failed && !decidedSince ? null : decision;
}
