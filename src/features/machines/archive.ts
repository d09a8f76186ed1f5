import 'server-only';
import { InputError } from '@/core/circuit/inputError';
import { readBook } from '@/db/codeBook';
import { listDrawings } from '@/db/drawings';
import { findMachine } from '@/db/jobs';
import { addMachineWhole, drawnFunctions, NameTaken } from '@/db/library';
import { getPhoto } from '@/db/photos';
import { machineNames } from '@/core/library/names';
import { writeMachineArchive } from '@/formats/machineArchive';
import { readArchive } from '@/workers/archiveTask';
import { inThread } from '../gate/threads';
import { readPhoto } from '../photos/server';
import { log } from '../serverLog';

/** As large as an archive may come in. */
export const LARGEST_ARCHIVE = 100_000_000;

/** A machine as one archive file, or null when there is none. */
export async function packMachine(code: string): Promise<{ code: string; bytes: Uint8Array } | null> {
  const machine = await findMachine(code);
  if (!machine) return null;
  const [functions, book, drawings] = await Promise.all([
    drawnFunctions(machine.id),
    readBook(machine.id),
    listDrawings(machine.id),
  ]);
  const sheets = [];
  for (const { name, photo, pins } of drawings) {
    const picture = await getPhoto(photo);
    if (picture) sheets.push({ name, kind: picture.kind, bytes: new Uint8Array(picture.bytes), pins });
  }
  return {
    code: machine.code,
    bytes: writeMachineArchive({
      code: machine.code,
      name: machine.name,
      equipment: machine.equipment,
      serial: machine.serial,
      place: machine.place,
      hours: machine.hours,
      functions: functions.map(({ name, circuit }) => ({ name, circuit })),
      book,
      drawings: sheets,
    }),
  };
}

/** Adds the machine of an archive under its code, or under another. A bad archive adds nothing. */
export async function unpackMachine(
  data: Uint8Array<ArrayBuffer>,
  person: string,
  under?: string,
): Promise<{ code: string } | { trouble: string }> {
  try {
    const read = await inThread('archive', data, readArchive);
    if ('problem' in read) return { trouble: `${read.field}: ${read.problem.replace(/\.$/, '')}.` };
    const { archive } = read;
    const code = under?.trim()
      ? machineNames.shape.code.safeParse(under)
      : { success: true as const, data: archive.code };
    if (!code.success) return { trouble: `“${under}”: ${code.error.issues[0]!.message}` };
    const drawings = [];
    for (const { name, bytes, pins } of archive.drawings) {
      const photo = await readPhoto(bytes, 'drawing');
      if ('trouble' in photo) return { trouble: `${name}: ${photo.trouble}` };
      drawings.push({ name, pins, photo });
    }
    const note = `From an archive of ${archive.code}`;
    await addMachineWhole({
      code: code.data,
      name: archive.name,
      equipment: archive.equipment,
      // Under another code it is another machine like it: the same serial, place and hours are not its own.
      ...(code.data === archive.code
        ? { serial: archive.serial, place: archive.place, hours: archive.hours }
        : { serial: null, place: null, hours: null }),
      functions: archive.functions.map(({ name, circuit }) => ({ name, circuit, person, note })),
      book: archive.book,
      drawings,
    });
    log.info({ machine: code.data, functions: archive.functions.length }, 'machine taken in');
    return { code: code.data };
  } catch (error) {
    if (error instanceof InputError) return { trouble: `${error.message}.` };
    if (error instanceof NameTaken) return { trouble: `${error.message} Give it another code.` };
    throw error;
  }
}
