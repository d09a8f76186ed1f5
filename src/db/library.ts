import type { MachineFacts } from '@/core/library/fleet';
import type { RowDataPacket } from 'mysql2/promise';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import type { Circuit } from '@/core/circuit/schema';
import type { BookRow } from '@/core/codes/bookRow';
import { mergeBookIn } from './codeBook';
import { addDrawingIn, putPinIn } from './drawings';
import { BY_CODE } from './byCode';
import { isId } from './ids';
import { putPhotoIn, type PhotoRow } from './photos';
import { pool, withTransaction, type Statements } from './pool';
import { circuitColumn } from './circuitColumn';

/** Machines, their functions, and every version of each function's circuit. */

const versionRow = z.object({
  version: z.coerce.number(),
  person: z.string(),
  note: z.string(),
  kept_at: z.date(),
});
export type VersionRow = z.infer<typeof versionRow>;

const drawnFunctionRow = z.object({
  id: z.string(),
  name: z.string(),
  version: z.coerce.number(),
  machine_id: z.string(),
  machine_code: z.string(),
  machine_name: z.string(),
  equipment: z.string().nullable(),
  machine_hours: z.coerce.number().nullable(),
  circuit: circuitColumn,
});
export type DrawnFunctionRow = z.infer<typeof drawnFunctionRow>;
const DRAWN = `SELECT f.id, f.name, f.version, f.circuit, f.machine_id, m.code AS machine_code, m.name AS machine_name, m.equipment,
    m.hours AS machine_hours
  FROM functions f JOIN machines m ON m.id = f.machine_id`;

/** A version that somebody else kept meanwhile. */
export class VersionConflict extends Error {
  readonly code = 'version-conflict';
  constructor(
    readonly functionName: string,
    readonly version: number,
  ) {
    super(`"${functionName}" has version ${version} by now; open that one, and bring your change over`);
  }
}

/** A name that is taken on the machine, or a machine's code that is. */
export class NameTaken extends Error {
  readonly code = 'name-taken';
}

export async function findFunction(id: string): Promise<DrawnFunctionRow | null> {
  if (!isId(id)) return null;
  const [rows] = await pool().query<RowDataPacket[]>(`${DRAWN} WHERE f.id = ?`, [id]);
  return rows[0] ? drawnFunctionRow.parse(rows[0]) : null;
}

/** Functions of a machine with their circuits, by name. */
export async function drawnFunctions(machineId: string): Promise<DrawnFunctionRow[]> {
  const [rows] = await pool().query<RowDataPacket[]>(`${DRAWN} WHERE m.id = ? ORDER BY f.name`, [machineId]);
  return rows.map((row) => drawnFunctionRow.parse(row));
}

/** Versions of a function, the newest first. */
export async function listVersions(functionId: string): Promise<VersionRow[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    'SELECT version, person, note, kept_at FROM function_versions WHERE function_id = ? ORDER BY version DESC LIMIT 200',
    [functionId],
  );
  return rows.map((row) => versionRow.parse(row));
}

export async function readVersion(functionId: string, version: number): Promise<Circuit | null> {
  const [rows] = await pool().query<RowDataPacket[]>(
    'SELECT circuit FROM function_versions WHERE function_id = ? AND version = ?',
    [functionId, version],
  );
  return rows[0] ? circuitColumn.parse(rows[0].circuit) : null;
}

const INSERT_MACHINE = 'INSERT INTO machines (id, code, name, equipment) VALUES (?, ?, ?, ?)';

export async function addMachine(machine: {
  id?: string;
  code: string;
  name: string;
  equipment?: string | null;
}): Promise<string> {
  const id = machine.id ?? uuidv7();
  await taken(machine.code, () =>
    pool().execute(INSERT_MACHINE, [id, machine.code, machine.name, machine.equipment ?? null]),
  );
  return id;
}

