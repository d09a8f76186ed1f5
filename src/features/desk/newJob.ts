'use server';

import { redirect } from 'next/navigation';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { CircuitModel } from '@/core/circuit/model';
import type { Reading } from '@/core/circuit/schema';
import { workingPatterns } from '@/core/diagnosis/patterns';
import type { Entry } from '@/core/job/entries';
import { appendEntries } from '@/db/entries';
import { insertJob } from '@/db/jobs';
import { findFunction } from '@/db/library';
import { digestSoon } from './digests';
import { log } from '../serverLog';

const formSchema = z.object({
  functionId: z.uuid('Choose the machine and function.'),
  title: z.string().trim().min(3, 'Say in a few words what fails.').max(200),
  words: z.string().trim().max(2000),
  person: z.string().trim().min(1, 'Say who takes the job.').max(60),
});
const answerSchema = z.enum(['works', 'weak', 'dead']);

export interface NewJobState {
  trouble: string | null;
  field?: string;
}

/** Opens a job from the form; what works and what does not become its first readings. */
export async function openNewJob(_before: NewJobState, form: FormData): Promise<NewJobState> {
  const parsed = formSchema.safeParse(
    Object.fromEntries(['functionId', 'title', 'words', 'person'].map((key) => [key, form.get(key) ?? ''])),
  );
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    return { trouble: issue?.message ?? 'Something is missing.', field: String(issue?.path[0] ?? '') };
  }
  const { functionId, title, words, person } = parsed.data;
  const known = await findFunction(functionId);
  if (!known)
    return { trouble: 'That function is not in the shed any more. Choose another.', field: 'functionId' };
  const openedAt = new Date();
  const jobId = uuidv7();
  const number = await insertJob({ id: jobId, functionId, title, person, openedAt });
  const entries: Entry[] = [];
  const add = (
    entry:
      | { type: 'complaint'; body: { words: string } }
      | { type: 'reading'; body: { reading: Reading; typed: string } },
  ) =>
    entries.push({
      ...entry,
      id: uuidv7(),
      at: new Date(openedAt.getTime() + entries.length).toISOString(),
      person,
    } as Entry);
  add({ type: 'complaint', body: { words: words || title } });
  workingPatterns(new CircuitModel(known.circuit)).forEach(({ setup, loads, driven }, pattern) => {
    for (const part of [...loads, ...driven]) {
      const answer = answerSchema.safeParse(form.get(`load-${pattern}-${part}`));
      if (!answer.success) continue;
      add({
        type: 'reading',
        body: { reading: { kind: 'function', part, setup, value: answer.data }, typed: answer.data },
      });
    }
  });
  await appendEntries(jobId, entries);
  digestSoon(jobId);
  log.info({ job: number, function: known.name }, 'job opened');
  redirect(`/jobs/${number}`);
}
