import 'server-only';
import { z } from 'zod';
import { aboutJob } from '@/core/job/aboutJob';
import { entrySchema, type Entry } from '@/core/job/entries';
import { looksAtState, mayAppend, type EntryRefusal } from '@/core/job/rules/mayAppend';
import { appendEntries, type Appended } from '@/db/entries';
import { findJobByText, type JobRow } from '@/db/jobs';
import { refusalWords } from '@/words/en/refusals';
import type { Speaker } from '@/words/en/readings';
import { metrics } from '../metrics';
import { log } from '../serverLog';
import { circuitOfJob } from './circuitOfJob';
import { USUAL_POLICY } from '../policy/policy';
import { openPolicy } from '../policy/server';
import type { Signing } from '@/core/job/rules/signing';
import { provenanceOf, type Signed } from '../people/session';
import { leaveTrail } from '../people/trail';
import { witnessesOf } from '../people/witness';
import { takeFitted } from '../spares/takeFitted';
import { digestSoon } from './digests';
import { jobStream, tellJob } from './jobEvents';
import { knownLog, wholeLog } from './jobLogs';
import { drawnOf } from './jobModel';
import { PIECE, type SendAnswer, type SendResult, type SentEntry } from './log/protocol';

export interface SaveProblem {
  code: 'bad-input' | 'no-job' | 'conflict' | 'too-many';
  message: string;
  /** What became of each entry, where the request could be read. */
  results?: SendResult[];
}

const requestSchema = z.object({
  entries: z.array(z.unknown()).min(1).max(200),
  /** The sender's clock as it sent them. */
  sentAt: z.iso.datetime().optional(),
});

/**
 * Adds entries sent by a browser, each by itself: one that is refused, with the reason, holds no other back. What protects
 * people and the record is judged by the core against the log as it stands under the job's lock.
 */
export async function appendToJob(
  number: string,
  text: string,
  who: Signed,
  now = new Date(),
): Promise<SendAnswer | { problem: SaveProblem }> {
  const job = await findJobByText(number);
  if (!job) return problem('no-job', `There is no job ${number}.`);
  let request: z.infer<typeof requestSchema>;
  try {
    const result = requestSchema.safeParse(JSON.parse(text));
    if (!result.success) return problem('bad-input', issueWords(result.error, 'entries'));
    request = result.data;
  } catch (error) {
    if (error instanceof SyntaxError) return problem('bad-input', 'The request is not JSON.');
    throw error;
  }
  const results: SendResult[] = [];
  const sound: Entry[] = [];
  for (const [at, one] of request.entries.entries()) {
    const result = entrySchema.safeParse(one);
    if (result.success) sound.push(result.data);
    else
      results.push({
        id: idOf(one),
        state: 'refused',
        code: 'bad-input',
        message: issueWords(result.error, `entries.${at}`),
      });
  }
  const skewMs = request.sentAt ? Date.parse(request.sentAt) - now.getTime() : null;
  // Only a learner's entries ask it.
  const learnersSeen = who.role === 'learner' ? (await openPolicy()).policy.learnersSeen : true;
  const witnesses = await witnessesOf(sound, who, now);
  const judge = await judgeOf(job, now, (entry) => ({
    by: who,
    witness: witnesses.get(entry.id)?.person ?? null,
    learnersSeen,
  }));
  const appended = await appendEntries(job.id, sound, {
    receivedAt: now,
    skewMs,
    judge: judge.judge,
    from: ({ id }) => provenanceOf(who, witnesses.get(id)?.accountId ?? null),
    known: knownLog(job.id),
  });
  const anyRefused = appended.some(({ state }) => state === 'refused');
  const { gaugeUnit } = anyRefused ? (await openPolicy()).policy : USUAL_POLICY;
  const words = (one: Appended<EntryRefusal>): SendResult =>
    one.state === 'refused'
      ? {
          id: one.id,
          state: 'refused',
          code: one.refusal.code,
          message: refusalWords(one.refusal, { ...judge.drawn(), gaugeUnit }),
        }
      : one;
  results.push(...appended.map(words));
  // Also what was there already: the shelf may have been away when it came first, and gives each piece once.
  const taken = new Set(appended.flatMap(({ id, state }) => (state === 'refused' ? [] : [id])));
  await takeFitted(
    job.id,
    sound.filter(({ id }) => taken.has(id)),
    now,
  );
  const fresh = new Set(appended.flatMap(({ id, state }) => (state === 'added' ? [id] : [])));
  for (const entry of sound)
    if (fresh.has(entry.id) && entry.type === 'reopened' && entry.body.owner !== undefined)
      await leaveTrail('lockTakenOff', who, `${entry.body.owner}’s, ${entry.body.point}, job ${job.number}`);
  const added = results.filter(({ state }) => state === 'added').length;
  if (added > 0) {
    metrics.entries.inc(added);
    tellJob(job.id);
    digestSoon(job.id);
  }
  log.info({ job: job.number, sent: request.entries.length, added }, 'entries saved');
  const first = results.find((one) => one.state === 'refused');
  if (first && results.every(({ state }) => state === 'refused'))
    return {
      problem: {
        code: first.code === 'conflict' ? 'conflict' : 'bad-input',
        message: first.message,
        results,
      },
    };
  return { added, results };
}

