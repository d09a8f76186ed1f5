import 'server-only';
import { redirect } from 'next/navigation';
import { firstEntries } from '@/core/job/firstEntries';
import { appendEntries } from '@/db/entries';
import { insertJob } from '@/db/jobs';
import { findFunction, readVersion } from '@/db/library';
import { digestSoon } from './digests';
import { firstEntryId } from './firstEntryId';
import { Refused } from '../gate/failure';
import { provenanceOf, type Signed } from '../people/session';
import { drawnOf } from './jobModel';
import { begunJobSchema, newJobSchema, type NewJob } from './newJobSchema';
import { log } from '../serverLog';
import { stepAddress } from './steps';

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
  const { id, functionId, title, words, answers, openedAt } = parsed.data;
  const person = who.name;
  const known = await findFunction(functionId);
  if (!known)
    return { trouble: 'That function is not in the shed any more. Choose another.', field: 'functionId' };
  const now = new Date();
  const number = await insertJob({ id, functionId, title, person, openedAt: now });
  const entries = firstEntries(
    drawnOf(known.circuit).model,
    { title, words, answers },
    { person, openedAt, idOf: (at) => firstEntryId(id, at) },
  );
  await appendEntries(id, entries, {
    receivedAt: now,
    skewMs: Date.parse(openedAt) - now.getTime(),
    from: () => provenanceOf(who),
  });
  digestSoon(id);
  log.info({ job: number, function: known.name }, 'job opened');
  // What was not tried on the form is asked for before anything is measured.
  const tried = entries.some(({ type }) => type === 'reading');
  redirect(stepAddress(number, tried ? 'test' : 'complaint'));
}

/** Longer than that nobody waits for a network; what claims more has a clock that was set. */
const LONGEST_AWAY_MS = 60 * 86_400_000;

/** Opens a job that was begun without the server; its entries come behind it, as any job's. */
export async function openBegunJob(who: Signed, asked: unknown): Promise<{ number: number }> {
  const { id, functionId, functionVersion, title, openedAt, sentAt } = begunJobSchema.parse(asked);
  if (!(await readVersion(functionId, functionVersion)))
    throw new Refused(
      404,
      'not-found',
      'The drawing that this job was begun by is not in the shed any more. Open it anew on another function, and take the readings over.',
    );
  // By the sender's clock how long ago; by this one's when.
  const agoMs = Date.parse(sentAt) - Date.parse(openedAt);
  const ago = Math.min(Math.max(0, agoMs), LONGEST_AWAY_MS);
  const number = await insertJob({
    id,
    functionId,
    functionVersion,
    title,
    person: who.name,
    openedAt: new Date(Date.now() - ago),
  });
  log.info({ job: number, agoMs }, 'job opened that was begun without the server');
  return { number };
}
