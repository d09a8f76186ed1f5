import { CircuitModel } from '@/core/circuit/model';
import type { Circuit, Setup } from '@/core/circuit/schema';
import { coilFeed } from '@/core/trace/coilFeed';
import { judgeCoil, type CoilJudgement } from '@/core/trace/judgeCoil';
import { coilInCircuit } from '@/core/trace/expectedCoil';
import { traceOfKept, type KeptTrace } from '@/core/trace/keptTrace';
import { restOf } from '@/core/trace/restOf';
import { sampled, type Trace } from '@/core/trace/trace';
import { readTraceSound } from '@/formats/traceSound';
import { readTraceText, type TraceFile } from '@/formats/traceFile';

/** What is asked about a coil's trace. */
export interface TraceQuestion {
  circuit: Circuit;
  part: string;
  on: Setup;
  amps: KeptTrace;
  sound: KeptTrace | null;
}

/** Reads a file of a trace by its name: a sound by its bytes, anything else as text. Throws `InputError` where it is none. */
export async function readTraceFile(file: Blob, name: string): Promise<TraceFile> {
  if (/\.wav$/i.test(name)) return readTraceSound(new Uint8Array(await file.arrayBuffer()));
  return readTraceText(await file.text());
}

/** Weighs a coil's trace. Throws `InputError` for a part that draws none. */
export function judgeTrace({ circuit, part, on, amps, sound }: TraceQuestion): CoilJudgement {
  const feed = coilFeed(new CircuitModel(circuit), part, on);
  return judgeCoil(feed, traceOfKept(amps), sound && traceOfKept(sound));
}

/** What a sound coil draws in its whole circuit, switched on and off again: shape and amperes are its own, milliseconds those of the usual kind. Null where its circuit has no course in time. */
export function expectedTrace({
  circuit,
  part,
  on,
}: Pick<TraceQuestion, 'circuit' | 'part' | 'on'>): Trace | null {
  const model = new CircuitModel(circuit);
  const rest = restOf(model, part, on);
  if (!rest) return null;
  try {
    return sampled(coilInCircuit(model, part, { rest, on }, EXPECTED), EXPECTED.step);
  } catch (error) {
    // A transformer, an alternating neighbour: nothing is drawn then.
    if (error instanceof RangeError) return null;
    throw error;
  }
}
const EXPECTED = { on: 0.04, off: 0.3, end: 0.5, step: 5e-4 };
