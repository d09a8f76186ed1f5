import { InputError } from '../circuit/inputError';
import type { CircuitModel } from '../circuit/model';
import type { Part, Preferences, Setup, Test } from '../circuit/schema';
import { branchAmps } from '../circuit/world';
import { testKey } from './observations';
import { bindTest, type BoundTest } from './predict';

/** Something a person must know before touching anything; the wording is the interface's. */
export type Caution =
  | 'live'
  | 'moves'
  | 'lineVolts'
  | 'powerOff'
  | 'unplug'
  | 'mayBlowFuse'
  | 'testerVolts'
  | 'electronicsOff'
  | 'takeOut';

export interface CandidateTest {
  key: string;
  bound: BoundTest;
  /** Minutes to reach the points and read, without changing the set-up. */
  minutes: number;
  cautions: Caution[];
  /** Parts this test measures directly, end to end. */
  onParts: string[];
}

const ACCESS_MINUTES: Readonly<Record<Part['kind'], number>> = {
  source: 0.5,
  transformer: 1,
  fuse: 0.5,
  breaker: 0.5,
  wire: 1.5,
  pin: 1,
  switch: 1.2,
  relay: 1,
  coil: 1.5,
  diode: 1.5,
  resistor: 1.5,
  lamp: 1.5,
  heater: 1.5,
  motor: 1.5,
  sensor3: 1.5,
  driver: 1.2,
  timer: 1.2,
};
const READ_MINUTES: Readonly<Record<Test['kind'], number>> = {
  volts: 0.5,
  ohms: 0.5,
  diode: 0.7,
  amps: 1,
  insulation: 2,
  fuse: 0.7,
  click: 0.6,
  function: 0.7,
  code: 0.4,
};
const LOAD_KINDS = ['coil', 'resistor', 'lamp', 'heater', 'motor'];
const LINE_VOLTS = 50;
const LIVE_AMPS = 1e-4;
const LIVE_VOLTS = 0.05;
/** Insulation test volts for circuits up to, and above, extra-low voltage (reference section 16). */
const TESTER_VOLTS = { low: 250, line: 500 };
const MOST_TESTS = 1200;

