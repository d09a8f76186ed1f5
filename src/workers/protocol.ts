import type { Circuit, Reading, Test } from '@/core/circuit/schema';
import type { DiagnoseOptions, Diagnosis } from '@/core/diagnosis/diagnose';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import type { Standing } from '@/core/path/standing';

/** What the interface needs after every reading. */
export interface Outlook {
  diagnosis: Diagnosis;
  standings: Standing[];
  /** Turns of "nothing is wrong here". */
  soundTurns: number;
  milliseconds: number;
}

/** Errors come back as data: a message a person can read, and whether the input or the worker is at fault. */
export type Answer<T> = { ok: true; value: T } | { ok: false; message: string; input: boolean };

/** The worker's whole vocabulary. */
export interface DiagnosisWorker {
  weigh(circuit: Circuit, readings: readonly Reading[], options: DiagnoseOptions): Answer<Outlook>;
  evaluate(circuit: Circuit, readings: readonly Reading[], test: Test): Answer<RankedTest>;
}
