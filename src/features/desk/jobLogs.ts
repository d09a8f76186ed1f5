import 'server-only';
import { LRUCache } from 'lru-cache';
import { readEntries, type StoredEntry } from '@/db/entries';
import { inThisShed, ofProcess } from '@/db/shed';

/** Entries that are kept at hand over all jobs: about 60 MB. */
const MOST_ENTRIES = 120_000;

const logs = ofProcess(
  'logs',
  () =>
    new LRUCache<string, StoredEntry[]>({
      maxSize: MOST_ENTRIES,
      sizeCalculation: ({ length }) => length + 1,
    }),
);

/**
 * A job's whole log. What stands in a log never changes and its numbers have no gap, so that only what came after the last
 * known number is read; a log of twenty thousand entries costs no more than one of twenty.
 */
export async function wholeLog(jobId: string): Promise<readonly StoredEntry[]> {
  const key = inThisShed(jobId);
  const known = logs.get(key) ?? [];
  const fresh = await readEntries(jobId, known.at(-1)?.number ?? 0);
  if (fresh.length === 0) return known;
  // Meanwhile somebody else may have read on, or the log may have had to make room: what is longer is the beginning.
  const now = logs.get(key) ?? [];
  const begun = now.length > known.length ? now : known;
  const last = begun.at(-1)?.number ?? 0;
  const whole = [...begun, ...fresh.filter(({ number }) => number > last)];
  logs.set(key, whole);
  return whole;
}

/** What of a log is at hand already, up to some number: a beginning of the log, never the newest state for sure. */
export function knownLog(jobId: string): readonly StoredEntry[] {
  return logs.get(inThisShed(jobId)) ?? [];
}
