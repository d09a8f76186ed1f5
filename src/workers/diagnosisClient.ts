import { wrap, type Remote } from 'comlink';
import type { Answer, DiagnosisWorker } from './protocol';

const TIMEOUT_MS = 30_000;

/** The worker as the interface sees it: answers, or an error as data, always within a time limit. */
export class DiagnosisClient {
  private worker: Worker | null = null;
  private remote: Remote<DiagnosisWorker> | null = null;
  private crashed: ((answer: Answer<never>) => void)[] = [];

  weigh(...words: Parameters<DiagnosisWorker['weigh']>) {
    return this.ask((remote) => remote.weigh(...words));
  }

  evaluate(...words: Parameters<DiagnosisWorker['evaluate']>) {
    return this.ask((remote) => remote.evaluate(...words));
  }

  /** Ends the worker and whatever it was working on. */
  close(): void {
    this.worker?.terminate();
    this.worker = null;
    this.remote = null;
    for (const end of this.crashed) end({ ok: false, message: 'The calculation was stopped.', input: false });
    this.crashed = [];
  }

  private async ask<T>(
    question: (remote: Remote<DiagnosisWorker>) => Promise<Answer<T>>,
  ): Promise<Answer<T>> {
    const remote = this.open();
    let timer: ReturnType<typeof setTimeout> | undefined;
    let end: (answer: Answer<never>) => void = () => undefined;
    const failure = new Promise<Answer<T>>((resolve) => {
      end = resolve;
      this.crashed.push(end);
      timer = setTimeout(() => {
        resolve({ ok: false, message: 'The calculation took too long and was stopped.', input: false });
        this.close();
      }, TIMEOUT_MS);
    });
    try {
      return await Promise.race([question(remote), failure]);
    } finally {
      clearTimeout(timer);
      this.crashed = this.crashed.filter((one) => one !== end);
    }
  }

  private open(): Remote<DiagnosisWorker> {
    if (!this.remote) {
      this.worker = new Worker(new URL('./diagnosis.worker.ts', import.meta.url), { type: 'module' });
      this.worker.onerror = (event) => {
        event.preventDefault();
        const waiting = this.crashed;
        this.crashed = [];
        this.close();
        const message = `The calculation stopped: ${event.message || 'the worker could not start'}.`;
        for (const end of waiting) end({ ok: false, message, input: false });
      };
      this.remote = wrap<DiagnosisWorker>(this.worker);
    }
    return this.remote;
  }
}
