import type { Reading, Test } from '../circuit/schema';
import type { Mended } from '../diagnosis/observations';
import { codeKey } from '../codes/codeBook';
import { samePerson } from '../people/roles';
import { putInBy } from '../safety/putIn';
import type { Entry, EntryOf } from './entries';
import type { Weather } from './weather';
import { overtakes } from './rules/overtakes';
import { worksOf, type WorksState } from './worksOf';

export interface PinnedReading {
  entry: EntryOf<'reading'>;
  reading: Reading;
  /** Place in the log, counted from 0. */
  position: number;
}

/** One thing that was put into the machine, or found in it, and what became of it. */
export interface LedgerLine {
  entry: EntryOf<'ledger'>;
  /** When it was taken out, and where that stands in the log; null while it is in. */
  out: { entry: EntryOf<'ledgerOut'>; position: number } | null;
  /** The second person who saw that it is out. */
  seen: EntryOf<'ledgerSeen'> | null;
}

/** A code of the job, as it was last seen. */
export interface JobCode {
  key: string;
  /** The first entry that named it. */
  entry: EntryOf<'code'>;
  present: boolean;
}

/** What a job's log amounts to. Entries count in the order in which they reached the server, whatever a writer's clock said. */
export interface JobState extends WorksState {
  complaint: string | null;
  when: NonNullable<EntryOf<'complaint'>['body']['when']>;
  /** The weather it failed in; null where nobody said. */
  weather: Weather | null;
  codes: JobCode[];
  /** What is read again, where this is a look at a machine that nothing is said to be wrong with; null where it is a fault. */
  retest: readonly Test[] | null;
  /** Other functions of the machine that are asked about as well. */
  joined: string[];
  /** Version of the drawing it went over to; null while it stands on the one it was opened on. */
  redrawn: number | null;
  /** Readings that count in the diagnosis, oldest first: what proved a work is no evidence of the fault, what it did not mend is. */
  readings: PinnedReading[];
  /** Readings taken to prove the machine, oldest first; of a re-test also those before its own work. */
  after: PinnedReading[];
  /** Traces that stand, oldest first. */
  traces: EntryOf<'trace'>[];
  /** Every reading ever pinned, oldest first, with whether a later entry took its place. */
  history: { entry: EntryOf<'reading'>; superseded: boolean }[];
  noReach: string[];
  skipped: Test[];
  /** By name of the plan's point: the locks that are on it, one a person, the latest last. */
  locks: Map<string, EntryOf<'isolation'>[]>;
  /** The latest lock on each point that has one. */
  isolated: Map<string, EntryOf<'isolation'>>;
  /** Every closing, opening and signature, in order of arrival, also of what was opened or lifted since. */
  safetyTrail: EntryOf<'isolation' | 'reopened' | 'madeSafe'>[];
  /** The signature under the plan; gone when a point was opened for good since. */
  madeSafe: EntryOf<'madeSafe'> | null;
  /** It was signed at some time, whether or not points were opened since. */
  wasMadeSafe: boolean;
  photos: EntryOf<'photo'>[];
  /** Wires as they were found, and as they were left by the work that is the last: what comes off again is to be seen back again. */
  wires: { found: EntryOf<'wire'>[]; left: EntryOf<'wire'>[] };
  looked: Map<string, EntryOf<'looked'>>;
  /** All that was put in or found in, in order; see `ledgerStanding` for what is still in. */
  ledger: LedgerLine[];
  /** What was repaired or renewed, with how many of the readings that count were taken before it. */
  mended: Mended[];
  /** Null as well where it was overtaken. */
  handOver: EntryOf<'handOver'> | null;
  /** The last hand-over, where something arrived after it that whoever handed over would have had to know. */
  overtaken: { handOver: EntryOf<'handOver'>; by: Entry } | null;
}

/**
 * A log in order of arrival: each entry once, where it came first, with those that another one took back. A writer's clock
 * orders nothing: one that is an hour fast would let a lock count that another has taken off since.
 */
export function orderLog(entries: readonly Entry[]): { ordered: Entry[]; superseded: ReadonlySet<string> } {
  const unique = new Map<string, Entry>();
  for (const entry of entries) if (!unique.has(entry.id)) unique.set(entry.id, entry);
  const ordered = [...unique.values()];
  return {
    ordered,
    superseded: new Set(ordered.flatMap(({ supersedes }) => (supersedes ? [supersedes] : []))),
  };
}

/**
 * Reduces a log to the job's state: entries in the order of their arrival, those that still wait behind them. Repeated
 * entries count once; superseded ones do not count.
 */