/** Writes what a machine is; what is empty is not known. */
export async function putMachineFacts(
  id: string,
  { name, equipment, serial, place, hours }: MachineFacts,
): Promise<void> {
  await pool().execute(
    'UPDATE machines SET name = ?, equipment = ?, serial = ?, place = ?, hours = ? WHERE id = ?',
    [name, equipment || null, serial || null, place || null, hours, id],
  );
}

const fleetRow = z.object({
  code: z.string(),
  name: z.string(),
  equipment: z.string().nullable(),
  serial: z.string().nullable(),
  place: z.string().nullable(),
  hours: z.coerce.number().nullable(),
});

/** Every machine with what it is, by code. */
export async function listFleet(limit: number): Promise<z.infer<typeof fleetRow>[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT code, name, equipment, serial, place, hours FROM machines m ORDER BY ${BY_CODE} LIMIT ?`,
    [limit],
  );
  return rows.map((row) => fleetRow.parse(row));
}

const MOST_ALIKE = 500;

/** A function of another machine of the class that has the same name and is drawn the same, to the letter. */
export interface AlikeFunction {
  id: string;
  version: number;
  machineId: string;
  machine: string;
}

/** Where else in its machine's class a function is drawn as it is here, by machine. */
export async function drawnAlike(functionId: string): Promise<AlikeFunction[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT o.id, o.version, m.id AS machine_id, m.code FROM functions f
     JOIN machines own ON own.id = f.machine_id
     JOIN machines m ON m.equipment = own.equipment AND m.id <> own.id
     JOIN functions o ON o.machine_id = m.id AND o.name = f.name AND o.drawn = f.drawn
     WHERE f.id = ? ORDER BY ${BY_CODE} LIMIT ?`,
    [functionId, MOST_ALIKE],
  );
  return rows.map((row) => ({
    id: String(row.id),
    version: Number(row.version),
    machineId: String(row.machine_id),
    machine: String(row.code),
  }));
}

/** Functions of these names on these machines. */
export async function functionsNamed(
  machineIds: readonly string[],
  names: readonly string[],
): Promise<DrawnFunctionRow[]> {
  if (machineIds.length === 0 || names.length === 0) return [];
  const [rows] = await pool().query<RowDataPacket[]>(
    `${DRAWN} WHERE m.id IN (?) AND f.name IN (?) ORDER BY f.id`,
    [machineIds, names],
  );
  return rows.map((row) => drawnFunctionRow.parse(row));
}

export interface NewFunction {
  id?: string;
  machineId: string;
  name: string;
  circuit: Circuit;
  person: string;
  note: string;
}

/** Adds a function with the first version of its circuit. */
export async function addFunction(fresh: NewFunction): Promise<string> {
  return withTransaction((db) => insertFunction(db, fresh));
}

/** All that stands on a machine, to be added in one. */
export interface WholeMachine {
  code: string;
  name: string;
  equipment: string | null;
  serial: string | null;
  place: string | null;
  hours: number | null;
  functions: readonly Omit<NewFunction, 'machineId'>[];
  book: readonly BookRow[];
  /** Sheets, each with its picture; of one that is kept already the hash. */
  drawings: readonly {
    name: string;
    photo: PhotoRow | string;
    pins: readonly { part: string; x: number; y: number }[];
  }[];
}

/** Adds a machine with its functions, code book and drawings, or nothing. */
export async function addMachineWhole(machine: WholeMachine): Promise<string> {
  const { functions, book, drawings } = machine;
  return withTransaction(async (db) => {
    const machineId = uuidv7();
    await taken(machine.code, () =>
      db.execute(INSERT_MACHINE, [machineId, machine.code, machine.name, machine.equipment]),
    );
    await db.execute('UPDATE machines SET serial = ?, place = ?, hours = ? WHERE id = ?', [
      machine.serial,
      machine.place,
      machine.hours,
      machineId,
    ]);
    for (const one of functions) await insertFunction(db, { ...one, machineId });
    await mergeBookIn(db, machineId, book);
    for (const { name, photo, pins } of drawings) {
      if (typeof photo !== 'string') await putPhotoIn(db, photo);
      const hash = typeof photo === 'string' ? photo : photo.hash;
      const drawing = await addDrawingIn(db, machineId, name, hash);
      for (const pin of pins) await putPinIn(db, machineId, drawing, pin);
    }
    return machineId;
  });
}

