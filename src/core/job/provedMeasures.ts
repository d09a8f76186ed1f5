import type { CompiledPart } from '../circuit/compile';
import { COPPER_PER_K, ohmsAt20 } from '../circuit/copper';
import { insulationAt20 } from '../circuit/insulationWarmth';
import { likeness } from '../circuit/likeness';
import type { CircuitModel } from '../circuit/model';
import type { Reading, Test } from '../circuit/schema';
import { partOfTest } from '../circuit/testPlace';
import { supplySigma } from '../diagnosis/commonScatter';
import { totalSigma } from '../diagnosis/likelihood';
import { testKey } from '../diagnosis/observations';
import { partsAcross } from '../diagnosis/partsAcross';
import { isWound, ohmicRead } from '../diagnosis/windingRead';
import { kindOf } from '../kinds/part/index';
import { figureOf, readingKind } from '../kinds/reading/index';
import type { JobState, PinnedReading } from './reduceJob';

/** What is followed over the years: windings, elements and resistors by their own ohms, everything else by its kind of reading. */
export const MEASURE_KINDS = [
  'winding',
  'ohms',
  'insulation',
  'volts',
  'amps',
  'diode',
  'pressure',
  'changes',
  'hertz',
] as const;
export type MeasureKind = (typeof MEASURE_KINDS)[number];

/** What a sound machine read at one place, as a job that was handed over left it. */
export interface ProvedMeasure {
  kind: MeasureKind;
  /** Equal for the same question of one function. */
  place: string;
  /** Equal for the same question of functions or windings of one type, whichever machine they are in. */
  type: string;
  /** The part that it speaks of; null where it is of a point of the run. */
  part: string | null;
  /** In the unit of its kind: what is wound at 20 °C where their temperature was taken, what rises with the supply at its rated volts. */
  value: number;
  /** One standard deviation of the value, in its unit. */
  sigma: number;
  /** What moves it that is no wear was taken with it, and taken out: temperature, supply. */
  corrected: boolean;
  /** Over the meter's range: at least so much. */
  over: boolean;
  /** When it was read, by its writer's clock. */
  at: string;
  /** How it is read again; null for a spare on the bench. */
  test: Test | null;
}

/** A good winding of an earlier job, and where it comes from. */
export interface PastWinding {
  part: string;
  /** Leads off; at 20 °C where its temperature was taken, else as it was read. */
  ohms: number;
  atReference: boolean;
  /** Equal for windings of one type: see {@link windingType}. */
  type: string;
  /** Of this very function, or of another of the shed. */
  own: boolean;
  machine: string;
  jobNumber: number;
  at: string;
}

/** Steps of the drawing's ohms that count as one type, of their natural logarithm: about five percent. */
const OHMS_STEP = 0.05;
/** What a drawing may say of one. */
type Said = Partial<Record<'ohms' | 'henries' | 'va' | 'sealedAmps', number>>;
/** Kelvin, one standard deviation, that a winding of unknown temperature stands off 20 °C. */
const UNKNOWN_KELVIN = 15;

/**
 * What makes windings, elements and resistors alike over the machines of a shed: kind, volts, and what the drawings say of them. Null for
 * what has no ohms of its own.
 */
export function windingType({ part, branches }: CompiledPart): string | null {
  if (!kindOf(part).traits.ohmic) return null;
  const { ohms, henries, va, sealedAmps } = part as Said;
  return JSON.stringify([
    part.kind,
    Math.round(branches[0]!.volts),
    ohms === undefined ? null : Math.round(Math.log(ohms) / OHMS_STEP),
    henries ?? null,
    va ?? null,
    sealedAmps ?? null,
  ]);
}

/** What a job leaves proved: {@link measuresNow} once it is handed over; nothing while it is open. */
export function provedMeasures(model: CircuitModel, state: JobState): ProvedMeasure[] {
  return state.handOver ? measuresNow(model, state) : [];
}

/**
 * What a job would leave proved if it ended now, the last of each place: windings that were neither replaced nor repaired, the spare that
 * was fitted as it read on the bench, and every figure that was read after the repair. Before it nothing but a winding counts, for the fault
 * was in all else. A display that wandered proves nothing.
 */
export function measuresNow(model: CircuitModel, state: JobState): ProvedMeasure[] {
  const found = new Map<string, ProvedMeasure>();
  const add = (one: ProvedMeasure | null) => one && found.set(one.place, one);
  const mended = mendedParts(state);
  for (const pinned of state.readings) {
    const winding = ofWinding(model, pinned);
    if (winding?.part && !mended.has(winding.part)) add(winding);
  }
  const { partIndex, parts } = model.compiled;
  for (const { body, at } of state.spareTests) {
    const index = partIndex.get(body.part);
    if (index === undefined || body.bench !== 'winding' || !body.good || typeof body.value !== 'number')
      continue;
    if (state.fixes.some((fix) => fix.body.part === body.part))
      add(windingMeasure(parts[index]!, body.value, { at, test: null }));
  }
  // What a re-test read before its own work, it read with the fault in.
  const after = state.after.filter(({ position }) => position > state.lastFix);
  const supply = supplyRead(model, after);
  for (const pinned of after) add(ofWinding(model, pinned) ?? ofFigure(model, pinned, supply));
  return [...found.values()];
}

/**
 * Figures that a job leaves as the machine's own yardsticks: of each line of the list of proofs that was shown in the end, and not left with
 * a reason, the last. What was read wrong is followed in a trend, but measures nothing.
 */
