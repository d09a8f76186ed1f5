import { LRUCache } from 'lru-cache';
import { NoSuchShed } from './databaseAway';
import { onServer, pool } from './pool';
import { inShed, isShedName, ofProcess } from './shed';

/** Throws when the database does not answer. */
export async function askDatabase(): Promise<void> {
  await onServer((db) => db.query('SELECT 1'));
}

/** A shed that was made a moment ago is found, and a name that somebody guesses is not asked for each time. */
const KNOWN_MS = 60_000;
const UNKNOWN_MS = 5_000;
const MOST_NAMES = 20_000;

const names = ofProcess('names of sheds', () => new LRUCache<string, boolean>({ max: MOST_NAMES }));

/** Whether there is a shed of this name. Rejects where the database does not answer. */
export async function shedIsThere(shed: string): Promise<boolean> {
  if (!isShedName(shed)) return false;
  const known = names.get(shed);
  if (known !== undefined) return known;
  const there = await inShed(shed, () => pool().query('SELECT 1')).then(
    () => true,
    (error: unknown) => {
      if (error instanceof NoSuchShed) return false;
      throw error;
    },
  );
  names.set(shed, there, { ttl: there ? KNOWN_MS : UNKNOWN_MS });
  return there;
}
