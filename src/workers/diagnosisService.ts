import { InputError } from '@/core/circuit/inputError';
import type { Circuit } from '@/core/circuit/schema';
import { Diagnoser } from '@/core/diagnosis/diagnose';
import { partStandings } from '@/core/path/standing';
import type { Answer, DiagnosisWorker } from './protocol';

/** Circuits kept open at once; each holds its table of predictions. */
const MOST_OPEN = 6;

/**
 * The diagnosis as a service: one `Diagnoser` per circuit, kept between questions. Runs in a worker or on the server.
 * `prepareAhead`: how many of the next tests are worked out before they are answered.
 */
export function makeDiagnosisService(mostOpen = MOST_OPEN, prepareAhead = 0): DiagnosisWorker {
  const open = new Map<string, Diagnoser>();
  const diagnoserOf = (circuit: Circuit): Diagnoser => {
    const key = JSON.stringify(circuit);
    const known = open.get(key);
    if (known) return known;
    const fresh = new Diagnoser(circuit);
    open.set(key, fresh);
    if (open.size > mostOpen) open.delete(open.keys().next().value!);
    return fresh;
  };
  const answer = <T>(work: () => T): Answer<T> => {
    try {
      return { ok: true, value: work() };
    } catch (error) {
      const message = error instanceof Error ? error.message : String(error);
      return { ok: false, message, input: error instanceof InputError };
    }
  };
  return {
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
    evaluate: (circuit, readings, test) => answer(() => diagnoserOf(circuit).evaluate(readings, test)),
  };
}
