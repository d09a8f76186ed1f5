import { kindOf } from '../kinds/part';
import type { CompiledPart } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import type { Reading, Test } from '../circuit/schema';
import { partOfTest } from '../circuit/testPlace';
import { branchAmps, conductance } from '../circuit/world';
import { insulationMark, type InsulationPass } from '../tables/insulationPass';
import type { DropMark, DropPlace, ShopMarks } from '../tables/marks';
import { HEAVY_AMPS } from './meaningLimits';
import { testKey } from './observations';
import { partsAcross } from './partsAcross';
import { ownVolts } from './testerVolts';
import { areTwins } from './twins';

/** What this function read when a job on it was closed. */
export interface Baseline {
  /** Of its test: see `testKey`. */
  key: string;
  value: Reading['value'];
  jobNumber: number;
  at: string;
}

/** Something a reading is held against, and where it comes from. */
export type Yardstick =
  /** What the drawing says of the part itself, at 20 °C. */
  | { code: 'drawn'; part: string; ohms: number; tolerance: number }
  /** An identical neighbour, read in the same way in this job. */
  | { code: 'twin'; part: string; value: Reading['value'] }
  /** The same test when it was last proved good. */
  | ({ code: 'past' } & Omit<Baseline, 'key'>)
  /** A shop rule for what may be lost at working current. */
  | ({ code: 'drop'; place: DropPlace } & DropMark)
  /** The least insulation, of a standard or by the site's policy; infinite where only over range passes. */
  | { code: 'insulation'; ohms: number; by: Exclude<InsulationPass, 'table'> | { standard: string } };

/** Sound volts over a ground path are below this share of the supply. */
const GROUND_SHARE = 0.1;
const TWELVE_VOLT_MOST = 16;
/** Readings that say something of one part by themselves. */
const OF_A_PART: readonly Test['kind'][] = ['ohms', 'amps', 'diode'];
/** How near a reading must be to a part's own figure to be that part's alone. */
const ALONE_SHARE = 0.93;
/** Below this nothing is drawn that volts could be lost to, amperes. */
const DRAWS_AMPS = 0.01;

/** What the answer of a test is held against, the most trusted first: the drawing, a twin, its own past, a rule. */
export function yardsticks(
  model: CircuitModel,
  test: Test,
  {
    readings,
    baselines,
    marks,
  }: { readings: readonly Reading[]; baselines: readonly Baseline[]; marks: ShopMarks },
): Yardstick[] {
  const key = testKey(test);
  const past = baselines.find((one) => one.key === key);
  const drop = dropPlace(model, test);
  const insulation =
    test.kind === 'insulation' ? insulationMark(ownVolts(model, [test.from, test.to]), marks) : null;
  return [
    ...drawnOhms(model, test),
    ...twinReadings(model, test, readings),
    ...(past ? [{ code: 'past' as const, value: past.value, jobNumber: past.jobNumber, at: past.at }] : []),
    ...(drop ? [{ code: 'drop' as const, place: drop, ...marks.drops[drop] }] : []),
    ...(insulation ? [{ code: 'insulation' as const, ...insulation }] : []),
  ];
}

/**
 * What the drawing says of a part: only where the reading is that part alone. With another way beside it the sound circuit reads less,
 * and the part's own figure would accuse what is good; then the tag says what lies across it (`meaningLimits`).
 */
function drawnOhms(model: CircuitModel, test: Test): Yardstick[] {
  if (test.kind !== 'ohms') return [];
  const [i, j] = [test.from, test.to].map((name) => model.compiled.nodeIndex.get(name)!) as [number, number];
  const there = model.situation(test.setup).solve({ mode: 'ohms' }).changed.pairOhms(i, j);
  return partsAcross(model, test).flatMap(({ part: { part }, branch }): Yardstick[] => {
    if (!branch?.ohmsKnown || branch.role !== 'body') return [];
    if (!kindOf(part).traits.ohmic && !branch.rest?.said) return [];
    const { ohms, tolerance } = branch.rest ?? branch;
    return there < ALONE_SHARE * ohms || there > ohms / ALONE_SHARE
      ? []
      : [{ code: 'drawn', part: part.ref, ohms, tolerance }];
  });
}

/** The latest reading of the same kind across, or through, an identical neighbour. */
function twinReadings(model: CircuitModel, test: Test, readings: readonly Reading[]): Yardstick[] {
  if (!OF_A_PART.includes(test.kind)) return [];
  const own = partRead(model, test);
  if (!own) return [];
  for (const reading of readings.toReversed()) {
    const other = reading.kind === test.kind ? partRead(model, reading) : undefined;
    if (other && other.index !== own.index && areTwins(own, other))
      return [{ code: 'twin', part: other.part.ref, value: reading.value }];
  }
  return [];
}

/** The part a test is of: named by it, or lying between its two leads. */
function partRead(model: CircuitModel, test: Test): CompiledPart | undefined {
  const { parts, partIndex } = model.compiled;
  const ref = partOfTest(test);
  return ref === null ? partsAcross(model, test)[0]?.part : parts[partIndex.get(ref)!];
}

/** Which rule for lost volts a test falls under; null where no current flows or none fits. */
export function dropPlace(model: CircuitModel, test: Test): DropPlace | null {
  if (test.kind !== 'volts') return null;
  const { compiled } = model;
  const [from, to] = [test.from, test.to].map((name) => compiled.nodeIndex.get(name)!) as [number, number];
  const world = model.situation(test.setup).solve({ mode: 'live' });
  const flows = (branch: number) =>
    conductance(world, branch) > 0 ? Math.abs(branchAmps(world, branch)) : 0;
  const amps = (part: CompiledPart) => Math.max(0, ...part.branches.map(({ index }) => flows(index)));
  const loaded = partsAcross(model, test).find(({ branch }) => branch && flows(branch.index) > DRAWS_AMPS);
  const alternating = compiled.alternating[from] === 1;
  if (loaded) {
    const { kind } = loaded.part.part;
    if (kind === 'pin') return 'joint';
    if (kind === 'switch' || kind === 'relay') {
      if (alternating) return 'linePole';
      return flows(loaded.branch!.index) >= HEAVY_AMPS ? 'heavyContact' : null;
    }
  }
  if (to !== compiled.frame || alternating) return null;
  const volts = Math.abs(world.changed.pairVolts(from, to));
  if (Number.isNaN(volts) || volts > GROUND_SHARE * compiled.supplyVolts) return null;
  // What comes down to this point on its way to the frame.
  const loads = compiled.parts.filter(({ nodes }) => nodes.includes(from));
  if (loads.some(({ part }) => part.kind === 'driver' || part.kind === 'sensor3'))
    return 'groundOfElectronics';
  if (Math.max(0, ...loads.map(amps)) < HEAVY_AMPS) return null;
  return compiled.supplyVolts <= TWELVE_VOLT_MOST ? 'ground12' : 'ground24';
}
