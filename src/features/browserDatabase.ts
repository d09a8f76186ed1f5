import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** A database of the browser's, opened when it is first asked for, and anew where the browser shut it or it could not be opened. */
export function browserDatabase<S extends DBSchema>(
  name: string,
  upgrade: (db: IDBPDatabase<S>) => void,
): () => Promise<IDBPDatabase<S>> {
  let opened: Promise<IDBPDatabase<S>> | null = null;
  const forget = () => {
    opened = null;
  };
  return () =>
    (opened ??= openDB<S>(name, 1, { upgrade, terminated: forget }).catch((error: unknown) => {
      forget();
      throw error;
    }));
}
