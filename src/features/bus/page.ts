import 'server-only';
import { CircuitModel } from '@/core/circuit/model';
import { codedDrivers } from '@/core/diagnosis/codeEvidence';
import { readBook } from '@/db/codeBook';
import { busAdapter } from './server';
import { findMachine, functionsOf } from '@/db/jobs';

/** A machine with its book and what its simulated functions can be put into. */
export async function openBusPage(code: string) {
  const machine = await findMachine(code);
  if (!machine) return null;
  const [book, rows, standing] = await Promise.all([
    readBook(machine.id),
    functionsOf(machine.id),
    // A bus that does not answer is said by the page's own line.
    busAdapter()
      ?.standing?.(code)
      .catch(() => null) ?? null,
  ]);
  return {
    machine,
    book,
    functions: rows.map(({ name, circuit }) => {
      const model = new CircuitModel(circuit);
      return {
        name,
        controls: circuit.controls,
        connectors: [...model.compiled.connectors],
        setup: standing?.[name] ?? codedDrivers(model)[0]?.setup ?? {},
      };
    }),
  };
}
