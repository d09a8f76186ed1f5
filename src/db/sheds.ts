import type { RowDataPacket } from 'mysql2/promise';
import { codeOf } from './databaseAway';
import { migrate } from './migrate';
import { onServer, serverSchema } from './pool';
import { inShed, isShedName, schemaOf } from './shed';

/** The sheds of this server, by name. For their keeper: the application's own user does not see them all. */
export async function listSheds(): Promise<string[]> {
  const before = schemaOf(serverSchema(), '-').slice(0, -1);
  const [rows] = await onServer((db) =>
    db.query<RowDataPacket[]>('SELECT schema_name AS name FROM information_schema.schemata ORDER BY 1'),
  );
  return rows
    .map(({ name }) => String(name))
    .filter((name) => name.startsWith(before))
    .map((name) => name.slice(before.length))
    .filter(isShedName);
}

/** Makes a shed with nothing in it; false where there is one of that name. */
export async function addShed(name: string): Promise<boolean> {
  if (!isShedName(name))
    throw new Error(`"${name}" is no name of a shed: letters a to z, digits and hyphens, as in a host name`);
  try {
    await onServer((db) =>
      db.query(
        `CREATE DATABASE \`${schemaOf(serverSchema(), name)}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`,
      ),
    );
  } catch (error) {
    if (codeOf(error) === 'ER_DB_CREATE_EXISTS') return false;
    throw error;
  }
  await bringUp(name);
  return true;
}

/** Brings the schema of a shed up to date. */
export async function bringUp(name: string): Promise<string[]> {
  return inShed(name, () => migrate());
}
