import 'server-only';
import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import type { PinnedSheet } from '@/core/path/probePlaces';
import { sheetName, sheetPin } from '@/core/library/names';
import { addDrawing, dropDrawing, dropPin, listDrawings, putPin } from '@/db/drawings';
import { findMachine, functionsOf } from '@/db/jobs';
import { getPhoto } from '@/db/photos';

/** Letters of a pin's name, with what marks it for a point. */
const MOST_PIN = 60;

export interface DrawingAnswer {
  trouble: string | null;
  id?: string;
}

/** A machine's sheets, and every part that a pin can stand for. */
export async function openDrawings(code: string) {
  const machine = await findMachine(code);
  if (!machine) return null;
  const [drawings, functions] = await Promise.all([listDrawings(machine.id), functionsOf(machine.id)]);
  const parts = new Map(
    functions.flatMap(({ circuit }) => circuit.parts.map(({ ref, label = '' }) => [ref, label] as const)),
  );
  return {
    machine,
    drawings,
    parts: [...parts]
      .map(([ref, label]) => ({ ref, label }))
      .sort((a, b) => a.ref.localeCompare(b.ref, 'en', { numeric: true })),
    // A pin has to fit its column; what is longer goes by its part.
    points: [
      ...new Set(
        functions.flatMap(({ circuit }) => circuit.parts.flatMap(({ nodes }) => Object.values(nodes))),
      ),
    ]
      .filter((node) => node.length < MOST_PIN)
      .sort((a, b) => a.localeCompare(b, 'en', { numeric: true })),
  };
}
export type OpenDrawings = NonNullable<Awaited<ReturnType<typeof openDrawings>>>;

/** Pictures of a machine that have pins on them; none of a machine that is not there. */
export async function pinnedSheets(code: string): Promise<{ sheets: PinnedSheet[] }> {
  const machine = await findMachine(code);
  const sheets = machine ? await listDrawings(machine.id) : [];
  return { sheets: sheets.filter(({ pins }) => pins.length > 0) };
}

async function onMachine(
  code: string,
  work: (machineId: string) => Promise<DrawingAnswer>,
): Promise<DrawingAnswer> {
  const machine = await findMachine(code);
  if (!machine) return { trouble: `There is no machine ${code}.` };
  const answer = await work(machine.id);
  revalidatePath(`/machines/${code}/drawings`);
  return answer;
}

/** Adds a sheet whose picture was kept before. */
export async function addSheet(code: string, name: string, photo: string): Promise<DrawingAnswer> {
  const parsed = sheetName.safeParse(name);
  if (!parsed.success) return { trouble: parsed.error.issues[0]!.message };
  if (!/^[0-9a-f]{64}$/.test(photo) || !(await getPhoto(photo)))
    return { trouble: 'The picture was not kept. Choose it again.' };
  return onMachine(code, async (machineId) => ({
    trouble: null,
    id: await addDrawing(machineId, parsed.data, photo),
  }));
}

export async function dropSheet(code: string, id: string): Promise<DrawingAnswer> {
  return onMachine(code, async (machineId) => {
    await dropDrawing(machineId, z.uuid().parse(id));
    return { trouble: null };
  });
}

export async function pinPart(
  code: string,
  id: string,
  pin: z.input<typeof sheetPin>,
): Promise<DrawingAnswer> {
  const parsed = sheetPin.safeParse(pin);
  if (!parsed.success) return { trouble: 'A pin needs a part and a place on the sheet.' };
  return onMachine(code, async (machineId) => {
    await putPin(machineId, z.uuid().parse(id), parsed.data);
    return { trouble: null };
  });
}

export async function unpinPart(code: string, id: string, part: string): Promise<DrawingAnswer> {
  return onMachine(code, async (machineId) => {
    await dropPin(machineId, z.uuid().parse(id), z.string().max(60).parse(part));
    return { trouble: null };
  });
}
