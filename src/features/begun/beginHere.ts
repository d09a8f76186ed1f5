import { may, type Person } from '@/core/people/roles';
import { mayNotWords } from '@/words/en/people';
import { firstEntryId } from '../desk/firstEntryId';
import { newJobSchema, type NewJob } from '../desk/newJobSchema';
import { waitingStore } from '../desk/log/waitingStore';
import { keepBegun } from './begunStore';
import { keptBegin } from './keepBegin';

const CANNOT_KEEP =
  'This browser keeps nothing (its storage is full, or shut as in a private window), so that no job can be begun here. What was typed stands here.';

/**
 * Begins a job on this device: what it needs is here already, and what is written waits for the server. What the form says
 * becomes its first entries, under the very ids that the server would give them.
 */
export async function beginHere(
  job: NewJob,
  me: Person | null,
): Promise<{ local: number } | { trouble: string; field?: string }> {
  if (!me) return { trouble: 'Nobody is signed in here. Sign in when the server is there.' };
  if (!may(me.role, 'work')) return { trouble: mayNotWords(me.role, 'work') };
  const parsed = newJobSchema.safeParse(job);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    return { trouble: issue.message, field: String(issue.path[0] ?? '') };
  }
  const { id, functionId, title, openedAt } = parsed.data;
  const facts = await keptBegin(functionId);
  if (!facts)
    return {
      trouble:
        'What a job on this function needs is not kept on this device. It is kept after a job of the machine, or this form, was open here with the server.',
      field: 'functionId',
    };
  const [{ CircuitModel }, { firstEntries }] = await Promise.all([
    import('@/core/circuit/model'),
    import('@/core/job/firstEntries'),
  ]);
  const entries = firstEntries(new CircuitModel(facts.circuit), parsed.data, {
    person: me.name,
    openedAt,
    idOf: (at) => firstEntryId(id, at),
  });
  try {
    const local = await keepBegun({ id, title, person: me.name, openedAt, facts: { ...facts, me } });
    const store = waitingStore(-local);
    const began = Date.parse(openedAt);
    for (const [at, entry] of entries.entries()) await store.put({ entry, order: began + at });
    return { local };
  } catch {
    return { trouble: CANNOT_KEEP };
  }
}
