import { InputError } from '@/core/circuit/inputError';
import { readMachineArchive, type MachineArchive } from '@/formats/machineArchive';

/** An archive, or what is wrong with it. Data both, so that it comes out of a thread. */
export type ReadArchive = { archive: MachineArchive } | { field: string; problem: string };

export async function readArchive(bytes: Uint8Array): Promise<ReadArchive> {
  try {
    return { archive: await readMachineArchive(bytes) };
  } catch (error) {
    if (error instanceof InputError) return { field: error.field, problem: error.problem };
    throw error;
  }
}
