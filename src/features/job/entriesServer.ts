import 'server-only';
import { z } from 'zod';
import { InputError } from '@/core/circuit/inputError';
import { CircuitModel } from '@/core/circuit/model';
import { bindTest } from '@/core/diagnosis/predict';
import { entrySchema, type Entry } from '@/core/job/entries';
import { reduceJob } from '@/core/job/reduceJob';
import { appendEntries, EntryConflict, readEntries } from '@/db/entries';
import { findJob } from '@/db/jobs';
import { log } from '../serverLog';
import { circuitOfJob } from './circuitOfJob';
import { jobStream, tellJob } from './jobEvents';

export interface SaveProblem {
  code: 'bad-input' | 'no-job' | 'conflict';
  message: string;
}

const requestSchema = z.object({ entries: z.array(entrySchema).min(1).max(200) });

/** Adds entries sent by a browser. Readings are checked against the job's circuit first. */
export async function appendToJob(
  number: string,
  text: string,
): Promise<{ added: number } | { problem: SaveProblem }> {
  const job = /^\d{1,9}$/.test(number) ? await findJob(Number(number)) : null;
  if (!job) return problem('no-job', `There is no job ${number}.`);
  let entries: Entry[];
  try {
    const result = requestSchema.safeParse(JSON.parse(text));
    if (!result.success) {
      const issue = result.error.issues[0];
      return problem('bad-input', `${issue?.path.join('.') || 'entries'}: ${issue?.message ?? 'not valid'}`);
    }
    entries = result.data.entries;
    const before = (await readEntries(job.id)).map(({ entry }) => entry);
    const model = new CircuitModel(await circuitOfJob(job, [...before, ...entries]));
    for (const entry of entries) {
      if (entry.type === 'reading') bindTest(model, entry.body.reading);
      if (entry.type === 'skippedTest') bindTest(model, entry.body.test);
      if (entry.type !== 'redrawn') continue;
      // On a new drawing every reading that counts must still mean something.
      const { readings, after } = reduceJob([...before, ...entries]);
      for (const { reading } of [...readings, ...after]) bindTest(model, reading);
    }
  } catch (error) {
    if (error instanceof SyntaxError) return problem('bad-input', 'The request is not JSON.');
    if (error instanceof InputError) return problem('bad-input', error.message);
    throw error;
  }
  try {
    const { added } = await appendEntries(job.id, entries);
    tellJob(job.id);
    log.info({ job: job.number, sent: entries.length, added }, 'entries saved');
    return { added };
  } catch (error) {
    if (error instanceof EntryConflict) return problem('conflict', error.message);
    throw error;
  }
}

/** Entries that arrive after a position, as server-sent events, for a browser that has the job open. */
export async function entryEvents(
  number: string,
  after: string,
  signal: AbortSignal,
): Promise<ReadableStream<Uint8Array> | { problem: SaveProblem }> {
  if (!/^\d{1,15}$/.test(after))
    return problem('bad-input', `after: "${after}" is no position; use a whole number.`);
  const job = /^\d{1,9}$/.test(number) ? await findJob(Number(number)) : null;
  if (!job) return problem('no-job', `There is no job ${number}.`);
  return jobStream(Number(after), (seq) => readEntries(job.id, seq), job.id, signal);
}

function problem(code: SaveProblem['code'], message: string): { problem: SaveProblem } {
  return { problem: { code, message } };
}
