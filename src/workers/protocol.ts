import type { Circuit, Reading, Test } from '@/core/circuit/schema';
import { NO_EXPERIENCE, type Experience } from '@/core/diagnosis/experience';
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
export type Answer<T> =
  | { ok: true; value: T }
  /** `closed`: the circuit's number is no longer known; it is opened again. */
  | { ok: false; message: string; input: boolean; closed?: true };

/** A circuit with what the shed's past says of it. */
export interface KnownCircuit {
  circuit: Circuit;
  experience: Experience;
}

/** A circuit of which nothing is known but its drawing. */
export const justDrawn = (circuit: Circuit): KnownCircuit => ({ circuit, experience: NO_EXPERIENCE });

/** One, or the number it was opened under: across to a worker it goes once. */
export type OpenCircuit = KnownCircuit | number;

/** The worker's whole vocabulary. */
export interface DiagnosisWorker {
  /** Compiles a circuit and gives the number it is asked about by. The same circuit gets the same number. */
  open(known: KnownCircuit): Answer<number>;
  weigh(circuit: OpenCircuit, readings: readonly Reading[], options: DiagnoseOptions): Answer<Outlook>;
  evaluate(
    circuit: OpenCircuit,
    readings: readonly Reading[],
    test: Test,
    options?: Pick<DiagnoseOptions, 'signs' | 'mended'>,
  ): Answer<RankedTest>;
}
