import { strFromU8, strToU8, zipSync, type Zippable } from 'fflate';
import { z } from 'zod';
import { InputError } from '@/core/circuit/inputError';
import { CircuitModel } from '@/core/circuit/model';
import { parseCircuit } from '@/core/circuit/parse';
import type { Circuit } from '@/core/circuit/schema';
import type { BookRow } from '@/core/codes/bookRow';
import { machineFacts } from '@/core/library/fleet';
import { equipmentName, functionName, machineNames, sheetName, sheetPin } from '@/core/library/names';
import { readCodeBook, writeCodeBook } from './codeTables';
import { unpackZip, type ZipLimits } from './unpackZip';

/** Everything the shop has written down about one machine. */
export interface MachineArchive {
  code: string;
  name: string;
  /** Class of equipment; null where nobody said. */
  equipment: string | null;
  /** Its serial, where it stands, its hours when somebody last looked; null where nobody said. */
  serial: string | null;
  place: string | null;
  hours: number | null;
  functions: { name: string; circuit: Circuit }[];
  book: BookRow[];
  drawings: {
    name: string;
    /** Picture's kind, such as "image/webp", and its bytes. */
    kind: string;
    bytes: Uint8Array;
    pins: { part: string; x: number; y: number }[];
  }[];
}

/** Functions, and sheets, that a machine has at most. */
const MOST_SHEETS = 500;
const manifestSchema = z.object({
  format: z.literal('spiraxis-machine'),
  version: z.literal(1),
  ...machineNames.shape,
  equipment: equipmentName.min(1).optional(),
  serial: machineFacts.shape.serial.min(1).optional(),
  place: machineFacts.shape.place.min(1).optional(),
  hours: machineFacts.shape.hours.unwrap().optional(),
  functions: z.array(z.object({ name: functionName, file: z.string() })).max(MOST_SHEETS),
  drawings: z
    .array(
      z.object({
        name: sheetName,
        file: z.string(),
        kind: z
          .string()
          .regex(/^image\/(webp|png|jpeg)$/, 'a picture is image/webp, image/png or image/jpeg'),
        pins: z.array(sheetPin).max(2000),
      }),
    )
    .max(MOST_SHEETS)
    .default([]),
});

/** As large as the parts of an archive are taken. */
export const ARCHIVE_LIMITS: ZipLimits = {
  entries: 2 * MOST_SHEETS + 10,
  each: 20_000_000,
  total: 200_000_000,
  ratio: 100,
};
/** The list of an archive is text of a few kilobytes. */
const LARGEST_LIST = 2_000_000;
/** Every archive of the same machine is the same file: a time would make a difference where there is none. */
const TIME = new Date('2020-01-01T00:00:00Z');

/** A machine as one ZIP file: a list, a circuit file a function, the code book as CSV, and the drawings' pictures. */
export function writeMachineArchive(machine: MachineArchive): Uint8Array {
  const files: Zippable = {};
  const functions = machine.functions.map(({ name, circuit }, at) => {
    const file = `circuits/${String(at + 1).padStart(2, '0')}-${slug(name)}.circuit.json`;
    files[file] = strToU8(`${JSON.stringify(circuit, null, 2)}\n`);
    return { name, file };
  });
  const drawings = machine.drawings.map(({ name, kind, bytes, pins }, at) => {
    const file = `drawings/${String(at + 1).padStart(2, '0')}-${slug(name)}.${kind.split('/')[1]}`;
    // Pictures are packed already.
    files[file] = [bytes, { level: 0 }];
    return { name, file, kind, pins };
  });
  if (machine.book.length > 0) files['codes.csv'] = strToU8(writeCodeBook(machine.book));
  const manifest = {
    format: 'spiraxis-machine',
    version: 1,
    code: machine.code,
    name: machine.name,
    ...(machine.equipment === null ? {} : { equipment: machine.equipment }),
    ...(machine.serial === null ? {} : { serial: machine.serial }),
    ...(machine.place === null ? {} : { place: machine.place }),
    ...(machine.hours === null ? {} : { hours: machine.hours }),
    functions,
    drawings,
  };
  files['machine.json'] = strToU8(`${JSON.stringify(manifest, null, 2)}\n`);
  return zipSync(files, { mtime: TIME });
}

/**
 * Reads an archive whole. Throws `InputError` naming the file in it, and the field; nothing is taken from a bad one.
 */
export async function readMachineArchive(
  bytes: Uint8Array,
  limits = ARCHIVE_LIMITS,
): Promise<MachineArchive> {
  const files = await unpackZip(bytes, limits);
  const text = (file: string) => {
    const found = files.get(file);
    if (!found) throw new InputError(file, 'is not in the archive');
    return strFromU8(found);
  };
  const json = (file: string): unknown => {
    try {
      return JSON.parse(text(file));
    } catch (error) {
      if (error instanceof SyntaxError) throw new InputError(file, `not JSON: ${error.message}`);
      throw error;
    }
  };
  if ((files.get('machine.json')?.byteLength ?? 0) > LARGEST_LIST)
    throw new InputError('machine.json', 'is over 2 MB; a list of functions and drawings is smaller');
  const parsed = manifestSchema.safeParse(json('machine.json'));
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    throw new InputError(`machine.json, ${issue.path.join('.')}`, issue.message);
  }
  const { code, name, equipment = null, functions, drawings } = parsed.data;
  const { serial = null, place = null, hours = null } = parsed.data;
  once(
    'file',
    [...functions, ...drawings].map(({ file }) => file),
  );
  once(
    'function',
    functions.map((one) => one.name),
  );
  const within = <T>(file: string, read: () => T): T => {
    try {
      return read();
    } catch (error) {
      // What is wrong with the file as a whole names it already.
      if (error instanceof InputError && error.field !== file)
        throw new InputError(`${file}, ${error.field}`, error.problem);
      throw error;
    }
  };
  return {
    code,
    name,
    equipment,
    serial,
    place,
    hours,
    functions: functions.map((one) => ({
      name: one.name,
      circuit: within(one.file, () => {
        const circuit = parseCircuit(json(one.file));
        // Read as a circuit of the right form it may still not hang together.
        new CircuitModel(circuit);
        return circuit;
      }),
    })),
    book: files.has('codes.csv') ? within('codes.csv', () => readCodeBook(text('codes.csv'))) : [],
    drawings: drawings.map(({ name: sheet, kind, file, pins }) => {
      const picture = files.get(file);
      if (!picture) throw new InputError(file, 'is not in the archive');
      return { name: sheet, kind, bytes: picture, pins };
    }),
  };
}

/** A name may stand once in a list. */
function once(what: string, names: readonly string[]): void {
  const seen = new Set<string>();
  for (const name of names) {
    if (seen.has(name))
      throw new InputError('machine.json', `names the ${what} “${name.slice(0, 60)}” twice`);
    seen.add(name);
  }
}

function slug(name: string): string {
  return (
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 60) || 'sheet'
  );
}
