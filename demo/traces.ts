import { CircuitModel } from '../src/core/circuit/model';
import type { Circuit } from '../src/core/circuit/schema';
import { seededRandom } from '../src/core/random';
import { partInCircuit } from '../src/core/trace/partInCircuit';
import { restOf, workedIn } from '../src/core/trace/restOf';
import { sampled, type Trace } from '../src/core/trace/trace';
import { pulses } from '../src/core/transient/elements';
import { USUAL_IRON, type Iron } from '../src/core/transient/irons';
import { runInTime } from '../src/core/transient/run';
import { writeTable } from '../src/formats/table';
import { loadDemoCircuit } from './shed';

/** Traces that ship as files a recorder would save: made by the circuits themselves, with a clamp's noise. */
export interface DemoTrace {
  file: string;
  /** What it is of, for people. */
  of: string;
  make: () => Trace;
}

const STEP_SECONDS = 2e-4;
const NOISE = 0.004;
/** The iron of the tiller float's coil, as it is in every groomer of the demonstration. */
const FLOAT_IRON: Iron = { ...USUAL_IRON, openSeconds: 9e-3, grows: 3.2, strokeMetres: 2.4e-3 };

/** A coil's current in its circuit, on after 40 ms and off after 300, as a clamp and a recorder show it. */
export function coilTrace(circuit: Circuit, ref: string, iron: Iron, seed: number): Trace {
  const model = new CircuitModel(circuit);
  const on = workedIn(model, ref)!.setup;
  const rest = restOf(model, ref, on)!;
  const course = partInCircuit(
    model,
    ref,
    { rest, on },
    { on: 0.04, off: 0.3, end: 0.5 },
    [],
    new Map([[ref, iron]]),
  );
  return asRecorded(sampled(course, STEP_SECONDS), seed);
}

/** The sound tiller float of any groomer. */
export function soundFloat(circuit: Circuit, seed: number): Trace {
  return coilTrace(circuit, 'Y14', FLOAT_IRON, seed);
}

export const DEMO_TRACES: readonly DemoTrace[] = [
  {
    file: 'tiller-float-sound.csv',
    of: 'The tiller float’s coil when it was sound',
    make: () => soundFloat(loadDemoCircuit('groomer-tiller-float'), 5),
  },
  {
    file: 'tiller-float-sticky.csv',
    of: 'The tiller float’s coil with grease gone hard in its stem',
    make: () => coilTrace(loadDemoCircuit('groomer-tiller-float'), 'Y14', { ...FLOAT_IRON, damping: 34 }, 6),
  },
  {
    file: 'bucket-lock-relay-stays-in.csv',
    of: 'The bucket lock’s relay whose armature does not come back',
    make: () => coilTrace(loadDemoCircuit('loader-bucket-lock'), 'K5', { ...USUAL_IRON, jammed: 'in' }, 7),
  },
  { file: 'pilot-valve-pulsed.csv', of: 'A pilot valve’s coil, pulsed', make: pulsedValve },
  {
    file: 'fill-valve-inrush.csv',
    of: 'The pump house’s fill valve pulling in on alternating volts, as a clamp that shows effective values has it',
    make: valveInrush,
  },
];

/** A file of a trace, as a recorder writes it. */
export function traceCsv({ seconds, values }: Trace): string {
  const rows = seconds.map((at, k) => ({ 'Time (s)': at.toFixed(5), 'Current (A)': values[k]!.toFixed(4) }));
  return writeTable(['Time (s)', 'Current (A)'], rows);
}

function pulsedValve(): Trace {
  const elements = [
    { kind: 'source', a: 1, b: 0, volts: pulses(13.1, 120, 0.45) },
    { kind: 'inductor', a: 1, b: 0, henries: 0.021, ohms: 5.3 },
  ] as const;
  const course = runInTime(2, elements, 0.2, { mostStep: 5e-4 });
  const amps = { seconds: [...course.seconds], values: [...course.own[1]![0]!] };
  return asRecorded(sampled(amps, STEP_SECONDS), 8);
}

/** The envelope of an alternating coil's current: high while its armature is open, a fifth of that once it has closed. */
function valveInrush(): Trace {
  const seconds = Array.from({ length: 1500 }, (_one, k) => k * 1e-3);
  const envelope = (t: number) =>
    t < 0.1 ? 0 : t < 0.128 ? 1.9 : 0.38 + 1.52 * Math.exp(-(t - 0.128) / 0.009);
  return asRecorded({ seconds, values: seconds.map(envelope) }, 9);
}

function asRecorded({ seconds, values }: Trace, seed: number): Trace {
  const random = seededRandom(seed);
  const range = Math.max(...values.map(Math.abs), 0.05);
  return { seconds, values: values.map((value) => value + NOISE * range * random.normal()) };
}
