import { wrap, type Remote } from 'comlink';
import type { Answer } from './protocol';

/** One piece of work in a worker of its own: its answer, and a way to end it. */
export interface OwnRun<T> {
  answer: Promise<Answer<T>>;
  cancel: () => void;
}

/**
 * Runs one piece of work in a worker that ends with it. What fails comes back as data.
 *
 * @param failed the sentence for an error, without what it was
 */
export function runIn<W, T>(
  worker: Worker,
  work: (remote: Remote<W>) => Promise<T>,
  failed: (why: string) => string,
): OwnRun<T> {
  let end: (answer: Answer<T>) => void = () => undefined;
  const ended = new Promise<Answer<T>>((resolve) => (end = resolve));
  worker.onerror = (event) => {
    event.preventDefault();
    end({ ok: false, message: failed(event.message || 'the worker could not start'), input: false });
  };
  const done = work(wrap<W>(worker)).then(
    (value): Answer<T> => ({ ok: true, value }),
    (error: unknown): Answer<T> => ({
      ok: false,
      message: failed(error instanceof Error ? error.message : String(error)),
      input: false,
    }),
  );
  return {
    answer: Promise.race([done, ended]).finally(() => worker.terminate()),
    cancel: () => {
      worker.terminate();
      end({ ok: false, message: 'Stopped. Nothing was kept.', input: true });
    },
  };
}
