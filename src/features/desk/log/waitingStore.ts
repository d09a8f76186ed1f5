import type { DBSchema } from 'idb';
import type { Entry } from '@/core/job/entries';
import { browserDatabase } from '../../browserDatabase';
import type { SentEntry } from './protocol';

/** An entry that the server has not confirmed. */
export interface WaitingEntry {
  entry: Entry;
  /** Later ones are sent later. */
  order: number;
  /** Its picture, until the server has it; the entry's own hash is a stand-in until then. */
  picture?: Blob;
  /** Why the server did not take it. */
  refused?: { code: string; message: string };
}

/** What tabs of one browser tell one another about a job. */
export type Channel = { is: 'written' } | { is: 'confirmed'; entries: readonly SentEntry[] };

/** Where entries of one job are kept until the server has them. */
export interface WaitingStore {
  /** Oldest first; nothing where the browser cannot keep anything. */
  load(): Promise<WaitingEntry[]>;
  /** Rejects when the browser cannot keep it. */
  put(row: WaitingEntry): Promise<void>;
  remove(ids: readonly string[]): Promise<void>;
  tell(message: Channel): void;
  follow(listener: (message: Channel) => void): () => void;
}

interface Kept extends WaitingEntry {
  id: string;
  job: number;
}

interface Schema extends DBSchema {
  waiting: { key: string; value: Kept; indexes: { job: number } };
}

const NAME = 'spiraxis-log';

const database = browserDatabase<Schema>(NAME, (db) => {
  db.createObjectStore('waiting', { keyPath: 'id' }).createIndex('job', 'job');
});

/** Everything that waits in this browser, of every job; nothing where it keeps nothing. */
export async function waitingJobs(): Promise<readonly (WaitingEntry & { job: number })[]> {
  try {
    return await (await database()).getAll('waiting');
  } catch {
    // What this browser cannot keep lives on the page that wrote it, which says so.
    return [];
  }
}

/** Rows of one job in the browser's database, each entry a row of its own, and the line between its tabs. */
export function waitingStore(job: number): WaitingStore {
  let line: BroadcastChannel | null = null;
  return {
    async load() {
      try {
        const rows = await (await database()).getAllFromIndex('waiting', 'job', job);
        const old = fromLocalStorage(job);
        return [...rows, ...old].sort((a, b) => a.order - b.order);
      } catch {
        // A browser that keeps nothing has kept nothing: what is written now lives on the page, and it says so.
        return fromLocalStorage(job);
      }
    },
    async put(row) {
      const db = await database();
      await db.put('waiting', { ...row, id: row.entry.id, job });
    },
    async remove(ids) {
      forgetLocal(job, ids);
      try {
        const db = await database();
        const work = db.transaction('waiting', 'readwrite');
        await Promise.all([...ids.map((id) => work.store.delete(id)), work.done]);
      } catch {
        // A row that stays is confirmed again by the server the next time, and removed then.
      }
    },
    tell(message) {
      line?.postMessage(message);
    },
    follow(listener) {
      if (typeof BroadcastChannel === 'undefined') return () => undefined;
      const own = new BroadcastChannel(`${NAME}-${job}`);
      own.onmessage = ({ data }: MessageEvent<Channel>) => listener(data);
      line = own;
      return () => {
        own.close();
        if (line === own) line = null;
      };
    },
  };
}

/** Earlier versions kept what waited in local storage: it is sent like everything else, then taken away. */
const localKey = (job: number) => `spiraxis-waiting-${job}`;

function fromLocalStorage(job: number): WaitingEntry[] {
  return readLocal(job).map((entry, at) => ({ entry, order: at }));
}

function readLocal(job: number): Entry[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(localKey(job)) ?? '[]');
    // The server checks every entry when it arrives; here it need only be one of ours.
    return Array.isArray(kept) ? kept.filter(isEntry) : [];
  } catch {
    // Damaged storage holds nothing that could be sent.
    return [];
  }
}

function forgetLocal(job: number, ids: readonly string[]): void {
  const kept = readLocal(job);
  const left = kept.filter(({ id }) => !ids.includes(id));
  if (left.length === kept.length) return;
  if (left.length === 0) localStorage.removeItem(localKey(job));
  else localStorage.setItem(localKey(job), JSON.stringify(left));
}

function isEntry(value: unknown): value is Entry {
  return typeof value === 'object' && value !== null && 'id' in value && 'type' in value && 'body' in value;
}
