import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate';
import { z } from 'zod';
import { InputError } from '@/core/circuit/inputError';
import { parseCircuit } from '@/core/circuit/parse';
import type { Circuit } from '@/core/circuit/schema';
import type { BookRow } from '@/core/codes/bookRow';
import { readCodeBook, writeCodeBook } from './codeTables';

/** Everything the shop has written down about one machine. */
export interface MachineArchive {
  code: string;
  name: string;
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

const share = z.number().min(0).max(1);
const manifestSchema = z.object({
  format: z.literal('spiraxis-machine'),
  version: z.literal(1),
  code: z.string().trim().min(1).max(20),
  name: z.string().trim().min(1).max(120),
  functions: z.array(z.object({ name: z.string().trim().min(1).max(160), file: z.string() })).max(500),
  drawings: z
    .array(
      z.object({
        name: z.string().trim().min(1).max(120),
        file: z.string(),
        kind: z
          .string()
          .regex(/^image\/(webp|png|jpeg)$/, 'a picture is image/webp, image/png or image/jpeg'),
        pins: z.array(z.object({ part: z.string().min(1).max(60), x: share, y: share })).max(2000),
      }),
    )
    .max(500)
    .default([]),
});

const MOST_BYTES = 200_000_000;
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
    functions,
    drawings,
  };
  files['machine.json'] = strToU8(`${JSON.stringify(manifest, null, 2)}\n`);
  return zipSync(files, { mtime: TIME });
}

/** Reads an archive whole. Throws `InputError` naming the file in it, and the field; nothing is taken from a bad one. */
export function readMachineArchive(bytes: Uint8Array): MachineArchive {
  let files: Record<string, Uint8Array>;
  let size = 0;
  try {
    files = unzipSync(bytes, {
      filter: ({ originalSize }) => (size += originalSize) <= MOST_BYTES,
    });
  } catch {
    throw new InputError(
      'archive',
      'this is no ZIP file; choose a machine archive, such as G-4.spiraxis.zip',
    );
  }
  if (size > MOST_BYTES)
    throw new InputError('archive', `unpacked it is over ${MOST_BYTES / 1e6} MB; take drawings out`);
  const text = (file: string) => {
    const found = files[file];
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
  const parsed = manifestSchema.safeParse(json('machine.json'));
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    throw new InputError(`machine.json, ${issue.path.join('.')}`, issue.message);
  }
  const { code, name, functions, drawings } = parsed.data;
  const within = <T>(file: string, read: () => T): T => {
    try {
      return read();
    } catch (error) {
      if (error instanceof InputError) throw new InputError(`${file}, ${error.field}`, error.problem);
      throw error;
    }
  };
  return {
    code,
    name,
    functions: functions.map((one) => ({
      name: one.name,
      circuit: within(one.file, () => parseCircuit(json(one.file))),
    })),
    book: files['codes.csv'] ? within('codes.csv', () => readCodeBook(text('codes.csv'))) : [],
    drawings: drawings.map(({ name: sheet, kind, file, pins }) => {
      const picture = files[file];
      if (!picture) throw new InputError(file, 'is not in the archive');
      return { name: sheet, kind, bytes: picture, pins };
    }),
  };
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
