import type { DBSchema } from 'idb';
import { browserDatabase } from '../browserDatabase';
import type { BegunJob } from './begunFacts';

interface Schema extends DBSchema {
  jobs: { key: number; value: BegunJob; indexes: { id: string } };
}

const database = browserDatabase<Schema>('spiraxis-begun', (db) => {
  db.createObjectStore('jobs', { keyPath: 'local', autoIncrement: true }).createIndex('id', 'id', {
    unique: true,
  });
});

/** Keeps a job that was opened without the server; the same one twice is one. Rejects where the browser keeps nothing. */
export async function keepBegun(job: Omit<BegunJob, 'local' | 'number'>): Promise<number> {
  const work = (await database()).transaction('jobs', 'readwrite');
  const known = await work.store.index('id').get(job.id);
  const local = known?.local ?? (await work.store.add({ ...job, number: null } as BegunJob));
  await work.done;
  return local;
}

/** Null where there is none of that number here, or this browser keeps nothing. */
export async function findBegun(local: number): Promise<BegunJob | null> {
  try {
    return (await (await database()).get('jobs', local)) ?? null;
  } catch {
    return null;
  }
}

/** Jobs begun here that the server does not have yet; nothing where this browser keeps nothing. */
export async function listBegun(): Promise<BegunJob[]> {
  try {
    return (await (await database()).getAll('jobs')).filter(({ number }) => number === null);
  } catch {
    return [];
  }
}

/** Writes down which number the server gave it. */
export async function numberBegun(local: number, number: number): Promise<void> {
  const work = (await database()).transaction('jobs', 'readwrite');
  const job = await work.store.get(local);
  if (job) await work.store.put({ ...job, number });
  await work.done;
}