/** Sensible tests for a circuit, from its own structure. Illegal ones, such as ohms on a powered pair, never appear. */
export function listCandidateTests(model: CircuitModel, preferences: Preferences = {}): CandidateTest[] {
  const { compiled } = model;
  const { circuit, nodeNames, frame } = compiled;
  const found = new Map<string, CandidateTest>();
  const frameName = nodeNames[frame]!;
  const access = nodeAccess(model);
  const electronics = circuit.parts.some(({ kind }) => kind === 'driver' || kind === 'sensor3');

  const offer = (test: Test, cautions: Caution[], extraMinutes = 0) => {
    if (found.size >= MOST_TESTS) return;
    const key = testKey(test);
    if (found.has(key)) return;
    let bound: BoundTest;
    try {
      bound = bindTest(model, test);
    } catch (error) {
      // The set-up makes this test impossible, for example a pair that stays powered: it is no candidate.
      if (error instanceof InputError) return;
      throw error;
    }
    if (
      (test.kind === 'ohms' || test.kind === 'diode' || test.kind === 'insulation') &&
      standsLive(model, bound)
    )
      return;
    found.set(key, {
      key,
      bound,
      minutes: READ_MINUTES[test.kind] + reach(model, test, access) + extraMinutes,
      cautions,
      onParts: partsMeasured(model, test),
    });
  };

  const patterns = workingPatterns(model);
  const line: Caution[] = compiled.supplyVolts > LINE_VOLTS ? ['lineVolts'] : [];
  const nodes = nodeNames.filter((name, at) => at !== frame && !name.endsWith(':wiper'));
  const across = acrossPairs(model);

  if (!preferences.noLiveWork) {
    for (const { setup, loads } of patterns) {
      const cautions: Caution[] = [...line, loads.length > 0 ? 'moves' : 'live'];
      for (const from of nodes) offer({ kind: 'volts', from, to: frameName, setup }, cautions);
      for (const [from, to] of across) offer({ kind: 'volts', from, to, setup }, cautions);
      for (const { part } of compiled.parts) {
        if (part.kind === 'fuse' || part.kind === 'breaker' || LOAD_KINDS.includes(part.kind)) {
          offer({ kind: 'amps', through: part.ref, setup }, cautions);
        }
      }
    }
  }
  for (const { setup, loads } of patterns) {
    for (const { part, branches } of compiled.parts) {
      if (part.kind === 'fuse' || part.kind === 'breaker') {
        offer({ kind: 'fuse', part: part.ref, setup }, ['mayBlowFuse'], 0.5);
      }
      if ((LOAD_KINDS.includes(part.kind) && part.kind !== 'resistor') || part.kind === 'relay') {
        const driven = loads.includes(part.ref);
        if (driven && part.kind !== 'relay') {
          offer({ kind: 'function', part: part.ref, setup }, ['moves']);
        }
        if (driven && (part.kind === 'relay' || part.kind === 'coil')) {
          offer({ kind: 'click', part: part.ref, setup }, ['moves']);
        }
      }
      if (part.kind === 'driver' && branches[0] && Object.keys(part.codes ?? {}).length > 0) {
        offer({ kind: 'code', part: part.ref, setup }, []);
      }
    }
  }

  const testVolts = compiled.supplyVolts > LINE_VOLTS ? TESTER_VOLTS.line : TESTER_VOLTS.low;
  const off = powerOff(model);
  const rest = { ...off };
  for (const { setup } of patterns) {
    const dead: Setup = { ...(setup.controls ? { controls: setup.controls } : {}), ...off };
    for (const from of nodes) offer({ kind: 'ohms', from, to: frameName, setup: dead }, ['powerOff']);
    for (const [from, to] of across) offer({ kind: 'ohms', from, to, setup: dead }, ['powerOff']);
  }
  // Every load by itself: unplugged where it has a plug, its neighbours lifted where it has none.
  for (const { part, branches, nodes: own } of compiled.parts) {
    if (!LOAD_KINDS.includes(part.kind) && part.kind !== 'relay') continue;
    const body = branches[0]!;
    const [from, to] = [nodeNames[body.a]!, nodeNames[body.b]!];
    const apart = setApart(model, part.ref, own.slice(0, 2));
    if (!apart) continue;
    const setup = { ...rest, ...apart };
    const cautions: Caution[] = ['powerOff', apart.unplugged ? 'unplug' : 'takeOut'];
    offer({ kind: 'ohms', from, to, setup }, cautions);
    for (const end of [from, to]) {
      if (end === frameName) continue;
      offer({ kind: 'ohms', from: end, to: frameName, setup }, cautions);
      offer({ kind: 'insulation', from: end, to: frameName, testVolts, setup }, ['testerVolts', ...cautions]);
    }
    if (!apart.unplugged) continue;
    for (const harness of harnessSide(model, apart.unplugged)) {
      for (const { setup: pattern } of patterns) {
        const controls = pattern.controls ? { controls: pattern.controls } : {};
        if (!preferences.noLiveWork) {
          const live = { ...controls, ...apart };
          offer({ kind: 'volts', from: harness, to: frameName, setup: live }, [...line, 'live', 'unplug']);
        }
        offer({ kind: 'ohms', from: harness, to: frameName, setup: { ...controls, ...off, ...apart } }, [
          'powerOff',
          'unplug',
        ]);
      }
    }
  }
  // Suppression diodes and the like: what lies across them is taken out, then both directions.
  for (const { part, branches, index } of compiled.parts) {
    if (part.kind !== 'diode') continue;
    const { a, b } = branches[0]!;
    const beside = compiled.parts
      .filter((other) => other.index !== index && other.branches.some((branch) => samePair(branch, a, b)))
      .map((other) => other.part.ref);
    const setup: Setup = { ...rest, ...(beside.length > 0 ? { removed: beside } : {}) };
    const cautions: Caution[] = ['powerOff', 'takeOut'];
    const [anode, cathode] = [nodeNames[a]!, nodeNames[b]!];
    offer({ kind: 'diode', from: anode, to: cathode, setup }, cautions);
    offer({ kind: 'diode', from: cathode, to: anode, setup }, cautions);
  }
  // Fuse with one plug off at a time: which branch takes it down.
  for (const connector of compiled.connectors) {
    for (const { setup } of patterns) {
      for (const { part } of compiled.parts) {
        if (part.kind !== 'fuse' && part.kind !== 'breaker') continue;
        offer({ kind: 'fuse', part: part.ref, setup: { ...setup, unplugged: [connector] } }, [
          'mayBlowFuse',
          'unplug',
        ]);
      }
    }
  }
  // Conductors to the frame at test volts, loads out of the way. Never with electronics on the line.
  if (!electronics) {
    const loads = circuit.parts.filter(({ kind }) => LOAD_KINDS.includes(kind) || kind === 'relay');
    const sources = circuit.parts.filter(({ kind }) => kind === 'source').map(({ ref }) => ref);
    const setup: Setup = { isolated: sources, removed: loads.map(({ ref }) => ref) };
    for (const from of nodes) {
      offer({ kind: 'insulation', from, to: frameName, testVolts, setup }, [
        'testerVolts',
        'powerOff',
        'takeOut',
      ]);
    }
  }
  return [...found.values()];
}

