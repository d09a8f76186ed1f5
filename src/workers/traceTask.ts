import { CircuitModel } from '@/core/circuit/model';
import type { Circuit, Setup } from '@/core/circuit/schema';
import { coilFeed } from '@/core/trace/coilFeed';
import { judgeCoil, type CoilJudgement } from '@/core/trace/judgeCoil';
import { partInCircuit } from '@/core/trace/partInCircuit';
import { traceOfKept, type KeptTrace } from '@/core/trace/keptTrace';
import { startOf } from '@/core/trace/inrush';
import { hertzOf, restOf, type WatchedPart } from '@/core/trace/restOf';
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

/** What is asked about what a sound load should draw. */
export interface ExpectedQuestion extends Pick<TraceQuestion, 'circuit' | 'part' | 'on'> {
  /** A plunger, switched on and off again; or a start, until it has settled. */
  kind: WatchedPart['kind'];
}

/**
 * What a sound load draws in its whole circuit: shape and amperes are its own, milliseconds those of the usual kind; alternating current by its
 * heat. Null where no position of the controls leaves it at rest.
 */
export function expectedTrace({ circuit, part, on, kind }: ExpectedQuestion): Trace | null {
  const model = new CircuitModel(circuit);
  const rest = restOf(model, part, on);
  if (!rest) return null;
  const { step, ...times } = EXPECTED[kind];
  const whole = partInCircuit(model, part, { rest, on }, times);
  if (kind === 'dip') return sampled(whole, step);
  return startOf(whole, hertzOf(model, part)).trace;
}
const EXPECTED = {
  dip: { on: 0.04, off: 0.3, end: 0.5, step: 5e-4 },
  inrush: { on: 0.05, end: 1.6, step: 2e-3 },
} as const;