export function reduceJob(entries: readonly Entry[]): JobState {
  const { ordered, superseded } = orderLog(entries);
  const standing = ordered.filter(({ id }) => !superseded.has(id));
  const all = <T extends Entry['type']>(type: T) =>
    standing.filter((entry): entry is EntryOf<T> => entry.type === type);
  const last = <T extends Entry['type']>(type: T) => all(type).at(-1) ?? null;
  const history = ordered.filter((entry) => entry.type === 'reading');
  const positions = new Map(ordered.map(({ id }, position) => [id, position]));
  const pinned = all('reading').map((entry) => ({
    entry,
    reading: entry.body.reading,
    position: positions.get(entry.id)!,
  }));
  const complaint = last('complaint');
  const wires = all('wire');
  const retest = last('retest')?.body.tests ?? null;
  const { state: works, places } = worksOf(standing, positions);
  // Of a re-test every reading up to its own work is evidence: nothing was said to be wrong, and nothing was repaired before it. What was
  // read to prove a work is none of the fault, unless it showed that the fault is still there.
  const readings = pinned.filter(({ entry, position }) => {
    const after = places.worksBefore(position);
    const isRetest = retest !== null && after === 0;
    return entry.body.phase === undefined || isRetest || places.failedWorks.has(after);
  });
  return {
    complaint: complaint?.body.words ?? null,
    when: complaint?.body.when ?? [],
    weather: complaint?.body.weather ?? null,
    codes: codesOf(all('code')),
    retest,
    joined: [...new Set(all('joined').map(({ body }) => body.function))],
    redrawn: last('redrawn')?.body.version ?? null,
    readings,
    after: pinned.filter(({ entry }) => entry.body.phase !== undefined),
    traces: all('trace'),
    history: history.map((entry) => ({ entry, superseded: superseded.has(entry.id) })),
    noReach: all('noReach').map(({ body }) => body.node),
    skipped: all('skippedTest').map(({ body }) => body.test),
    ...isolationOf(standing),
    wasMadeSafe: all('madeSafe').length > 0,
    safetyTrail: standing.filter(
      (entry) => entry.type === 'isolation' || entry.type === 'reopened' || entry.type === 'madeSafe',
    ),
    photos: all('photo'),
    wires: {
      found: wires.filter(({ body }) => body.phase === 'found'),
      left: wires.filter(({ id, body }) => body.phase === 'left' && positions.get(id)! > places.began),
    },
    looked: new Map(all('looked').map((entry) => [entry.body.check, entry])),
    ledger: ledgerOf(ordered, superseded, positions),
    ...works,
    mended: works.fixes.map(({ id, body }) => ({
      part: body.part,
      from: readings.filter(({ position }) => position < positions.get(id)!).length,
    })),
    ...handOverOf(standing),
  };
}

/** The last hand-over, as long as nothing overtakes it. */
function handOverOf(standing: readonly Entry[]): Pick<JobState, 'handOver' | 'overtaken'> {
  const at = standing.findLastIndex(({ type }) => type === 'handOver');
  const handOver = standing[at];
  if (handOver?.type !== 'handOver') return { handOver: null, overtaken: null };
  const by = standing.slice(at + 1).find(overtakes);
  return by ? { handOver: null, overtaken: { handOver, by } } : { handOver, overtaken: null };
}

function codesOf(entries: readonly EntryOf<'code'>[]): JobCode[] {
  const found = new Map<string, JobCode>();
  for (const entry of entries) {
    const key = codeKey(entry.body);
    const known = found.get(key);
    if (known) known.present = entry.body.present;
    else if (entry.body.present) found.set(key, { key, entry, present: true });
  }
  return [...found.values()];
}

/**
 * Locks that are on, each its owner's own, and the signature under them; opening any point lifts the signature. A point is
 * closed while one lock is left on it.
 */
function isolationOf(standing: readonly Entry[]): Pick<JobState, 'locks' | 'isolated' | 'madeSafe'> {
  const locks = new Map<string, EntryOf<'isolation'>[]>();
  let madeSafe: EntryOf<'madeSafe'> | null = null;
  for (const entry of standing) {
    if (entry.type === 'isolation') {
      const { point } = entry.body;
      const others = (locks.get(point) ?? []).filter(({ person }) => !samePerson(person, entry.person));
      // Closed anew, it is the last of the plan that was closed.
      locks.delete(point);
      locks.set(point, [...others, entry]);
    } else if (entry.type === 'madeSafe') madeSafe = entry;
    else if (entry.type === 'reopened') {
      const { point } = entry.body;
      const left = locksLeft(locks.get(point) ?? [], entry);
      if (left.length > 0) locks.set(point, left);
      else locks.delete(point);
      // For one powered test the plan stands; it says by itself that the point is open.
      if (!entry.body.setup && left.length === 0) madeSafe = null;
    }
  }
  const isolated = new Map([...locks].map(([point, on]) => [point, on.at(-1)!] as const));
  return { locks, isolated, madeSafe };
}

/** Locks that stay when one is taken off: everybody else's. */
function locksLeft(on: readonly EntryOf<'isolation'>[], { person, body }: EntryOf<'reopened'>) {
  const owner = body.owner ?? person;
  const left = on.filter((lock) => !samePerson(lock.person, owner));
  // Before locks had owners one stood on a point, and whoever opened it took it off.
  return on.length === 1 && body.owner === undefined ? [] : left;
}

/**
 * Lines by their item; one that is put in again is in again, whatever was said of it before. A reading puts in by itself what
 * its set-up needed, whoever wrote it and from whichever screen; taken back, what it needed may still be in.
 */
function ledgerOf(
  ordered: readonly Entry[],
  superseded: ReadonlySet<string>,
  positions: ReadonlyMap<string, number>,
): LedgerLine[] {
  const lines = new Map<string, LedgerLine>();
  for (const entry of ordered) {
    if (entry.type === 'reading') {
      const { type: _reading, supersedes: _corrected, ...written } = entry;
      for (const body of putInBy(entry.body.reading)) {
        const known = lines.get(body.item);
        if (!known || known.out)
          lines.set(body.item, { entry: { ...written, type: 'ledger', body }, out: null, seen: null });
      }
    }
    if (superseded.has(entry.id)) continue;
    if (entry.type === 'ledger') {
      // What was found in stays found, also when a test bridges the same place again.
      lines.set(entry.body.item, { entry, out: null, seen: null });
    } else if (entry.type === 'ledgerOut') {
      const line = lines.get(entry.body.item);
      if (line) line.out = { entry, position: positions.get(entry.id)! };
    } else if (entry.type === 'ledgerSeen') {
      const line = lines.get(entry.body.item);
      if (line?.out) line.seen = entry;
    }
  }
  return [...lines.values()];
}