/** Pairs of node names at the two ends of every part, contact and winding. */
function acrossPairs(model: CircuitModel): (readonly [string, string])[] {
  const { parts, nodeNames } = model.compiled;
  return parts.flatMap(({ part, branches }) => {
    if (part.kind === 'transformer') {
      const { p1, p2, s1, s2 } = part.nodes;
      return [[p1, p2] as const, [s1, s2] as const];
    }
    if (part.kind === 'sensor3') {
      const { supply, signal, return: back } = part.nodes;
      return [[supply, back] as const, [signal, back] as const];
    }
    return branches.map(({ a, b }) => [nodeNames[a]!, nodeNames[b]!] as const);
  });
}

/** Either point stands at a voltage, even where both stand at the same: no place for an ohmmeter. */
function standsLive(model: CircuitModel, { test, solver }: BoundTest): boolean {
  const { changed } = solver.solve({ mode: 'live' });
  const { from, to } = test as { from: string; to: string };
  return [from, to].some((name) => {
    const volts = changed.pairVolts(model.compiled.nodeIndex.get(name)!, model.compiled.frame);
    return Math.abs(volts) > LIVE_VOLTS;
  });
}

/** Parts whose two ends a test's leads stand on, or that it names. */
export function partsMeasured(model: CircuitModel, test: Test): string[] {
  const { compiled } = model;
  if (test.kind === 'amps') return [];
  if (!('from' in test)) return test.kind === 'function' ? [] : [test.part];
  const [i, j] = [compiled.nodeIndex.get(test.from), compiled.nodeIndex.get(test.to)];
  const ends = (part: (typeof compiled.parts)[number]) => part.nodes;
  const apart = Boolean(
    test.setup.unplugged?.length || test.setup.removed?.length || test.setup.lifted?.length,
  );
  return compiled.parts
    .filter((part) => {
      const nodes = ends(part);
      if (nodes.includes(i!) && nodes.includes(j!)) return true;
      // A leak shows between the part and the frame, once the part is by itself.
      const leak = (test.kind === 'ohms' || test.kind === 'insulation') && apart;
      return leak && j === compiled.frame && nodes.includes(i!);
    })
    .map(({ part }) => part.ref);
}

/** Control combinations that energise different things, each with the loads it feeds on the healthy circuit. */
export function workingPatterns(model: CircuitModel): { setup: Setup; loads: string[] }[] {
  const { compiled } = model;
  const patterns = new Map<string, { setup: Setup; loads: string[] }>();
  const timers = compiled.circuit.parts.some(({ kind }) => kind === 'timer');
  for (const controls of model.combinations) {
    for (const afterSeconds of timers ? [undefined, 0.1] : [undefined]) {
      const setup: Setup = {
        ...(Object.keys(controls).length > 0 ? { controls } : {}),
        ...(afterSeconds === undefined ? {} : { afterSeconds }),
      };
      const solver = model.situation(setup);
      const world = solver.solve({ mode: 'live' });
      const loads = compiled.parts
        .filter(({ part }) => LOAD_KINDS.includes(part.kind) || part.kind === 'relay')
        .filter(({ branches }) => Math.abs(branchAmps(world, branches[0]!.index)) > LIVE_AMPS)
        .map(({ part }) => part.ref);
      // What is commanded matters as well as what flows: a broken interlock must be tried in its closed position.
      const key = `${loads.join()}|${timers ? afterSeconds : ''}|${loads.length > 0 ? '' : solver.situation.commanded.join('')}`;
      if (!patterns.has(key)) patterns.set(key, { setup, loads });
    }
  }
  const list = [...patterns.values()];
  const fed = list.filter(({ loads }) => loads.length > 0);
  const idle = list.filter(({ loads }) => loads.length === 0);
  return [...fed.slice(0, 14), ...idle.slice(0, 2)];
}

