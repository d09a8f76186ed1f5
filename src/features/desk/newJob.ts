import 'server-only';
import { redirect } from 'next/navigation';
import { v7 as uuidv7 } from 'uuid';
import type { Reading } from '@/core/circuit/schema';
import type { Entry } from '@/core/job/entries';
import { seenWork } from '@/core/job/seenWork';
import { appendEntries } from '@/db/entries';
import { insertJob } from '@/db/jobs';
import { findFunction } from '@/db/library';
import { digestSoon } from './digests';
import { trialKey } from './functionChoices';
import { provenanceOf, type Signed } from '../people/session';
import { drawnOf } from './jobModel';
import { newJobSchema, type NewJob } from './newJobSchema';
import { log } from '../serverLog';

export interface NewJobAnswer {
  trouble: string | null;
  field?: string;
}

/** Opens a job from the form; what works and what does not become its first readings. */
export async function openNewJob(who: Signed, request: NewJob): Promise<NewJobAnswer> {
  const parsed = newJobSchema.safeParse(request);
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    return { trouble: issue?.message ?? 'Something is missing.', field: String(issue?.path[0] ?? '') };
  }
  const { functionId, title, words, answers } = parsed.data;
  const person = who.name;
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
  for (const seen of seenWork(drawnOf(known.circuit).model)) {
    const key = trialKey(seen);
    const answer = Object.hasOwn(answers, key) ? answers[key]! : 'not tried';
    if (answer === 'not tried') continue;
    const { ref: part, setup } = seen;
    add({
      type: 'reading',
      body: { reading: { kind: 'function', part, setup, value: answer }, typed: answer },
    });
  }
  await appendEntries(jobId, entries, { from: () => provenanceOf(who) });
  digestSoon(jobId);
  log.info({ job: number, function: known.name }, 'job opened');
  redirect(`/jobs/${number}`);
}
