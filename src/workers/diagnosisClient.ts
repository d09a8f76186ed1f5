import { wrap, type Remote } from 'comlink';
import type { Answer, DiagnosisWorker, KnownCircuit } from './protocol';

type Tail<T extends unknown[]> = T extends [unknown, ...infer Rest] ? Rest : never;

const TIMEOUT_MS = 30_000;

/** The worker as the interface sees it: answers, or an error as data, always within a time limit. */
export class DiagnosisClient {
  private worker: Worker | null = null;
  private remote: Remote<DiagnosisWorker> | null = null;
  /** Numbers under which this worker has circuits open; a new worker knows none. */
  private numbers = new WeakMap<KnownCircuit, Promise<Answer<number>>>();
  private crashed: ((answer: Answer<never>) => void)[] = [];

  weigh(circuit: KnownCircuit, ...words: Tail<Parameters<DiagnosisWorker['weigh']>>) {
    return this.about(circuit, (remote, number) => remote.weigh(number, ...words));
  }

  evaluate(circuit: KnownCircuit, ...words: Tail<Parameters<DiagnosisWorker['evaluate']>>) {
    return this.about(circuit, (remote, number) => remote.evaluate(number, ...words));
  }

  /** Asks about a circuit by its number. It goes across once, and again only where the worker has let it go. */
  private async about<T>(
    circuit: KnownCircuit,
    question: (remote: Remote<DiagnosisWorker>, number: number) => Promise<Answer<T>>,
  ): Promise<Answer<T>> {
    for (let attempt = 1; ; attempt++) {
      this.open();
      const numbers = this.numbers;
      let opening = numbers.get(circuit);
      if (!opening) {
        opening = this.ask((remote) => remote.open(circuit));
        numbers.set(circuit, opening);
      }
      const opened = await opening;
      if (!opened.ok) {
        numbers.delete(circuit);
        return opened;
      }
      const answer = await this.ask((remote) => question(remote, opened.value));
      if (answer.ok || !answer.closed || attempt > 1) return answer;
      numbers.delete(circuit);
    }
  }

  /** Ends the worker and whatever it was working on. */
  close(): void {
    this.worker?.terminate();
    this.worker = null;
    this.remote = null;
    this.numbers = new WeakMap();
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
