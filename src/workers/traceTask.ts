import { CircuitModel } from '@/core/circuit/model';
import type { Circuit, Setup } from '@/core/circuit/schema';
import { coilFeed } from '@/core/trace/coilFeed';
import { judgeCoil, type CoilJudgement } from '@/core/trace/judgeCoil';
import { traceOfKept, type KeptTrace } from '@/core/trace/keptTrace';
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