/** How this circuit is made dead for ohms: the fuse that leaves nothing else live if there is one, else the sources. */
export function powerOff(model: CircuitModel): Setup {
  const { circuit } = model.compiled;
  const sources = circuit.parts.filter(({ kind }) => kind === 'source');
  if (sources.length === 1) {
    for (const { kind, ref } of circuit.parts) {
      if (kind !== 'fuse' && kind !== 'breaker') continue;
      // Nothing may stay live but the fuse's own supply side: a stud left hot beside the work is not dead.
      const cut = model.combinations.every((controls) => {
        const { changed } = model.situation({ controls, pulled: [ref] }).solve({ mode: 'live' });
        return model.compiled.parts.every(
          ({ part, nodes }) =>
            part.kind === 'source' ||
            part.ref === ref ||
            nodes.every((node) => !(Math.abs(changed.pairVolts(node, model.compiled.frame)) > LIVE_VOLTS)),
        );
      });
      if (cut) return { pulled: [ref] };
    }
  }
  return { isolated: sources.map(({ ref }) => ref) };
}

/** How to measure one part alone: plugs at its ends pulled, else its neighbours at one end lifted. */
function setApart(model: CircuitModel, ref: string, nodes: readonly number[]): Setup | null {
  const { parts } = model.compiled;
  const touching = parts.filter(
    ({ part, nodes: own }) => part.ref !== ref && nodes.some((node) => own.includes(node)),
  );
  const connectors = new Set(touching.flatMap(({ part }) => (part.kind === 'pin' ? [part.connector] : [])));
  if (connectors.size > 0) return { unplugged: [...connectors] };
  for (const node of nodes) {
    const others = touching.filter(({ nodes: own, part }) => own.includes(node) && part.kind !== 'diode');
    if (others.length > 0 && others.length <= 2) {
      const name = model.compiled.nodeNames[node]!;
      return { lifted: others.map(({ part }) => ({ part: part.ref, node: name })) };
    }
  }
  return null;
}

/** Nodes of the given connectors that face the supply. */
function harnessSide(model: CircuitModel, connectors: readonly string[]): string[] {
  const { parts, nodeNames, frame } = model.compiled;
  const nodes = parts
    .filter(({ part }) => part.kind === 'pin' && connectors.includes(part.connector))
    .flatMap(({ nodes: own }) => own)
    .filter((node) => node !== frame);
  return [...new Set(nodes)].map((node) => nodeNames[node]!);
}

function nodeAccess(model: CircuitModel): Float64Array {
  const minutes = new Float64Array(model.compiled.nodeNames.length).fill(Infinity);
  for (const { part, nodes } of model.compiled.parts) {
    const own = part.accessMinutes ?? ACCESS_MINUTES[part.kind];
    for (const node of nodes) minutes[node] = Math.min(minutes[node]!, own);
  }
  minutes[model.compiled.frame] = 0.2;
  return minutes;
}

function reach(model: CircuitModel, test: Test, access: Float64Array): number {
  const { compiled } = model;
  if ('from' in test) {
    return [test.from, test.to].reduce((sum, name) => sum + access[compiled.nodeIndex.get(name)!]!, 0);
  }
  const ref = test.kind === 'amps' ? test.through : test.part;
  const { part } = compiled.parts[compiled.partIndex.get(ref)!]!;
  return test.kind === 'amps' ? (part.accessMinutes ?? ACCESS_MINUTES[part.kind]) : 0;
}

function samePair(branch: { a: number; b: number }, a: number, b: number): boolean {
  return (branch.a === a && branch.b === b) || (branch.a === b && branch.b === a);
}
