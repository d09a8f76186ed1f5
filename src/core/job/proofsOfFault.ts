import { isOfRefrigerant, REFRIGERANT_CARES } from '../safety/refrigerant';
import { oncePerModel, type CircuitModel } from '../circuit/model';
import type { Circumstance } from '../circuit/circumstances';
import type { Test } from '../circuit/schema';
import { nodesOfTest } from '../circuit/testPlace';
import { branchAmps } from '../circuit/world';
import { listCandidateTests } from '../diagnosis/candidateTests';
import { leaksBelow } from '../diagnosis/outcomes';
import { LIVE_AMPS, type Pattern } from '../diagnosis/patterns';
import { kindOf } from '../kinds/part';
import type { Proof } from './proofList';
import type { JobState } from './reduceJob';
import { isSeenWorking } from './seenWork';

/** What lets current out of its way: afterwards the insulation is shown, and that the fuse holds. */
const LEAKS: readonly string[] = ['shortToFrame', 'weakInsulation', 'shortBetween', 'shortToSupply'];
const BLOWS: readonly string[] = [...LEAKS, 'short', 'shortedTurns', 'reversed'];
/** Minutes that a fuse has to hold under load after the mend (shop rule), and where it used to hold for minutes before it went. */
const HOLDS_MINUTES = 5;
const HOLDS_LONG_MINUTES = 30;

type Insulation = Extract<Test, { kind: 'insulation' }>;

/** What has to be shown because of what was wrong: a mend is proved by the reading that was bad. */
export function ofTheFault(model: CircuitModel, state: JobState, patterns: readonly Pattern[]): Proof[] {
  return [
    ...insulation(model, state),
    ...fuses(model, state, patterns),
    ...tightness(model, state),
    ...cares(model, state),
    ...asComplained(model, state, patterns),
  ];
}

/** When a mend can be shown again as the fault showed itself; how a machine failed otherwise is no circumstance to repeat. */
const SHOWN_AGAIN: Readonly<Record<Circumstance, boolean>> = {
  atOnce: false,
  onCommand: false,
  afterMinutes: true,
  hot: true,
  wet: true,
  bumps: true,
  comesAndGoes: true,
  betterWarm: true,
  afterPause: true,
  movesByItself: false,
  doesNotStop: false,
  wrongOneMoves: false,
  shock: false,
  fuseHoldsSeconds: false,
  fuseHoldsMinutes: false,
};

/** A fault that came on bumps or in the wet is not mended until it works on bumps or in the wet. */
function asComplained(
  model: CircuitModel,
  { decision, when, readings }: JobState,
  patterns: readonly Pattern[],
): Proof[] {
  const again = when.filter((one) => SHOWN_AGAIN[one]);
  if (again.length === 0 || !decision || decision.body.action === 'nothing') return [];
  const failed = readings.find(
    ({ reading }) => reading.kind === 'function' && (reading.value === 'dead' || reading.value === 'weak'),
  )?.reading;
  const seen = patterns.flatMap(({ setup, loads, driven }) =>
    [...driven, ...loads].flatMap((part) =>
      isSeenWorking(model, part, driven.length > 0) ? [{ part, setup }] : [],
    ),
  );
  const shown = failed?.kind === 'function' ? { part: failed.part, setup: failed.setup } : seen[0];
  if (!shown) return [];
  return again.map((one) => ({
    id: `again ${one} ${shown.part}`,
    kind: 'asComplained',
    test: { kind: 'function', ...shown },
    part: shown.part,
    when: one,
  }));
}

/** The insulation readings that leaked, once more; one at the mended part where none was taken. */
function insulation(model: CircuitModel, { decision, readings }: JobState): Proof[] {
  const least = ({ testVolts }: Insulation) => leaksBelow(testVolts);
  const tests = new Map<string, Insulation>();
  for (const { reading } of readings) {
    if (reading.kind !== 'insulation') continue;
    const { value, ...test } = reading;
    if (typeof value === 'number' && value < least(test)) tests.set(placeOf(test), test);
    else tests.delete(placeOf(test));
  }
  if (tests.size === 0 && decision && LEAKS.includes(decision.body.fault)) {
    const test = insulationAt(model, decision.body.part);
    if (test) tests.set(placeOf(test), test);
  }
  return [...tests].map(([key, test]) => ({
    id: `insulation ${key}`,
    kind: 'insulation',
    test,
    least: least(test),
  }));
}

