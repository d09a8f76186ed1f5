import type { RowDataPacket } from 'mysql2/promise';
import type { Circuit } from '@/core/circuit/schema';
import { BY_CODE } from './byCode';
import { circuitColumn } from './circuitColumn';
import { pool } from './pool';

/** A class of equipment: machines with functions of the same names, drawn alike or not. */

/** One way in which a function of some name is drawn in a class. */
export interface ClassDrawing {
  name: string;
  /** Tells this drawing from others, to the letter. */
  drawn: string;
  /** So many machines of the class have it so. */
  machines: number;
  /** The first of them by code. */
  machine: string;
  /** The machine that was asked for has it so. */
  own: boolean;
}

/** More ways of drawing than a class can sensibly have. */
const MOST_WAYS = 500;

/** The ways in which functions are drawn in a class, by name, the usual one first; of these names where any are given. */
export async function classDrawings(
  equipment: string,
  { machineId = '', names }: { machineId?: string; names?: readonly string[] } = {},
): Promise<ClassDrawing[]> {
  if (names?.length === 0) return [];
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT f.name, HEX(f.drawn) AS drawn, COUNT(*) AS machines, MIN(m.code) AS machine, MAX(m.id = ?) AS own
     FROM machines m JOIN functions f ON f.machine_id = m.id
     WHERE m.equipment = ? ${names ? 'AND f.name IN (?)' : ''}
     GROUP BY f.name, f.drawn ORDER BY f.name, machines DESC, machine LIMIT ?`,
    [machineId, equipment, ...(names ? [names] : []), MOST_WAYS],
  );
  return rows.map((row) => ({
    name: String(row.name),
    drawn: String(row.drawn),
    machines: Number(row.machines),
    machine: String(row.machine),
    own: Number(row.own) === 1,
  }));
}

/** A function's circuit by its machine's code and its own name. */
export async function circuitOn(machine: string, name: string): Promise<Circuit | null> {
  const [rows] = await pool().query<RowDataPacket[]>(
    'SELECT f.circuit FROM functions f JOIN machines m ON m.id = f.machine_id WHERE m.code = ? AND f.name = ?',
    [machine, name],
  );
  return rows[0] ? circuitColumn.parse(rows[0].circuit) : null;
}

/** Machines of a class on which a function is drawn in one way, the first few by code. */
export async function machinesDrawn(
  equipment: string,
  name: string,
  drawn: string,
  most: number,
): Promise<string[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    `SELECT m.code FROM machines m JOIN functions f ON f.machine_id = m.id
     WHERE m.equipment = ? AND f.name = ? AND f.drawn = UNHEX(?) ORDER BY ${BY_CODE} LIMIT ?`,
    [equipment, name, drawn, most],
  );
  return rows.map((row) => String(row.code));
}

const MOST_CLASSES = 500;

/** Classes of equipment that the shed's machines have, with how many have it, by name. */
export async function listClasses(): Promise<{ name: string; machines: number }[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    'SELECT equipment, COUNT(*) AS machines FROM machines WHERE equipment IS NOT NULL GROUP BY equipment ORDER BY equipment LIMIT ?',
    [MOST_CLASSES],
  );
  return rows.map((row) => ({ name: String(row.equipment), machines: Number(row.machines) }));
}
