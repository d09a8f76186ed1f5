import type { RowDataPacket } from 'mysql2/promise';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { pool, type Statements } from './pool';

const MOST_SHEETS = 500;

const drawingRow = z.object({ id: z.string(), name: z.string(), photo: z.string() });
const pinRow = z.object({
  drawing_id: z.string(),
  part: z.string(),
  x: z.coerce.number(),
  y: z.coerce.number(),
});

/** A sheet with the pins on it, places as shares of its width and height. */
export interface Drawing {
  id: string;
  name: string;
  photo: string;
  pins: { part: string; x: number; y: number }[];
}

export async function listDrawings(machineId: string): Promise<Drawing[]> {
  const [rows] = await pool().query<RowDataPacket[]>(
    'SELECT id, name, photo FROM drawings WHERE machine_id = ? ORDER BY name, id LIMIT ?',
    [machineId, MOST_SHEETS],
  );
  const drawings = rows.map((row) => drawingRow.parse(row));
  if (drawings.length === 0) return [];
  const [pins] = await pool().query<RowDataPacket[]>(
    'SELECT drawing_id, part, x, y FROM drawing_pins WHERE drawing_id IN (?) ORDER BY part',
    [drawings.map(({ id }) => id)],
  );
  const known = pins.map((row) => pinRow.parse(row));
  return drawings.map((drawing) => ({
    ...drawing,
    pins: known.filter((pin) => pin.drawing_id === drawing.id).map(({ part, x, y }) => ({ part, x, y })),
  }));
}

/** Something that runs a statement: the pool, or the connection of a transaction. */
type Runner = Pick<Statements, 'execute'>;

export async function addDrawing(machineId: string, name: string, photo: string): Promise<string> {
  return addDrawingIn(pool(), machineId, name, photo);
}

/** The same within somebody else's transaction. */
export async function addDrawingIn(
  db: Runner,
  machineId: string,
  name: string,
  photo: string,
): Promise<string> {
  const id = uuidv7();
  await db.execute('INSERT INTO drawings (id, machine_id, name, photo, kept_at) VALUES (?, ?, ?, ?, ?)', [
    id,
    machineId,
    name,
    photo,
    new Date(),
  ]);
  return id;
}

export async function dropDrawing(machineId: string, id: string): Promise<void> {
  await pool().execute('DELETE FROM drawings WHERE id = ? AND machine_id = ?', [id, machineId]);
}

/** Puts a part's pin on a sheet, or moves it; only on a sheet of this machine. */
export async function putPin(
  machineId: string,
  drawingId: string,
  pin: { part: string; x: number; y: number },
): Promise<void> {
  await putPinIn(pool(), machineId, drawingId, pin);
}

/** The same within somebody else's transaction. */
export async function putPinIn(
  db: Runner,
  machineId: string,
  drawingId: string,
  pin: { part: string; x: number; y: number },
): Promise<void> {
  await db.execute(
    `INSERT INTO drawing_pins (id, drawing_id, part, x, y)
     SELECT ?, d.id, ?, ?, ? FROM drawings d WHERE d.id = ? AND d.machine_id = ?
     ON DUPLICATE KEY UPDATE x = VALUES(x), y = VALUES(y)`,
    [uuidv7(), pin.part, pin.x, pin.y, drawingId, machineId],
  );
}

export async function dropPin(machineId: string, drawingId: string, part: string): Promise<void> {
  await pool().execute(
    `DELETE p FROM drawing_pins p JOIN drawings d ON d.id = p.drawing_id
     WHERE d.id = ? AND d.machine_id = ? AND p.part = ?`,
    [drawingId, machineId, part],
  );
}
