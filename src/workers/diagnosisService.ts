import { LRUCache } from 'lru-cache';
import { InputError } from '@/core/circuit/inputError';
import { Diagnoser } from '@/core/diagnosis/diagnose';
import { partStandings } from '@/core/path/standing';
import type { Answer, DiagnosisWorker, KnownCircuit, OpenCircuit } from './protocol';

/** A number whose circuit was let go to make room. */
class CircuitClosed extends Error {
  constructor() {
    super('The circuit is no longer open.');
  }
}

/** Circuits kept open at once; each holds its table of predictions. */
const MOST_OPEN = 6;

/**
 * The diagnosis as a service: one `Diagnoser` per circuit, kept between questions. Runs in a worker or on the server.
 * `prepareAhead`: how many of the next tests are worked out before they are answered.
 */
export function makeDiagnosisService(mostOpen = MOST_OPEN, prepareAhead = 0): DiagnosisWorker {
  const open = new LRUCache<number, Diagnoser>({ max: mostOpen });
  const numbers = new LRUCache<string, number>({ max: 4 * mostOpen });
  let given = 0;
  const numberOf = (one: KnownCircuit): number => {
    const key = JSON.stringify(one);
    const known = numbers.get(key);
    if (known !== undefined && open.has(known)) return known;
    const number = ++given;
    open.set(number, new Diagnoser(one.circuit, one.experience));
    numbers.set(key, number);
    return number;
  };
  const diagnoserOf = (circuit: OpenCircuit): Diagnoser => {
    const diagnoser = open.get(typeof circuit === 'number' ? circuit : numberOf(circuit));
    if (!diagnoser) throw new CircuitClosed();
    return diagnoser;
  };
  const answer = <T>(work: () => T): Answer<T> => {
    try {
      return { ok: true, value: work() };
    } catch (error) {
      const message = error instanceof Error ? error.message : String(error);
      const input = error instanceof InputError;
      return { ok: false, message, input, ...(error instanceof CircuitClosed ? { closed: true } : {}) };
    }
  };
  return {
    open: (known) => answer(() => numberOf(known)),
    weigh: (circuit, readings, options) =>
      answer(() => {
        const started = performance.now();
        const diagnoser = diagnoserOf(circuit);
        const diagnosis = diagnoser.diagnose(readings, options);
        const { parts, soundTurns } = partStandings(diagnoser.model, diagnoser.faults, diagnosis, readings);
        // While the person walks to the test point: everything the likeliest answers will be weighed with.
        if (prepareAhead > 0) {
          setTimeout(
            () => diagnosis.next.slice(0, prepareAhead).forEach(({ test }) => diagnoser.prepare(test)),
            0,
          );
        }
        return { diagnosis, standings: parts, soundTurns, milliseconds: performance.now() - started };
      }),
    evaluate: (circuit, readings, test, options) =>
      answer(() => diagnoserOf(circuit).evaluate(readings, test, options)),
  };
}
