import type { CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';
import { branchAmps, floatingNodes } from '../circuit/world';
import { bindTest, predict, predictedValue } from './predict';

/** Why a reading may not mean what it seems to. */
export type MeaningLimit =
  /** Something else lies across what is measured; names of those parts. */
  | { code: 'parallelPath'; parts: string[]; expected: number }
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
  | { code: 'reactiveByOhms'; part: string };

/** Current from which a contact is heavy, amperes. */
export const HEAVY_AMPS = 10;
/** Lead resistance of a usual two-lead meter, ohms, and how many times that a reading must be to stand clear of it. */
const LEAD_OHMS = 0.2;
const CLEAR_OF_LEADS = 4;
/** How much below its own value a part reads before another path is worth a word. */
const PARALLEL_SHARE = 0.93;

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
  for (const { part, branches } of between) {
    if (part.kind !== 'coil' && part.kind !== 'resistor' && part.kind !== 'heater' && part.kind !== 'lamp')
      continue;
    if (expected < PARALLEL_SHARE * part.ohms) {
      const parts = between.filter((other) => other.part.ref !== part.ref).map((other) => other.part.ref);
      found.push({ code: 'parallelPath', parts, expected });
    }
    if (branches.some(({ reactance }) => reactance > 0))
      found.push({ code: 'reactiveByOhms', part: part.ref });
  }
  return found;
}
