import 'server-only';
import type { StoredEntry } from '@/db/entries';
import { lastNumbers } from '@/db/jobs';
import { ofShed } from '@/db/shed';
import { log } from '../serverLog';

/** Another server of a cluster writes without telling this one: its entries are looked for this often. */
const LOOK_MS = 1000;
/** Looks between two heartbeats. A browser gives a line up after fifteen seconds of silence. */
const LOOKS_A_BEAT = 5;
const encoder = new TextEncoder();
const said = (entries: readonly StoredEntry[]) => encoder.encode(`data: ${JSON.stringify(entries)}\n\n`);
/** An empty list is the heartbeat: the browser knows the server is there. */
const BEAT = said([]);

/** The whole log of a job, in order of its numbers, which begin at 1 and have no gap. */
export type ReadLog = (jobId: string) => Promise<readonly StoredEntry[]>;

/** Somebody who follows a job's log. */
interface Follower {
  /** Number of the last entry that was sent. */
  seen: number;
  /** At which of the looks between two heartbeats it is told that the server is there. */
  turn: number;
  /** Has heard nothing yet, and waits for what there is, be it nothing. */
  fresh: boolean;
  send: (bytes: Uint8Array) => void;
  end: () => void;
}

/** A job that somebody follows. Its log is read once for all who do. */
interface Followed {
  followers: Set<Follower>;
  read: ReadLog;
  busy: boolean;
  again: boolean;
}

/** What is followed in one shed. */
interface Watch {
  jobs: Map<string, Followed>;
  timer: ReturnType<typeof setInterval> | null;
  looks: number;
  turns: number;
  busy: boolean;
}
const watchOf = ofShed<Watch>('watch', () => ({
  jobs: new Map(),
  timer: null,
  looks: 0,
  turns: 0,
  busy: false,
}));

function endAll(followers: Iterable<Follower>): void {
  for (const one of [...followers]) one.end();
}

/** Sends what is new to all who follow a job: one reading of the log, and one writing for all who are equally far. */
async function tellNews(jobId: string, followed: Followed): Promise<void> {
  if (followed.busy) {
    followed.again = true;
    return;
  }
  followed.busy = true;
  try {
    do {
      followed.again = false;
      const entries = await followed.read(jobId);
      const last = entries.at(-1)?.number ?? 0;
      const written = new Map<number, Uint8Array>();
      for (const one of followed.followers) {
        if (last <= one.seen && !one.fresh) continue;
        const bytes = written.get(one.seen) ?? said(entries.slice(one.seen));
        written.set(one.seen, bytes);
        one.send(bytes);
        one.fresh = false;
        one.seen = Math.max(one.seen, last);
      }
    } while (followed.again);
  } catch (error) {
    // The database does not answer: the lines are dropped, and the browsers say so and call again.
    log.warn({ err: error, jobId }, 'event lines are dropped');
    endAll(followed.followers);
  } finally {
    followed.busy = false;
  }
}

/** One question a second for all jobs that anybody follows, however many look on. */
async function lookAround(watch: Watch): Promise<void> {
  if (watch.busy) return;
  watch.busy = true;
  try {
    const last = await lastNumbers([...watch.jobs.keys()]);
    const beat = ++watch.looks % LOOKS_A_BEAT;
    for (const [jobId, followed] of watch.jobs) {
      if ([...followed.followers].some(({ seen }) => (last.get(jobId) ?? 0) > seen))
        void tellNews(jobId, followed);
      // Not all at once: three hundred lines written in one go hold up whoever writes an entry meanwhile.
      for (const one of followed.followers) if (one.turn === beat) one.send(BEAT);
    }
  } catch (error) {
    log.warn({ err: error }, 'event lines are dropped');
    for (const { followers } of [...watch.jobs.values()]) endAll(followers);
  } finally {
    watch.busy = false;
  }
}

function follow(watch: Watch, jobId: string, follower: Follower, read: ReadLog): void {
  const followed = watch.jobs.get(jobId) ?? { followers: new Set(), read, busy: false, again: false };
  followed.followers.add(follower);
  watch.jobs.set(jobId, followed);
  watch.timer ??= setInterval(() => void lookAround(watch), LOOK_MS);
  void tellNews(jobId, followed);
}

function leave(watch: Watch, jobId: string, follower: Follower): void {
  const followed = watch.jobs.get(jobId);
  followed?.followers.delete(follower);
  if (followed?.followers.size === 0) watch.jobs.delete(jobId);
  if (watch.jobs.size === 0 && watch.timer) {
    clearInterval(watch.timer);
    watch.timer = null;
  }
}

/** Tells whoever follows a job that its log grew. */
export function tellJob(jobId: string): void {
  const followed = watchOf().jobs.get(jobId);
  if (followed) void tellNews(jobId, followed);
}

/** A job's new entries as server-sent events: at once when they are written here, within a second when elsewhere. */
export function jobStream(
  after: number,
  read: ReadLog,
  jobId: string,
  signal: AbortSignal,
): ReadableStream<Uint8Array> {
  // Who hangs up does so in nobody's name: which shed it was about is known from the beginning.
  const watch = watchOf();
  return new ReadableStream({
    start(controller) {
      let ended = false;
      const follower: Follower = {
        seen: after,
        turn: watch.turns++ % LOOKS_A_BEAT,
        fresh: true,
        send: (bytes) => controller.enqueue(bytes),
        end: () => {
          if (ended) return;
          ended = true;
          leave(watch, jobId, follower);
          controller.close();
        },
      };
      signal.addEventListener('abort', follower.end);
      follow(watch, jobId, follower, read);
    },
  });
}
