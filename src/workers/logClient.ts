import { proxy } from 'comlink';
import type { LogSummary } from '@/core/codes/codeLog';
import { runIn, type OwnRun } from './ownWorker';

interface LogWorker {
  read(file: Blob, onProgress: (share: number) => void): Promise<LogSummary>;
}

export type LogRun = OwnRun<LogSummary>;

/** Reads a log file in a worker of its own. */
export function readLog(file: Blob, onProgress: (share: number) => void): LogRun {
  const worker = new Worker(new URL('./log.worker.ts', import.meta.url), { type: 'module' });
  return runIn<LogWorker, LogSummary>(
    worker,
    (remote) => remote.read(file, proxy(onProgress)),
    (why) => `The log could not be read: ${why}.`,
  );
}
