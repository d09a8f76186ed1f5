import { isOfRefrigerant, REFRIGERANT_CARES } from '../safety/refrigerant';
import type { CompiledPart } from '../circuit/compile';
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
import { workedOn } from './workedOn';
import { isSeenWorking } from './seenWork';
import { valueOf } from './soundReading';

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
    ...pressures(model, state, patterns),
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
function asComplained(model: CircuitModel, state: JobState, patterns: readonly Pattern[]): Proof[] {
  const { when, readings } = state;
  const again = when.filter((one) => SHOWN_AGAIN[one]);
  if (again.length === 0 || workedOn(state).length === 0) return [];
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

/** Parts that were worked on, as they are drawn, each once. */
function workedParts({ compiled }: CircuitModel, state: JobState): CompiledPart[] {
  const refs = new Set(workedOn(state).map(({ part }) => part));
  return compiled.parts.filter(({ part }) => refs.has(part.ref));
}

/** The insulation readings that leaked, once more; one at each mended part that did where none was taken. */
function insulation(model: CircuitModel, state: JobState): Proof[] {
  const least = ({ testVolts }: Insulation) => leaksBelow(testVolts);
  const tests = new Map<string, Insulation>();
  for (const { reading } of state.readings) {
    if (reading.kind !== 'insulation') continue;
    const { value, ...test } = reading;
    if (typeof value === 'number' && value < least(test)) tests.set(placeOf(test), test);
    else tests.delete(placeOf(test));
  }
  if (tests.size === 0)
    for (const { part, fault } of workedOn(state)) {
      const test = LEAKS.includes(fault) ? insulationAt(model, part) : null;
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
function cares(model: CircuitModel, state: JobState): Proof[] {
  return workedParts(model, state).flatMap(({ part: { ref, kind } }) =>
    isOfRefrigerant(model, ref)
      ? REFRIGERANT_CARES.filter((care) => care !== 'trips' || kind === 'pressureSwitch').map(
          (care): Proof => ({ id: `care ${care} ${ref}`, kind: 'care', part: ref, care }),
        )
      : [],
  );
}

/** A line that came off is shown to be tight again. */
function tightness(model: CircuitModel, state: JobState): Proof[] {
  return workedParts(model, state).flatMap(({ part }): Proof[] =>
    // Of a refrigerant circuit the leak check of its own stands for it.
    kindOf(part).traits.fluid && !isOfRefrigerant(model, part.ref)
      ? [{ id: `tight ${part.ref}`, kind: 'tight', part: part.ref }]
      : [],
  );
}

/** A working pressure may stand this share off: regulators and gauges together. */
export const PRESSURE_SHARE = 0.1;
/** Of the strongest supply: as near as a gauge tells nothing from a little. */
const NOTHING_SHARE = 0.01;

/**
 * The gauges that did not stand as on the sound machine, once more: a valve that was changed in a line moves nothing that anybody sees.
 * Only where the part itself carries what flows, and where nothing was put in or taken off for the reading. Where no gauge stood wrong
 * so, and nothing moves, the one that its work changes most.
 */
function pressures(model: CircuitModel, state: JobState, patterns: readonly Pattern[]): Proof[] {
  const { compiled } = model;
  const worked = workedParts(model, state).filter(({ part }) => kindOf(part).traits.fluid);
  const last = worked.at(-1);
  if (!last) return [];
  const strongest = Math.max(
    0,
    ...compiled.circuit.parts.map((part) => ('kPa' in part ? Math.abs(part.kPa) : 0)),
  );
  const proofs = new Map<string, Proof>();
  for (const { reading } of state.readings) {
    if (reading.kind !== 'pressure' || typeof reading.value !== 'number') continue;
    if (Object.keys(reading.setup).some((key) => key !== 'controls' && key !== 'afterSeconds')) continue;
    const { value, ...test } = reading;
    const expected = valueOf(model, test);
    const within = withinOf(expected, strongest);
    const proof = gaugeProof(last.part.ref, test, expected, within);
    // The last reading of a place says how it stood.
    if (Math.abs(value - expected) > within) proofs.set(proof.id, proof);
    else proofs.delete(proof.id);
  }
  const shown = proofs.size > 0 || patterns.some(({ driven }) => driven.length > 0);
  if (!shown)
    for (const part of worked)
      for (const proof of gaugeOfWork(model, part, patterns, strongest)) proofs.set(proof.id, proof);
  return [...proofs.values()];
}

/** The gauge at a part that stands furthest from where it rests while the machine works, in that command; none where none moves. */
function gaugeOfWork(
  model: CircuitModel,
  { part, nodes }: CompiledPart,
  patterns: readonly Pattern[],
  strongest: number,
): Proof[] {
  const { compiled } = model;
  const moved = patterns
    .filter(({ setup }) => setup.afterSeconds === undefined)
    .flatMap(({ setup }) =>
      nodes
        .filter((node) => compiled.domains[node] === 'fluid' && node !== compiled.atmosphere)
        .map((node) => {
          const at = compiled.nodeNames[node]!;
          const test = { kind: 'pressure', at, setup: { controls: setup.controls ?? {} } } as const;
          const expected = valueOf(model, test);
          return { test, expected, by: Math.abs(expected - valueOf(model, { ...test, setup: {} })) };
        }),
    )
    .sort((a, b) => b.by - a.by)[0];
  if (!moved || moved.by <= NOTHING_SHARE * strongest) return [];
  const { test, expected } = moved;
  return [gaugeProof(part.ref, test, expected, withinOf(expected, strongest))];
}

function withinOf(expected: number, strongest: number): number {
  return Math.max(PRESSURE_SHARE * Math.abs(expected), NOTHING_SHARE * strongest);
}

function gaugeProof(
  part: string,
  test: Extract<Test, { kind: 'pressure' }>,
  expected: number,
  within: number,
): Proof {
  const positions = Object.entries(test.setup.controls ?? {}).map((pair) => pair.join(' '));
  const id = `gauge ${[test.at, ...positions, test.setup.afterSeconds ?? ''].join(' ')}`.trim().slice(0, 100);
  return { id, kind: 'pressure', part, test, expected, within };
}

/** Fuses on the way to what was mended, where it carries current itself and then in the position that loads each most. */
function fuses(model: CircuitModel, state: JobState, patterns: readonly Pattern[]): Proof[] {
  const { when, readings } = state;
  const blown = new Set(
    readings.flatMap(({ reading }) =>
      reading.kind === 'fuse' && reading.value === 'blows' ? [reading.part] : [],
    ),
  );
  if (blown.size === 0 && !workedOn(state).some(({ fault }) => BLOWS.includes(fault))) return [];
  const worked = workedParts(model, state);
  const { compiled } = model;
  const most = new Map<string, { met: boolean; amps: number; pattern: Pattern }>();
  for (const pattern of patterns) {
    if (pattern.setup.afterSeconds !== undefined) continue;
    const world = model.situation(pattern.setup).solve({ mode: 'live' });
    const amps = (part: number) =>
      Math.max(0, ...compiled.parts[part]!.branches.map(({ index }) => Math.abs(branchAmps(world, index))));
    const met = worked.some(({ index }) => amps(index) > LIVE_AMPS);
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
