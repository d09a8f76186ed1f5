import 'server-only';
import { join } from 'node:path';
import Piscina from 'piscina';
import { ofProcess } from '@/db/shed';
import { log } from '../serverLog';
import { Refused } from './failure';
import { afterMachineTime } from './machineTime';

/** A kind of heavy work that is done beside the server's own loop, so that nobody's reading waits for it. */
interface Heavy {
  /** Its `NAME.thread.ts`, whose default function does it; the build makes one file of each. */
  file: string;
  /** As many as may wait. Who comes after them is told to come again. */
  waiting: number;
  /** Machine time after which it is given up. */
  seconds: number;
  megabytes: number;
  /** What is said where it was given up. */
  tooLong: string;
}

const HEAVY = {
  digest: {
    file: 'jobDigest',
    waiting: 2000,
    seconds: 60,
    megabytes: 768,
    tooLong: 'This job takes too long to weigh.',
  },
  shed: {
    file: 'shed',
    waiting: 2000,
    seconds: 60,
    megabytes: 512,
    tooLong: 'The shed’s past takes too long to weigh.',
  },
  report: {
    file: 'report',
    waiting: 60,
    seconds: 45,
    megabytes: 768,
    tooLong: 'This report takes too long to make. Ask again when the server has less to do.',
  },
  archive: {
    file: 'archive',
    waiting: 6,
    seconds: 20,
    megabytes: 700,
    tooLong: 'This archive takes too long to read. Take drawings out of it, or pack it anew.',
  },
  picture: {
    file: 'picture',
    waiting: 60,
    seconds: 20,
    megabytes: 400,
    tooLong: 'This picture takes too long to read; take it smaller.',
  },
} as const satisfies Readonly<Record<string, Heavy>>;
type Kind = keyof typeof HEAVY;

/** A thread that nobody needed for so long ends, and gives its memory back. */
const IDLE_MS = 60_000;

const pools = ofProcess('threads', () => new Map<Kind, Piscina>());

function poolOf(kind: Kind): Piscina {
  const known = pools.get(kind);
  if (known) return known;
  const { file, waiting, megabytes } = HEAVY[kind];
  const made = new Piscina({
    filename: join(process.cwd(), '.next', 'threads', `${file}.thread.mjs`),
    minThreads: 0,
    maxThreads: 1,
    maxQueue: waiting,
    idleTimeout: IDLE_MS,
    resourceLimits: { maxOldGenerationSizeMb: megabytes },
  });
  // A thread that dies takes its own work with it and nothing else: who asked for that is told, the next one gets a new thread.
  made.on('error', (error) => log.warn({ err: error as Error, kind }, 'a thread died'));
  pools.set(kind, made);
  return made;
}

/**
 * Does heavy work in a thread of its kind. Rejects with {@link Refused} where too much waits already, where it takes too
 * long, or where it takes too much memory; the thread is thrown away then.
 *
 * @param here the same function, for where threads are switched off (`SPIRAXIS_THREADS=off`, for tests in one process)
 */
export async function inThread<T, R>(
  kind: Kind,
  task: T,
  here: (task: T) => R | Promise<R>,
): Promise<Awaited<R>> {
  if (process.env.SPIRAXIS_THREADS === 'off') return await here(task);
  const { seconds, tooLong } = HEAVY[kind];
  const limit = new AbortController();
  // Counted from its turn on: waiting for one's turn is not the work's fault.
  const pool = poolOf(kind);
  const ended = afterMachineTime(seconds * (1 + pool.queueSize), () => limit.abort());
  try {
    return (await pool.run(task, { signal: limit.signal })) as Awaited<R>;
  } catch (error) {
    if (limit.signal.aborted) throw new Refused(400, 'bad-input', tooLong);
    const words = error instanceof Error ? error.message : '';
    if (/queue is at limit|Task queue/i.test(words))
      throw new Refused(
        503,
        'busy',
        'The server has its hands full. Nothing was lost; ask again in a few seconds.',
        5,
      );
    if (error instanceof Error && 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY')
      throw new Refused(400, 'bad-input', tooLong);
    throw error;
  } finally {
    ended();
  }
}