async function insertFunction(db: Statements, fresh: NewFunction): Promise<string> {
  const id = fresh.id ?? uuidv7();
  const circuit = JSON.stringify(fresh.circuit);
  await db.query('SELECT id FROM machines WHERE id = ? FOR UPDATE', [fresh.machineId]);
  const [same] = await db.query<RowDataPacket[]>(
    'SELECT id FROM functions WHERE machine_id = ? AND name = ?',
    [fresh.machineId, fresh.name],
  );
  if (same.length > 0) throw new NameTaken(`This machine has a function "${fresh.name}" already.`);
  await db.execute('INSERT INTO functions (id, machine_id, name, circuit, version) VALUES (?, ?, ?, ?, 1)', [
    id,
    fresh.machineId,
    fresh.name,
    circuit,
  ]);
  await insertVersion(db, id, 1, circuit, fresh.person, fresh.note);
  return id;
}

export interface NewVersion {
  functionId: string;
  /** Version that was on the desk when the change began. */
  basedOn: number;
  circuit: Circuit;
  /** New name, where it changed. */
  name?: string;
}

/** Keeps new versions of one or several functions, all or none. Throws {@link VersionConflict} when one was overtaken. */
export async function keepVersions(
  versions: readonly NewVersion[],
  person: string,
  note: string,
): Promise<number[]> {
  return withTransaction(async (db) => {
    const kept: number[] = [];
    // Always locked in the same order: two people who share parts do not wait for each other.
    for (const { functionId, basedOn, circuit, name } of versions.toSorted((a, b) =>
      a.functionId < b.functionId ? -1 : 1,
    )) {
      const [rows] = await db.query<RowDataPacket[]>(
        'SELECT name, version FROM functions WHERE id = ? FOR UPDATE',
        [functionId],
      );
      const now = rows[0] ? Number(rows[0].version) : null;
      if (now !== basedOn) throw new VersionConflict(String(rows[0]?.name ?? 'This function'), now ?? 0);
      const text = JSON.stringify(circuit);
      await db.execute(
        'UPDATE functions SET circuit = ?, version = ?, name = COALESCE(?, name) WHERE id = ?',
        [text, basedOn + 1, name ?? null, functionId],
      );
      await insertVersion(db, functionId, basedOn + 1, text, person, note);
      kept.push(basedOn + 1);
    }
    return kept;
  });
}

/** Takes a function out of the library; refused while a job stands on it. */
export async function dropFunction(id: string): Promise<boolean> {
  return withTransaction(async (db) => {
    const [jobs] = await db.query<RowDataPacket[]>('SELECT id FROM jobs WHERE function_id = ? LIMIT 1', [id]);
    if (jobs.length > 0) return false;
    await db.execute('DELETE FROM functions WHERE id = ?', [id]);
    return true;
  });
}

async function insertVersion(
  db: Statements,
  functionId: string,
  version: number,
  circuit: string,
  person: string,
  note: string,
): Promise<void> {
  await db.execute(
    'INSERT INTO function_versions (function_id, version, circuit, person, note, kept_at) VALUES (?, ?, ?, ?, ?, ?)',
    [functionId, version, circuit, person, note, new Date()],
  );
}

/** Says of a machine's code that is in use what it is. */
async function taken<T>(machineCode: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === 'ER_DUP_ENTRY')
      throw new NameTaken(`Machine “${machineCode}” is in the shed already.`);
    throw error;
  }
}