/** Where a tester was put, and how hard: one line of the list. */
function placeOf({ from, to, testVolts }: Insulation): string {
  return `${from} ${to} ${testVolts} V`.slice(0, 100);
}

const knownInsulation = oncePerModel(() => new Map<string, Insulation | null>());

/** The quickest insulation test to the frame that meets a part and harms nothing. */
function insulationAt(model: CircuitModel, ref: string): Insulation | null {
  const known = knownInsulation(model);
  let found = known.get(ref);
  if (found === undefined) {
    found = quickestInsulation(model, ref);
    known.set(ref, found);
  }
  return found;
}

function quickestInsulation(model: CircuitModel, ref: string): Insulation | null {
  const { compiled } = model;
  const at = compiled.partIndex.get(ref);
  if (at === undefined) return null;
  const nodes = new Set(compiled.parts[at]!.nodes.map((one) => compiled.nodeNames[one]!));
  const [best] = listCandidateTests(model, {}, { parts: new Set([at]), setups: [] })
    .tests.filter(
      ({ bound }) =>
        bound.test.kind === 'insulation' && nodesOfTest(bound.test).some((one) => nodes.has(one)),
    )
    .sort((a, b) => a.minutes - b.minutes);
  return best ? (best.bound.test as Insulation) : null;
}

/** What the change of a part that holds refrigerant asks for, in the order of the work. */
function cares(model: CircuitModel, { decision }: JobState): Proof[] {
  const part = decision?.body.part ?? '';
  if (!isOfRefrigerant(model, part) || decision?.body.action === 'nothing') return [];
  return REFRIGERANT_CARES.map((care) => ({ id: `care ${care} ${part}`, kind: 'care', part, care }));
}

/** A line that came off is shown to be tight again. */
function tightness(model: CircuitModel, { decision }: JobState): Proof[] {
  const { compiled } = model;
  const at = compiled.partIndex.get(decision?.body.part ?? '');
  if (at === undefined || decision?.body.action === 'nothing') return [];
  const { part } = compiled.parts[at]!;
  // Of a refrigerant circuit the leak check of its own stands for it.
  if (isOfRefrigerant(model, part.ref)) return [];
  return kindOf(part).traits.fluid ? [{ id: `tight ${part.ref}`, kind: 'tight', part: part.ref }] : [];
}

/** Fuses on the way to what was mended, where it carries current itself and then in the position that loads each most. */
function fuses(
  model: CircuitModel,
  { decision, when, readings }: JobState,
  patterns: readonly Pattern[],
): Proof[] {
  const blown = new Set(
    readings.flatMap(({ reading }) =>
      reading.kind === 'fuse' && reading.value === 'blows' ? [reading.part] : [],
    ),
  );
  if (blown.size === 0 && !(decision && BLOWS.includes(decision.body.fault))) return [];
  const { compiled } = model;
  const most = new Map<string, { met: boolean; amps: number; pattern: Pattern }>();
  for (const pattern of patterns) {
    if (pattern.setup.afterSeconds !== undefined) continue;
    const world = model.situation(pattern.setup).solve({ mode: 'live' });
    const amps = (part: number) =>
      Math.max(0, ...compiled.parts[part]!.branches.map(({ index }) => Math.abs(branchAmps(world, index))));
    const mended = compiled.partIndex.get(decision?.body.part ?? '');
    const met = mended !== undefined && amps(mended) > LIVE_AMPS;
    for (const { part, index } of compiled.parts) {
      if (part.kind !== 'fuse' && part.kind !== 'breaker') continue;
      if (!blown.has(part.ref) && !met) continue;
      const through = amps(index);
      const known = most.get(part.ref);
      const better = !known || (met && !known.met) || (met === known.met && through > known.amps);
      if (through > LIVE_AMPS && better) most.set(part.ref, { met, amps: through, pattern });
    }
  }
  const minutes = when.includes('fuseHoldsMinutes') ? HOLDS_LONG_MINUTES : HOLDS_MINUTES;
  return [...most].map(([part, { pattern }]) => ({
    id: `holds ${part}`,
    kind: 'fuseHolds',
    test: { kind: 'fuse', part, setup: pattern.setup },
    minutes,
  }));
}
