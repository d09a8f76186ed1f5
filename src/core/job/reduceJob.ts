import type { Reading, Test } from '../circuit/schema';
import type { Entry, EntryOf } from './entries';

export interface PinnedReading {
  entry: EntryOf<'reading'>;
  reading: Reading;
}

/** What a job's log amounts to. The same entries give the same state, in whatever order they arrived. */
export interface JobState {
  complaint: string | null;
  /** Readings that count, oldest first. */
  readings: PinnedReading[];
  /** Every reading ever pinned, oldest first, with whether a later entry took its place. */
  history: { entry: EntryOf<'reading'>; superseded: boolean }[];
  noReach: string[];
  skipped: Test[];
}

/** Reduces a log to the job's state. Repeated entries count once; superseded ones do not count. */
export function reduceJob(entries: readonly Entry[]): JobState {
  const unique = new Map(entries.map((entry) => [entry.id, entry]));
  // UUIDv7 sorts by the time it was made, whichever device sent its entries first.
  const ordered = [...unique.values()].sort((a, b) =>
    a.at < b.at ? -1 : a.at > b.at ? 1 : a.id < b.id ? -1 : 1,
  );
  const superseded = new Set(ordered.flatMap(({ supersedes }) => (supersedes ? [supersedes] : [])));
  const standing = ordered.filter(({ id }) => !superseded.has(id));
  const readings = ordered.filter((entry) => entry.type === 'reading');
  return {
    complaint: standing.findLast((entry) => entry.type === 'complaint')?.body.words ?? null,
    readings: readings
      .filter(({ id }) => !superseded.has(id))
      .map((entry) => ({ entry, reading: entry.body.reading })),
    history: readings.map((entry) => ({ entry, superseded: superseded.has(entry.id) })),
    noReach: standing.flatMap((entry) => (entry.type === 'noReach' ? [entry.body.node] : [])),
    skipped: standing.flatMap((entry) => (entry.type === 'skippedTest' ? [entry.body.test] : [])),
  };
}