export function keptFigures({ after, proofs }: JobState): PinnedReading[] {
  const kept = new Map<string, PinnedReading>();
  for (const pinned of after) {
    const { check } = pinned.entry.body;
    const line = check === undefined ? undefined : proofs.get(check)?.body;
    if (check !== undefined && line?.done && !line.reason) kept.set(check, pinned);
  }
  return [...kept.values()].filter(({ reading }) => typeof reading.value === 'number');
}

/** Parts that the job changed or worked on. */
export function mendedParts({ fixes, decision }: JobState): ReadonlySet<string> {
  return new Set([...fixes, ...(decision ? [decision] : [])].map(({ body }) => body.part));
}

function ofWinding(model: CircuitModel, { entry, reading }: PinnedReading): ProvedMeasure | null {
  if (reading.kind !== 'ohms' || typeof reading.value !== 'number' || reading.unsteady) return null;
  const winding = ohmicRead(model, reading);
  return (
    winding &&
    windingMeasure(winding.part, reading.value, {
      at: entry.at,
      test: testOf(reading),
      ...(reading.celsius === undefined ? {} : { celsius: reading.celsius }),
    })
  );
}

function windingMeasure(
  part: CompiledPart,
  ohms: number,
  { at, test, celsius }: { at: string; test: Test | null; celsius?: number },
): ProvedMeasure | null {
  const type = windingType(part);
  if (type === null || ohms <= 0) return null;
  const wound = isWound(part);
  const corrected = !wound || celsius !== undefined;
  const value = wound && celsius !== undefined ? ohmsAt20(ohms, celsius) : ohms;
  const unknown = corrected ? 0 : COPPER_PER_K * UNKNOWN_KELVIN * value;
  return {
    kind: 'winding',
    place: `winding|${part.part.ref}`,
    type,
    part: part.part.ref,
    value,
    sigma: Math.hypot(totalSigma('ohms', value, 0, undefined), unknown),
    corrected,
    over: false,
    at,
    test,
  };
}

/** What stood at the one supply of a circuit while it was proved, over its rated volts; null where that was not read. */
function supplyRead({ compiled }: CircuitModel, after: readonly PinnedReading[]): number | null {
  const sources = compiled.parts.filter(({ part }) => part.kind === 'source');
  const [source] = sources;
  if (sources.length !== 1 || source?.part.kind !== 'source' || source.part.volts === 0) return null;
  const ends = new Set(source.nodes.map((node) => compiled.nodeNames[node]!));
  const read = after.findLast(
    ({ reading }) =>
      reading.kind === 'volts' &&
      typeof reading.value === 'number' &&
      !reading.unsteady &&
      ends.has(reading.from) &&
      ends.has(reading.to),
  );
  return read ? Math.abs((read.reading.value as number) / source.part.volts) : null;
}

function ofFigure(
  model: CircuitModel,
  { entry, reading }: PinnedReading,
  supply: number | null,
): ProvedMeasure | null {
  const { kind, value: read, unsteady } = reading;
  if (readingKind(kind).shows.is !== 'figure' || unsteady) return null;
  const shows = figureOf(kind);
  const over = read === 'OL';
  if (!over && typeof read !== 'number') return null;
  // A switch that does not change over has no point that could be followed.
  if (over && kind === 'changes') return null;
  // Over range is at least the end of it; where no end is known it says nothing that could be followed.
  const raw = over ? shows.over : shows.unsigned ? Math.abs(Number(read)) : Number(read);
  if (!Number.isFinite(raw)) return null;
  // The supply itself is what it is read to be.
  const ofSupply = isSupply(model, reading);
  const scaled = shows.withSupply && !ofSupply && supply !== null && supply > 0;
  // Of insulation what it would read at 20 °C; over range stays what the tester ends at.
  const warm = reading.kind === 'insulation' ? reading.celsius : undefined;
  const value = scaled ? raw / supply : warm !== undefined && !over ? insulationAt20(raw, warm) : raw;
  const unknown = shows.withSupply && !scaled && !ofSupply ? supplySigma(model) * Math.abs(value) : 0;
  const place = testKey(reading);
  return {
    kind: kind as MeasureKind,
    place,
    type: `${place}|${likeness(model.compiled.circuit)}`,
    part: partOfReading(model, reading),
    value,
    sigma: Math.hypot(totalSigma(kind, value, 0, reading.meter), unknown),
    corrected: kind === 'insulation' ? warm !== undefined : !shows.withSupply || scaled || ofSupply,
    over,
    at: entry.at,
    test: testOf(reading),
  };
}

/** Whether a reading is of a supply's own volts. */
function isSupply(model: CircuitModel, reading: Reading): boolean {
  return (
    reading.kind === 'volts' && partsAcross(model, reading).some(({ part }) => part.part.kind === 'source')
  );
}

/** The one part that a reading is across or through; null where it is of a point, or of several parts. */
function partOfReading(model: CircuitModel, reading: Reading): string | null {
  const named = partOfTest(reading);
  if (named !== null) return named;
  const across = new Set(partsAcross(model, reading).map(({ part }) => part.part.ref));
  const [only] = across;
  return across.size === 1 ? only! : null;
}

/** The test that a reading answered, without what was found. */
function testOf(reading: Reading): Test {
  const { value: _value, unsteady: _unsteady, ...rest } = reading;
  const test: Record<string, unknown> = rest;
  delete test.celsius;
  delete test.seconds;
  return test as unknown as Test;
}
