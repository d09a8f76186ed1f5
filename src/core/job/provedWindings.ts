import type { CompiledPart } from '../circuit/compile';
import { ohmsAt20 } from '../circuit/copper';
import type { CircuitModel } from '../circuit/model';
import type { Reading } from '../circuit/schema';
import { windingRead } from '../diagnosis/windingRead';
import type { JobState } from './reduceJob';

/** What a good winding read in a job that was handed over. */
export interface ProvedWinding {
  part: string;
  /** Equal for windings of one type: see {@link windingType}. */
  type: string;
  /** Leads off; at 20 °C where its temperature was taken, else as it was read. */
  ohms: number;
  /** Its temperature was taken. */
  atReference: boolean;
}

/** One of them, and where it comes from. */
export interface PastWinding extends ProvedWinding {
  /** Of this very function, or of another of the shed. */
  own: boolean;
  machine: string;
  jobNumber: number;
  at: string;
}

/** Steps of the drawing's ohms that count as one type, of their natural logarithm: about five percent. */
const OHMS_STEP = 0.05;

/** What makes windings alike over the machines of a shed: kind, volts, and what the drawings say of them. Null for what is no winding. */
export function windingType({ part, branches }: CompiledPart): string | null {
  if (part.kind !== 'coil' && part.kind !== 'relay') return null;
  const { ohms, henries, va, sealedAmps } = part;
  return JSON.stringify([
    part.kind,
    Math.round(branches[0]!.volts),
    ohms === undefined ? null : Math.round(Math.log(ohms) / OHMS_STEP),
    henries ?? null,
    va ?? null,
    sealedAmps ?? null,
  ]);
}

/**
 * Windings that a job leaves proved: once it is handed over, what was read of those that were neither replaced nor repaired, what was
 * read after the repair, and the spare that was fitted, as it read on the bench. A display that wandered proves nothing. The last
 * reading of each counts; nothing while the job is open.
 */
export function provedWindings(model: CircuitModel, state: JobState): ProvedWinding[] {
  if (!state.handOver) return [];
  const found = new Map<string, ProvedWinding>();
  const add = (part: CompiledPart, value: number, celsius?: number) => {
    const type = windingType(part);
    if (type === null || value <= 0) return;
    found.set(part.part.ref, {
      part: part.part.ref,
      type,
      ohms: celsius === undefined ? value : ohmsAt20(value, celsius),
      atReference: celsius !== undefined,
    });
  };
  const read = (reading: Reading) => {
    if (reading.kind !== 'ohms' || typeof reading.value !== 'number' || reading.unsteady) return;
    const winding = windingRead(model, reading);
    if (winding && !(mended.has(winding.part.part.ref) && !isAfter.has(reading)))
      add(winding.part, reading.value, reading.celsius);
  };
  const mended = new Set(
    [...state.fixes, ...(state.decision ? [state.decision] : [])].map(({ body }) => body.part),
  );
  const isAfter = new Set(state.after.map(({ reading }) => reading));
  state.readings.forEach(({ reading }) => read(reading));
  const { partIndex, parts } = model.compiled;
  for (const { body } of state.spareTests) {
    const at = partIndex.get(body.part);
    if (at === undefined || body.bench !== 'winding' || !body.good || typeof body.value !== 'number')
      continue;
    if (state.fixes.some((fix) => fix.body.part === body.part)) add(parts[at]!, body.value);
  }
  state.after.forEach(({ reading }) => read(reading));
  return [...found.values()];
}
