import { proxy, wrap } from 'comlink';
import type { LogSummary } from '@/core/codes/codeLog';
import type { Answer } from './protocol';

interface LogWorker {
  read(file: Blob, onProgress: (share: number) => void): Promise<LogSummary>;
}

/** One log being read: its answer, and a way to end it. */
export interface LogRun {
  answer: Promise<Answer<LogSummary>>;
  cancel: () => void;
}

/** Reads a log file in a worker of its own. */
export function readLog(file: Blob, onProgress: (share: number) => void): LogRun {
  const worker = new Worker(new URL('./log.worker.ts', import.meta.url), { type: 'module' });
  let end: (answer: Answer<LogSummary>) => void = () => undefined;
  const ended = new Promise<Answer<LogSummary>>((resolve) => (end = resolve));
  worker.onerror = (event) => {
    event.preventDefault();
    end({
      ok: false,
      message: `The log could not be read: ${event.message || 'the worker could not start'}.`,
      input: false,
    });
  };
  const work = wrap<LogWorker>(worker)
    .read(file, proxy(onProgress))
    .then(
      (value): Answer<LogSummary> => ({ ok: true, value }),
      (error: unknown): Answer<LogSummary> => ({
        ok: false,
        message: `The log could not be read: ${error instanceof Error ? error.message : String(error)}.`,
        input: false,
      }),
    );
  return {
    answer: Promise.race([work, ended]).finally(() => worker.terminate()),
    cancel: () => {
      worker.terminate();
      end({ ok: false, message: 'Stopped. Nothing was kept.', input: true });
    },
  };
}
