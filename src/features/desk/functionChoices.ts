import 'server-only';
import { CircuitModel } from '@/core/circuit/model';
import { workingPatterns } from '@/core/diagnosis/patterns';
import { listFunctions } from '@/db/jobs';
import { positionWords } from '@/words/en/readings';
import type { FunctionChoice } from './NewJobForm';

const MOST_FUNCTIONS = 500;

/** Every function a job can be opened on, with what can be tried on it. */
export async function functionChoices(): Promise<FunctionChoice[]> {
  const rows = await listFunctions(MOST_FUNCTIONS);
  return rows.map(({ id, name, machine_code, machine_name, circuit }) => ({
    id,
    name,
    machine: `${machine_code} ${machine_name}`,
    trials: workingPatterns(new CircuitModel(circuit)).flatMap(({ setup, loads, driven }, pattern) =>
      [...loads, ...driven].flatMap((ref) => {
        const part = circuit.parts.find((one) => one.ref === ref)!;
        if (part.kind === 'relay' || part.kind === 'resistor') return [];
        const position = [positionWords(setup), setup.afterSeconds ? 'at once' : '']
          .filter(Boolean)
          .join(', ');
        return [{ key: `${pattern}-${ref}`, label: part.label ?? ref, position }];
      }),
    ),
  }));
}
