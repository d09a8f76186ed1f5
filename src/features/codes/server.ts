import 'server-only';
import { z } from 'zod';
import { InputError } from '@/core/circuit/inputError';
import { bookRowSchema, type BookRow } from '@/core/codes/bookRow';
import { codeCandidates } from '@/core/diagnosis/codeCandidates';
import { jobsWithCodes, mergeBook, putBookRow, readBook, removeBookRow } from '@/db/codeBook';
import { findMachine, functionsOf } from '@/db/jobs';
import { readCodeBook } from '@/formats/codeTables';
import { revalidatePath } from 'next/cache';
import { Refused } from '../gate/failure';
import { candidateQuestion } from './question';
import { log } from '../serverLog';

const MOST_PAST = 40;
/** A code book's table, bytes. */
export const LARGEST_TABLE = 2_000_000;

/** A job that had the same code, and what it turned out to be. */
export interface PastCode {
  key: string;
  number: number;
  title: string;
  machine: string;
  openedAt: string;
  found: string | null;
}

const decisionSchema = z.object({ part: z.string(), fault: z.string() });

export async function pastJobsWith(machineId: string, keys: string[], except: number): Promise<PastCode[]> {
  const asked = z.array(z.string().max(40)).max(200).parse(keys);
  const rows = await jobsWithCodes(asked, z.uuid().parse(machineId), MOST_PAST);
  return rows
    .filter(({ number }) => number !== except)
    .map(({ code_key, number, title, machine_code, opened_at, decision }) => {
      const decided = decisionSchema.safeParse(decision);
      return {
        key: code_key,
        number,
        title,
        machine: machine_code,
        openedAt: opened_at.toISOString(),
        found: decided.success ? `${decided.data.part} ${decided.data.fault}`.trim() : null,
      };
    });
}

/** A function a code may be about. */
export interface FunctionCandidate {
  function: string;
  part: string;
  label: string;
  share: number;
  lead: string | null;
}

/** Functions of a machine that a failure mode may be about, likeliest first; those that the book names, if any. */
export async function functionsBehind(
  question: z.input<typeof candidateQuestion>,
): Promise<FunctionCandidate[]> {
  const { machineId, mode, links } = candidateQuestion.parse(question);
  const named = links.filter(({ function: name }) => name !== '');
  const functions = (await functionsOf(machineId)).flatMap(({ name, circuit }) => {
    if (named.length === 0) return [{ name, circuit, part: undefined }];
    return named
      .filter((one) => one.function === name)
      .map(({ part }) => ({ name, circuit, part: part || undefined }));
  });
  return codeCandidates(functions, mode).map(({ of, driver, share, lead }) => ({
    function: of.name,
    part: driver.part,
    label: driver.label,
    share,
    lead: lead ? `${lead.part} ${lead.fault}` : null,
  }));
}

export interface BookAnswer {
  trouble: string | null;
  added?: number;
}

export async function saveBookRow(machineCode: string, row: unknown, replaces?: string): Promise<BookAnswer> {
  const machine = await findMachine(machineCode);
  if (!machine) return { trouble: `There is no machine ${machineCode}.` };
  const parsed = bookRowSchema.safeParse(row);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    return { trouble: `${String(issue.path[0])}: ${issue.message}` };
  }
  await putBookRow(machine.id, parsed.data, replaces);
  revalidatePath(`/machines/${machineCode}/codes`);
  return { trouble: null, added: 1 };
}

export async function dropBookRow(machineCode: string, id: string): Promise<BookAnswer> {
  const machine = await findMachine(machineCode);
  if (!machine) return { trouble: `There is no machine ${machineCode}.` };
  await removeBookRow(machine.id, z.uuid().parse(id));
  revalidatePath(`/machines/${machineCode}/codes`);
  return { trouble: null };
}

/** Takes in a code book from a CSV table, and gives its lines; null where there is no such machine. A bad line changes nothing. */
export async function importBook(machineCode: string, text: string): Promise<number | null> {
  const machine = await findMachine(machineCode);
  if (!machine) return null;
  const book = readWhole(text);
  await mergeBook(machine.id, book);
  log.info({ machine: machineCode, lines: book.length }, 'code book taken in');
  revalidatePath(`/machines/${machineCode}/codes`);
  return book.length;
}

function readWhole(text: string): BookRow[] {
  try {
    return readCodeBook(text);
  } catch (error) {
    if (error instanceof InputError)
      throw new Refused(400, 'bad-input', `${error.message}. Nothing was changed.`);
    throw error;
  }
}

/** A machine with its code book and the names of its functions and drivers. */
export async function openBook(machineCode: string) {
  const machine = await findMachine(machineCode);
  if (!machine) return null;
  const [book, functions] = await Promise.all([readBook(machine.id), functionsOf(machine.id)]);
  const past = await pastJobsWith(
    machine.id,
    [...new Set(book.map(({ code, mode }) => (mode ? `${code}-${Number(mode) || mode}` : code)))].slice(
      0,
      200,
    ),
    -1,
  );
  return {
    machine,
    book,
    past,
    functions: functions.map(({ name, circuit }) => ({
      name,
      drivers: circuit.parts.filter(({ kind }) => kind === 'driver').map(({ ref }) => ref),
    })),
  };
}
export type OpenBook = NonNullable<Awaited<ReturnType<typeof openBook>>>;
