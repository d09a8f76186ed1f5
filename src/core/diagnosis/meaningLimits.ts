import type { CompiledPart } from '../circuit/compile';
import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';
import { branchAmps, floatingNodes } from '../circuit/world';
import { kindOf } from '../kinds/part/index';
import { accessMinutes } from './access';
import { partsAcross } from './partsAcross';
import { bindTest, predict, predictedValue } from './predict';

/** Why a reading may not mean what it seems to. */
export type MeaningLimit =
  /** Something else lies across what is measured: those parts, and the one that is taken off with least trouble. */
  | { code: 'parallelPath'; parts: string[]; lift: string | null; expected: number }
  /** The meter's own leads are as large as what is judged. */
  | { code: 'leadsDominate'; leadOhms: number }
  /** Nothing ties the point to anything: the meter shows what it picks up. */
  | { code: 'ghostVoltage'; nodes: string[] }
  /** Nothing draws on the run: a corroded wire shows full volts. */
  | { code: 'unloaded'; apart: string[] }
  /** A few volts and milliamps say little about a contact that carries tens of amps. */
  | { code: 'heavyContact'; part: string; amps: number }
  /** A few volts do not break down insulation that fails at working voltage. */
  | { code: 'insulationByOhms' }
  /** Direct current sees a winding's wire only, not what limits it on alternating current. */
  | { code: 'reactiveByOhms'; part: string }
  /** A cold filament, a standing rotor: it reads far less than what it is drawn with, and nobody has said how much. */
  | { code: 'restsLower'; part: string };

/** Current from which a contact is heavy, amperes. */
export const HEAVY_AMPS = 10;
/** Lead resistance of a usual two-lead meter, ohms, and how many times that a reading must be to stand clear of it. */
const LEAD_OHMS = 0.2;
const CLEAR_OF_LEADS = 4;
/** How much below its own value a part reads before another path is worth a word. */
const PARALLEL_SHARE = 0.93;

/** Of what is expected: what rests and moves the reading no further is not worth a word. */
const RESTS_SHARE = 0.9;

/** What limits the meaning of a test's answer on the sound circuit, the gravest first. */
export function meaningLimits(model: CircuitModel, test: Test, leadOhms = LEAD_OHMS): MeaningLimit[] {
  if (!('from' in test)) return [];
  const { compiled } = model;
  const [from, to] = [test.from, test.to].map((name) => compiled.nodeIndex.get(name)!);
  const between = compiled.parts.filter(({ nodes }) => nodes.includes(from!) && nodes.includes(to!));
  const found: MeaningLimit[] = [];
  if (test.kind === 'volts') {
    const bound = bindTest(model, test);
    const floating = floatingNodes(bound.solver.solve(bound.drive));
    const own = [test.from, test.to].filter((name) => floating.includes(name));
    if (own.length > 0) found.push({ code: 'ghostVoltage', nodes: own });
    const { unplugged = [], removed = [], lifted = [] } = test.setup;
    const apart = [...unplugged, ...removed, ...lifted.map(({ part }) => part)];
    if (apart.length > 0) found.push({ code: 'unloaded', apart });
    return found;
  }
  if (test.kind !== 'ohms') return found;
  const expected = predictedValue('ohms', predict(bindTest(model, test), []));
  for (const { part, branches } of between) {
    const contact = part.kind === 'switch' || part.kind === 'relay';
    if (!contact) continue;
    const amps = Math.max(
      ...model.combinations.map((controls) => {
        const world = model.situation({ controls }).solve({ mode: 'live' });
        return Math.max(...branches.map(({ index }) => Math.abs(branchAmps(world, index))));
      }),
    );
    if (amps >= HEAVY_AMPS) found.push({ code: 'heavyContact', part: part.ref, amps });
  }
  if (expected === 'OL' && (from === compiled.frame || to === compiled.frame))
    found.push({ code: 'insulationByOhms' });
  if (typeof expected !== 'number') return found;
  if (expected < CLEAR_OF_LEADS * leadOhms) found.push({ code: 'leadsDominate', leadOhms });
  for (const { part, branch } of partsAcross(model, test)) {
    if (!branch?.ohmsKnown || branch.role !== 'body' || !kindOf(part.part).traits.ohmic) continue;
    if (expected < PARALLEL_SHARE * branch.ohms)
      found.push({ code: 'parallelPath', ...wayAround(model, test, part.index, expected), expected });
    if (branch.reactance > 0) found.push({ code: 'reactiveByOhms', part: part.part.ref });
  }
  return [...found, ...restingLower(model, test, expected)];
}

/** Loads that nobody has said a meter's ohms of, where those move what is read. */
function restingLower(
  model: CircuitModel,
  test: Extract<Test, { kind: 'ohms' }>,
  expected: number,
): MeaningLimit[] {
  const { branches, parts, nodeIndex } = model.compiled;
  const [i, j] = [test.from, test.to].map((name) => nodeIndex.get(name)!) as [number, number];
  const solver = model.situation(test.setup);
  return branches.flatMap(({ index, part, rest }): MeaningLimit[] => {
    if (!rest || rest.said) return [];
    const edits: Edit[] = [{ type: 'ohms', branch: index, ohms: rest.ohms }];
    const lower = solver.solve({ mode: 'ohms' }, edits).changed.pairOhms(i, j) < RESTS_SHARE * expected;
    return lower ? [{ code: 'restsLower', part: parts[part]!.part.ref }] : [];
  });
}

/** What carries the meter's current past a part, and the easiest of it to take off. */
function wayAround(
  model: CircuitModel,
  test: Extract<Test, { kind: 'ohms' }>,
  own: number,
  expected: number,
): { parts: string[]; lift: string | null } {
  const { compiled } = model;
  const [i, j] = [test.from, test.to].map((name) => compiled.nodeIndex.get(name)!) as [number, number];
  const solver = model.situation(test.setup);
  const alone = (part: CompiledPart): number => {
    const edits: Edit[] =
      part.part.kind === 'transformer'
        ? [{ type: 'transformer', part: part.index, ohms: Infinity }]
        : part.branches.map(({ index }) => ({ type: 'ohms', branch: index, ohms: Infinity }));
    return solver.solve({ mode: 'ohms' }, edits).changed.pairOhms(i, j);
  };
  const around = compiled.parts.filter(
    (part) => part.index !== own && alone(part) > expected / PARALLEL_SHARE,
  );
  // What uses the current up is the way round; wires and pins only lead there.
  const bodies = around.filter(({ part }) => !kindOf(part).traits.carries);
  const easiest = [...around].sort((a, b) => accessMinutes(a.part) - accessMinutes(b.part))[0];
  return {
    parts: (bodies.length > 0 ? bodies : around).map(({ part }) => part.ref),
    lift: easiest?.part.ref ?? null,
  };
}
