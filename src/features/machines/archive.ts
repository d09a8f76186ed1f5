import 'server-only';
import { InputError } from '@/core/circuit/inputError';
import { CircuitModel } from '@/core/circuit/model';
import { readBook } from '@/db/codeBook';
import { listDrawings } from '@/db/drawings';
import { findMachine } from '@/db/jobs';
import { addMachineWhole, drawnFunctions, NameTaken } from '@/db/library';
import { getPhoto } from '@/db/photos';
import { readMachineArchive, writeMachineArchive } from '@/formats/machineArchive';
import { keepPhoto } from '../photos/server';
import { log } from '../serverLog';

const MOST_BYTES = 100_000_000;

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
      functions: functions.map(({ name, circuit }) => ({ name, circuit })),
      book,
      drawings: sheets,
    }),
  };
}

/** Adds the machine of an archive under its code, or under another. A bad archive adds nothing. */
export async function unpackMachine(
  data: ArrayBuffer,
  person: string,
  under?: string,
): Promise<{ code: string } | { trouble: string }> {
  if (data.byteLength > MOST_BYTES) return { trouble: `The archive has over ${MOST_BYTES / 1e6} MB.` };
  try {
    const archive = readMachineArchive(new Uint8Array(data));
    const code = under?.trim() || archive.code;
    if (code.length > 20) return { trouble: `“${code}” is over 20 characters; give a shorter code.` };
    for (const { name, circuit } of archive.functions) {
      try {
        new CircuitModel(circuit);
      } catch (error) {
        if (error instanceof InputError) throw new InputError(`${name}, ${error.field}`, error.problem);
        throw error;
      }
    }
    // Pictures are kept by their content: those of an archive that is then refused belong to nobody, and cost their place.
    const pictures: string[] = [];
    for (const { name, bytes } of archive.drawings) {
      const copy = new Uint8Array(bytes);
      const kept = await keepPhoto(copy.buffer, 'drawing');
      if ('trouble' in kept) return { trouble: `${name}: ${kept.trouble}` };
      pictures.push(kept.hash);
    }
    const note = `From an archive of ${archive.code}`;
    await addMachineWhole({
      code,
      name: archive.name,
      functions: archive.functions.map(({ name, circuit }) => ({ name, circuit, person, note })),
      book: archive.book,
      drawings: archive.drawings.map(({ name, pins }, at) => ({ name, pins, photo: pictures[at]! })),
    });
    log.info({ machine: code, functions: archive.functions.length }, 'machine taken in');
    return { code };
  } catch (error) {
    if (error instanceof InputError) return { trouble: `${error.message}.` };
    if (error instanceof NameTaken) return { trouble: `${error.message} Give it another code.` };
    throw error;
  }
}
