import 'server-only';
import { EventEmitter } from 'node:events';
import type { StoredEntry } from '@/db/entries';

/** Another server of a cluster writes without telling this one: its entries are looked for this often. */
const LOOK_MS = 1000;

const held = globalThis as typeof globalThis & { spiraxisJobs?: EventEmitter };
const jobs = (held.spiraxisJobs ??= new EventEmitter().setMaxListeners(0));

/** Tells whoever follows a job that its log grew. */
export function tellJob(jobId: string): void {
  jobs.emit(jobId);
}

/** A job's new entries as server-sent events: at once when they are written here, within a second when elsewhere. */
export function jobStream(
  after: number,
  read: (after: number) => Promise<StoredEntry[]>,
  jobId: string,
  signal: AbortSignal,
): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  return new ReadableStream({
    start(controller) {
      let seen = after;
      let [busy, again, ended] = [false, false, false];
      const end = () => {
        if (ended) return;
        ended = true;
        clearInterval(timer);
        jobs.off(jobId, look);
        controller.close();
      };
      const look = async (): Promise<void> => {
        if (busy) {
          again = true;
          return;
        }
        busy = true;
        try {
          const entries = await read(seen);
          if (ended) return;
          seen = entries.at(-1)?.number ?? seen;
          // An empty list is the heartbeat: the browser knows the server is there.
          controller.enqueue(encoder.encode(`data: ${JSON.stringify(entries)}\n\n`));
        } catch {
          // The database does not answer: the line is dropped, and the browser says so and calls again.
          end();
        } finally {
          busy = false;
          if (again && !ended) {
            again = false;
            void look();
          }
        }
      };
      const timer = setInterval(() => void look(), LOOK_MS);
      jobs.on(jobId, look);
      signal.addEventListener('abort', end);
      void look();
    },
  });
}