/** The rules of the core over a job's log as it stands under the lock, with the circuit that the log says it is about. */
async function judgeOf(job: JobRow, now: Date, signingOf: (entry: Entry) => Signing) {
  const before = aboutJob((await wholeLog(job.id)).map(({ entry }) => entry));
  let drawn = drawnOf(await circuitOfJob(job, before));
  const judge = async (
    entry: Entry,
    log: () => Promise<readonly { number: number; entry: Entry }[]>,
  ): Promise<EntryRefusal | null> => {
    if (entry.type === 'joined' || entry.type === 'redrawn') {
      // A transaction that is gone through again asks again.
      const others = before.filter(({ id }) => id !== entry.id);
      const circuit = await circuitOfJob(job, [...others, entry]);
      const next = drawnOf(circuit);
      const stored = entry.type === 'redrawn' ? await log() : [];
      const refused = mayAppend(entry, { ...jobBefore(next, stored, now), signing: signingOf(entry) });
      if (refused) return refused;
      before.splice(0, before.length, ...others, entry);
      drawn = next;
      return null;
    }
    return mayAppend(entry, {
      ...jobBefore(drawn, looksAtState(entry) ? await log() : [], now),
      signing: signingOf(entry),
    });
  };
  return { judge, drawn: () => drawn };
}

function jobBefore(
  { model }: Pick<Speaker, 'model'>,
  stored: readonly { number: number; entry: Entry }[],
  now: Date,
) {
  return {
    model,
    log: () => stored.map(({ entry }) => entry),
    after: (number: number) => stored.filter((one) => one.number > number).map(({ entry }) => entry),
    receivedMs: now.getTime(),
  };
}

function issueWords(error: z.ZodError, where: string): string {
  const issue = error.issues[0];
  const path = [where, ...(issue?.path ?? []).map(String)].join('.');
  return `${path.replace(/^entries\.entries/, 'entries')}: ${issue?.message ?? 'not valid'}`;
}

function idOf(value: unknown): string {
  return typeof value === 'object' && value !== null && 'id' in value ? String(value.id) : '';
}

/** Entries that arrive after a number, as server-sent events, for a browser that has the job open. */
export async function entryEvents(
  number: string,
  after: string,
): Promise<{ stream: (signal: AbortSignal) => ReadableStream<Uint8Array> } | { problem: SaveProblem }> {
  const found = await positionIn(number, after);
  if ('problem' in found) return found;
  return { stream: (signal) => jobStream(found.after, wholeLog, found.job.id, signal) };
}

/** A piece of a job's log: what follows a number, at most {@link PIECE} entries. */
export async function entriesAfter(
  number: string,
  after: string,
): Promise<{ entries: SentEntry[] } | { problem: SaveProblem }> {
  const found = await positionIn(number, after);
  if ('problem' in found) return found;
  // The log has no gap: an entry's place is its number.
  return { entries: (await wholeLog(found.job.id)).slice(found.after, found.after + PIECE) };
}

async function positionIn(
  number: string,
  after: string,
): Promise<{ job: JobRow; after: number } | { problem: SaveProblem }> {
  if (!/^\d{1,15}$/.test(after))
    return problem('bad-input', `after: "${after}" is no position; use a whole number.`);
  const job = await findJobByText(number);
  return job ? { job, after: Number(after) } : problem('no-job', `There is no job ${number}.`);
}

function problem(code: SaveProblem['code'], message: string): { problem: SaveProblem } {
  return { problem: { code, message } };
}
