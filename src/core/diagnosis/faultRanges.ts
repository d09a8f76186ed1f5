import { LEAST_OHMS, type Branch } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import type { FaultContext } from '../kinds/part/module';
import { leak, type FaultName, type FaultVariant, type SeverityRange } from './faultTypes';

/** Below this resistance to the frame a leak to the frame is harmless, and this much less likely to be the cause. */
const BONDED_OHMS = 0.3;
const HARMLESS = 0.02;
/** Path resistances beyond the range that changes the function, still found by an insulation tester. */
export const FAINTEST_LEAK_OHMS = 5e8;
const WORST_JOINT_OHMS = 2e6;
/** Heat in one contact or joint that wears it out: 0.1 V at 100 A, where a heavy contact is no longer good (reference tables, verify). */
const BURNING_WATTS = 10;
/** Volts at which weak insulation may begin to conduct, over the highest it sees at work; each is a variant, none is reported. */
const BREAKDOWN_SHARES = [0.1, 0.35, 0.7, 2, 6, 18];

/** What of a circuit its kinds need to know of their faults: worked out once, asked for every part. */
export type FaultRanges = Omit<FaultContext<FaultName>, 'part' | 'body' | 'add' | 'movesSpool'>;

/** Ranges that matter on this circuit, and where leaks to the frame show. */
export function faultRanges(model: CircuitModel): FaultRanges {
  const { compiled } = model;
  const loops = model.loopOhms();
  /** Loop a leak at this branch competes with: the load's, or the whole supply's when it never carries current. */
  const finite = [...loops].filter(Number.isFinite);
  const least = finite.length > 0 ? Math.min(...finite) : 10;
  const loopOf = ({ index }: Branch) => (Number.isFinite(loops[index]!) ? loops[index]! : least);
  const series = (branch: Branch): SeverityRange => {
    const loop = loopOf(branch);
    // What carries much burns long before the load is short of volts; what carries nothing, or a fluid, does not.
    const amps = branch.domain === 'electrical' ? compiled.supplyVolts / loops[branch.index]! : 0;
    const burning = BURNING_WATTS / (amps * amps);
    const starved = 0.05 * loop;
    const matters = branch.ohms + Math.min(starved, burning);
    return {
      unit: 'ohms',
      least: Math.min(
        branch.ohms * 1.5 + 0.01 * loop,
        burning < starved ? branch.ohms + burning / 4 : matters,
      ),
      most: Math.max(WORST_JOINT_OHMS, 1e3 * matters),
      mainLeast: matters,
      mainMost: 100 * loop + branch.ohms,
    };
  };
  const leakRange = (branch: Branch): SeverityRange => ({
    unit: 'ohms',
    least: LEAST_OHMS * 100,
    most: FAINTEST_LEAK_OHMS,
    mainLeast: LEAST_OHMS * 100,
    mainMost: Math.max(10 * loopOf(branch), 1),
  });
  const rest = model.situation({}).solve({ mode: 'ohms' });
  /** Bonded to the frame on the sound circuit: a leak to the frame here changes nothing. */
  const bonded = (node: number) => rest.changed.pairOhms(node, compiled.frame) < BONDED_OHMS;
  const atFrame = (branch: Branch) => leakEnds(branch).every((end) => bonded(branch[end]));
  /** Ends of a branch that a leak to the frame would show at. */
  const leakEnds = (branch: Branch) => {
    const ends = (['a', 'b'] as const).filter((end) => branch[end] !== compiled.frame);
    return ends.length > 0 ? ends : (['a'] as const);
  };
  const leaks = (branch: Branch): FaultVariant[] =>
    leakEnds(branch).map((end, at) =>
      leak(branch, end, (at === 0 ? 2 : 1) * (bonded(branch[end]) ? HARMLESS : 1)),
    );
  const weakSpots = (branch: Branch): FaultVariant[] =>
    BREAKDOWN_SHARES.map((share) => {
      const at = { branch: branch.index, end: leakEnds(branch)[0]! };
      const volts = share * model.peakVolts(branch[at.end]);
      return {
        weight: share < 1 ? 2 : 1,
        edits: (ohms) => [{ type: 'leak', at, ohms, breakdownVolts: volts }],
        breakdown: { at, volts, worn: (ohms) => [{ type: 'leak', at, ohms }] },
      };
    });
  const weakRange = (branch: Branch): SeverityRange => ({
    ...leakRange(branch),
    least: 0.05,
    mainLeast: 0.05,
    mainMost: 300 * loopOf(branch),
  });
  const turns = (branch: Branch): SeverityRange => ({
    unit: 'ohms',
    least: branch.ohms * 0.004,
    most: branch.ohms * 0.95,
    mainLeast: branch.ohms * 0.02,
    mainMost: branch.ohms * 0.88,
  });
  return {
    frame: compiled.frame,
    series,
    turns,
    leakRange,
    leaks,
    weakRange,
    weakSpots,
    bondedFactor: (branch) => (atFrame(branch) ? HARMLESS : 1),
  };
}
