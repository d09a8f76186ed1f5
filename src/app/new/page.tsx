import type { Metadata } from 'next';
import { CircuitModel } from '@/core/circuit/model';
import { workingPatterns } from '@/core/diagnosis/candidateTests';
import { listFunctions } from '@/db/jobs';
import { NewJobForm, type FunctionChoice } from '@/features/job/NewJobForm';
import { positionWords } from '@/features/test/words';
import { Brand } from '@/ui/Brand';

export const metadata: Metadata = { title: 'New job' };
export const dynamic = 'force-dynamic';

export default async function NewJobPage() {
  const functions = (await listFunctions(500)).map(({ id, name, machine_code, machine_name, circuit }): FunctionChoice => {
    const model = new CircuitModel(circuit);
    return {
      id,
      name,
      machine: `${machine_code} ${machine_name}`,
      trials: workingPatterns(model).flatMap(({ setup, loads }, pattern) =>
        loads.flatMap((ref) => {
          const part = circuit.parts.find((one) => one.ref === ref)!;
          if (part.kind === 'relay' || part.kind === 'resistor') return [];
          const position = [positionWords(setup), setup.afterSeconds ? 'at once' : ''].filter(Boolean).join(', ');
          return [{ key: `${pattern}-${ref}`, label: part.label ?? ref, position }];
        }),
      ),
    };
  });
  return (
    <div className="min-h-dvh">
      <header className="flex h-14 items-stretch border-b-2 border-ink pl-6 max-tablet:pl-3">
        <Brand />
        <h1 className="flex items-center border-l border-rule px-4 text-[18px] font-[750]">New job</h1>
      </header>
      <main className="bg-sheet px-6 py-7 max-tablet:px-3">
        {functions.length === 0 ? <p>No machine has a circuit yet, so no job can be opened.</p> : <NewJobForm functions={functions} />}
      </main>
    </div>
  );
}
