import 'server-only';
import type { StoredEntry } from '@/db/entries';
import { lastNumbers } from '@/db/jobs';
import { log } from '../serverLog';

/** Another server of a cluster writes without telling this one: its entries are looked for this often. */
const LOOK_MS = 1000;
/** Looks between two heartbeats. A browser gives a line up after fifteen seconds of silence. */
const LOOKS_A_BEAT = 5;
/** An empty list is the heartbeat: the browser knows the server is there. */
const BEAT = new TextEncoder().encode('data: []\n\n');

/** Somebody who follows a job's log. */
interface Follower {
  /** Number of the last entry that was sent. */
  seen: number;
  look: () => void;
  beat: () => void;
  end: () => void;
}

interface Watch {
  followers: Map<string, Set<Follower>>;
  timer: ReturnType<typeof setInterval> | null;
  looks: number;
  busy: boolean;
}
const held = globalThis as typeof globalThis & { spiraxisWatch?: Watch };
const watch = (held.spiraxisWatch ??= { followers: new Map(), timer: null, looks: 0, busy: false });

const everybody = () => [...watch.followers.values()].flatMap((some) => [...some]);

/** One question a second for all jobs that anybody follows, however many look on. */
async function lookAround(): Promise<void> {
  if (watch.busy) return;
  watch.busy = true;
  try {
    const last = await lastNumbers([...watch.followers.keys()]);
    for (const [jobId, some] of watch.followers)
      for (const one of some) if ((last.get(jobId) ?? 0) > one.seen) one.look();
    if (++watch.looks % LOOKS_A_BEAT === 0) for (const one of everybody()) one.beat();
  } catch (error) {
    // The database does not answer: the lines are dropped, and the browsers say so and call again.
    log.warn({ err: error }, 'event lines are dropped');
    for (const one of everybody()) one.end();
  } finally {
    watch.busy = false;
  }
}

function follow(jobId: string, follower: Follower): void {
  const some = watch.followers.get(jobId) ?? new Set<Follower>();
  watch.followers.set(jobId, some.add(follower));
  watch.timer ??= setInterval(() => void lookAround(), LOOK_MS);
}

function leave(jobId: string, follower: Follower): void {
  const some = watch.followers.get(jobId);
  some?.delete(follower);
  if (some?.size === 0) watch.followers.delete(jobId);
  if (watch.followers.size === 0 && watch.timer) {
    clearInterval(watch.timer);
    watch.timer = null;
  }
}

/** Tells whoever follows a job that its log grew. */
export function tellJob(jobId: string): void {
  for (const one of watch.followers.get(jobId) ?? []) one.look();
}

/** A job's new entries as server-sent events: at once when they are written here, within a second when elsewhere. */
export function jobStream(
  after: number,
  read: (after: number) => Promise<readonly StoredEntry[]>,
  jobId: string,
  signal: AbortSignal,
): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  return new ReadableStream({
    start(controller) {
      let [busy, again, ended] = [false, false, false];
      const look = async (): Promise<void> => {
        if (busy) {
          again = true;
          return;
        }
        busy = true;
        try {
          const entries = await read(follower.seen);
          if (ended) return;
          follower.seen = entries.at(-1)?.number ?? follower.seen;
          controller.enqueue(encoder.encode(`data: ${JSON.stringify(entries)}\n\n`));
        } catch (error) {
          log.warn({ err: error, jobId }, 'an event line is dropped');
          follower.end();
        } finally {
          busy = false;
          if (again && !ended) {
            again = false;
            void look();
          }
        }
      };
      const follower: Follower = {
        seen: after,
        look: () => void look(),
        beat: () => controller.enqueue(BEAT),
        end: () => {
          if (ended) return;
          ended = true;
          leave(jobId, follower);
          controller.close();
        },
      };
      follow(jobId, follower);
      signal.addEventListener('abort', follower.end);
      follower.look();
    },
  });
}
