import { CircuitModel } from '../circuit/model';
import { circuitSchema } from '../circuit/schema';
import type { Edit } from '../circuit/edits';
import { listFaults } from '../diagnosis/faults';
import type { CandidateFault } from '../diagnosis/faultTypes';
import { TEMPLATES } from '../templates/templates';
import { demoCircuit } from '../../testing/demoCircuits';
import { FUSE_ROWS } from '../circuit/fuseTime';
import { branchAmps } from '../circuit/world';
import { constant, type Element } from './elements';
import { runInTime, valueAt } from './run';
import { timeCircuit, type Moment } from './ofCircuit';

const SHIPPED = [
  'cellar-liquid-valve',
  'compressor-gate',
  'dryer-air-switch',
  'groomer-blade-float',
  'groomer-blade-tilt',
  'groomer-comb-flaps',
  'groomer-tiller-float',
  'groomer-tiller-lift',
  'heater-flap',
  'loader-bucket-lock',
  'press-clamp',
  'pump-fill-valve',
  'tractor-blower-stop',
  'winch-reversing',
] as const;
/** Templates with what no shipped circuit has: lamps, transformers under load, motors on alternating volts, limits that trip. */
const MORE = [
  'change-over-relay',
  'contactor-two-supplies',
  'hoist-limits',
  'level-control',
  'gas-bypass',
  'battery-over-line',
  'driver-low-side',
] as const;
/** Of the supply: as near as the two must stand once everything has settled; on alternating volts, where a period is read between its steps. */
const NEAR = 0.002;
const NEAR_ALTERNATING = 0.01;
/** A junction that carries an output's whole limit has more than its drawn volts. */
const NEAR_LIMITED = 0.01;

/**
 * Where the course has come to once it has settled, against the steady solution: the farthest node, share of the supply; null where a fuse has
 * gone, or where something stands otherwise than the steady solution takes it: a lamp that glows dimly has fewer ohms than lit, an
 * alternating coil that does not pull in draws its open current.
 */
function farthest(
  model: CircuitModel,
  controls: Readonly<Record<string, string>>,
  edits: Edit[],
): number | null {
  const { compiled } = model;
  const { changed } = model.situation({ controls }).solve({ mode: 'live' }, edits);
  const course = timeCircuit(model, [{ seconds: 0, setup: { controls } }], edits);
  const { nodes, elements, nodeOf, mostStep } = course;
  const watched = watchedFor(model);
  // Where it ends counts here, not how it looks on the way.
  const { seconds, volts, own } = runInTime(nodes, elements, watched, {
    mostStep: Math.min(watched / 40, mostStep),
  });
  const last = (node: number) => {
    const hz = compiled.hertz[node]!;
    const values = volts[nodeOf(node)]!;
    return hz > 0 ? effective(seconds, values, watched, 5 / hz) : values.at(-1)!;
  };
  const ended = (at: number, which: number) => own[at]![which]!.at(-1)!;
  const stands = elements.some((element, at) => {
    if (element.kind === 'fuse') return ended(at, 0) > 1;
    if (element.kind === 'filament') {
      const span = seconds.map((_t, k) => volts[element.a]![k]! - volts[element.b]![k]!);
      return effective(seconds, span, watched, 0.1) > DARK * element.ratedVolts && ended(at, 0) < LIT;
    }
    if (element.kind !== 'acSolenoid' || element.jammed) return false;
    const fed = effective(seconds, own[at]![0]!, watched, 0.1) * element.ohms > DARK * compiled.supplyVolts;
    return fed && ended(at, 1) < LIT * element.strokeMetres;
  });
  if (stands) return null;
  const off = compiled.nodeNames.map((_name, node) => {
    if (compiled.domains[node] !== 'electrical') return 0;
    const steady = changed.pairVolts(node, compiled.frame);
    return Number.isNaN(steady) ? 0 : Math.abs(last(node) - steady);
  });
  return Math.max(...off) / compiled.supplyVolts;
}

/** Shares of a lamp's heat, of a plunger's way: less is dark, more is lit or closed. */
const DARK = 0.02;
const LIT = 0.9;

/** Effective value over the last seconds of a course. */
function effective(seconds: Float64Array, values: Float64Array, end: number, over: number): number {
  const count = 400;
  const squares = Array.from(
    { length: count },
    (_one, k) => valueAt(seconds, values, end - (over * (k + 0.5)) / count) ** 2,
  );
  return Math.sqrt(squares.reduce((sum, one) => sum + one, 0) / count);
}

/** Until every timer has run out and a motor behind a bad contact has come to its speed, seconds. */
function watchedFor({ compiled: { circuit, alternating } }: CircuitModel): number {
  const timers = circuit.parts.map((part) => (part.kind === 'timer' ? part.seconds : 0));
  const runUp = alternating.some(Boolean) ? 1.5 : 6;
  const motors = circuit.parts.some(({ kind }) => kind === 'motor') ? runUp : 0;
  return 1 + Math.max(...timers) + motors;
}

function severityOf({ severity }: CandidateFault): number {
  return severity ? Math.sqrt(severity.mainLeast * severity.mainMost) : 1;
}

const modelOf = (name: (typeof SHIPPED)[number] | (typeof MORE)[number]) =>
  new CircuitModel(
    (MORE as readonly string[]).includes(name)
      ? TEMPLATES.find(({ id }) => id === name)!.build({})
      : demoCircuit(name as (typeof SHIPPED)[number]),
  );

describe.each([...SHIPPED, ...MORE])('%s in time', (name) => {
  const model = modelOf(name);
  const near = model.compiled.alternating.some(Boolean) ? NEAR_ALTERNATING : NEAR;

  it('settles to what the steady solution says, in every position of its controls', () => {
    for (const controls of model.combinations) expect(farthest(model, controls, [])).toBeLessThan(near);
  });

  it('does with any fault in it', () => {
    const controls = model.combinations.at(-1)!;
    let tried = 0;
    for (const fault of listFaults(model)) {
      // A weak spot gives way once, and has no state in time; what takes a fuse ends otherwise.
      if (fault.fault === 'weakInsulation') continue;
      const edits = fault.variants[0]!.edits(severityOf(fault));
      const { devices, state, chatters } = model.situation({ controls }).solve({ mode: 'live' }, edits);
      if (chatters || devices.some(({ kind }, at) => kind === 'fuse' && state[at] === 1)) continue;
      const off = farthest(model, controls, edits);
      // What a timer lets through at first may take a fuse, which the steady solution of later knows nothing of.
      if (off === null) continue;
      const limited = devices.some(({ kind }, at) => kind === 'driver' && state[at] === 1);
      expect([fault.ref, fault.fault, off < (limited ? NEAR_LIMITED : near)]).toEqual([
        fault.ref,
        fault.fault,
        true,
      ]);
      tried++;
    }
    expect(tried).toBeGreaterThan(10);
  });
});

describe('a sequence', () => {
  it('of the bucket lock: the relay comes a while after the switch, the coil after it', () => {
    const model = new CircuitModel(demoCircuit('loader-bucket-lock'));
    const moments: Moment[] = [
      { seconds: 0, setup: { controls: { key: 'on', lock: 'off' } } },
      { seconds: 0.1, setup: { controls: { key: 'on', lock: 'on' } } },
      { seconds: 0.6, setup: { controls: { key: 'on', lock: 'off' } } },
    ];
    const { nodes, elements, nodeOf, usual } = timeCircuit(model, moments);
    const course = runInTime(nodes, elements, 1);
    const at = model.compiled.nodeIndex.get('Y22:1')!;
    const volts = (t: number) => valueAt(course.seconds, course.volts[nodeOf(at)]!, t);
    expect(volts(0.099)).toBeCloseTo(0, 1);
    expect(volts(0.101)).toBeCloseTo(0, 1);
    expect(volts(0.5)).toBeGreaterThan(25);
    // What lets go is slower than the switch; then nothing is left.
    expect(volts(0.601)).toBeGreaterThan(20);
    expect(volts(0.95)).toBeCloseTo(0, 1);
    // Nobody said what their iron stores: their milliseconds are of the kind.
    expect(usual).toContain('Y22');
  });

  it('of the engine stop: the pull-in winding is live for its seconds, then dead, and a position that goes on starts nothing anew', () => {
    const model = new CircuitModel(demoCircuit('tractor-blower-stop'));
    const moments: Moment[] = [
      { seconds: 0, setup: { controls: { key: 'off', seat: 'taken' } } },
      { seconds: 0.5, setup: { controls: { key: 'on', seat: 'taken' } } },
      { seconds: 4, setup: { controls: { key: 'on', seat: 'empty' } } },
    ];
    const { nodes, elements, nodeOf } = timeCircuit(model, moments);
    const course = runInTime(nodes, elements, 5);
    const volts = (name: string, t: number) =>
      valueAt(course.seconds, course.volts[nodeOf(model.compiled.nodeIndex.get(name)!)]!, t);
    expect(volts('Y5:P', 0.4)).toBeLessThan(1);
    expect(volts('Y5:P', 2.4)).toBeGreaterThan(10);
    expect(volts('Y5:P', 2.8)).toBeLessThan(1);
    expect(volts('Y5:H', 3.8)).toBeGreaterThan(10);
    expect(volts('Y5:P', 4.8)).toBeLessThan(1);
    expect(volts('Y5:H', 4.8)).toBeLessThan(1);
  });
});

describe('a blade fuse in time', () => {
  /** When a fuse of ten amperes has opened at a steady current, seconds; null where it holds. */
  function opens(percent: number, seconds: number): number | null {
    const ohms = 12 / (percent / 10);
    const { seconds: at, own } = runInTime(
      2,
      [
        { kind: 'source', a: 1, b: 0, volts: constant(12), ohms: ohms - 0.01 },
        { kind: 'fuse', a: 1, b: 0, ohms: 0.01, ratedAmps: 10, seconds: 2.2 },
      ],
      seconds,
    );
    const k = own[1]![0]!.findIndex((share) => share > 1.5);
    return k < 0 ? null : at[k]!;
  }
  it.each(FUSE_ROWS.filter(([percent]) => percent > 110))(
    'opens at %p %% of its rating between its bounds',
    (percent, least, most) => {
      const after = opens(percent, 6)!;
      expect(after).toBeGreaterThan(least);
      expect(after).toBeLessThan(most);
    },
  );
  it('holds what it is made for, and stays open once it has gone', () => {
    expect(opens(100, 60)).toBeNull();
    const { own } = runInTime(
      2,
      [
        { kind: 'source', a: 1, b: 0, volts: constant(12), ohms: 0.3 },
        { kind: 'fuse', a: 1, b: 0, ohms: 0.01, ratedAmps: 10, seconds: 2.2 },
      ],
      30,
    );
    expect(own[1]![0]!.at(-1)).toBeCloseTo(2, 2);
  });
});

describe('a coil on alternating volts', () => {
  // E12: 120 V, 60 Hz, 60 Ω; 0.11 A closed, 0.75 A open.
  const model = new CircuitModel(
    circuitSchema.parse({
      format: 'spiraxis-circuit',
      version: 1,
      name: 'Contactor coil',
      frame: 'N',
      controls: { call: ['off', 'on'] },
      parts: [
        { ref: 'G1', kind: 'source', nodes: { '+': 'L', '-': 'N' }, volts: 120, hz: 60, internalOhms: 0.1 },
        {
          ref: 'S1',
          kind: 'switch',
          guards: 'none',
          nodes: { '1': 'L', '2': 'K' },
          closedWhen: { call: ['on'] },
        },
        {
          ref: 'Y1',
          kind: 'coil',
          nodes: { '1': 'K', '2': 'N' },
          ohms: 60,
          sealedAmps: 0.11,
          inrushAmps: 0.75,
        },
      ],
    }),
  );
  const amps = (edits: Edit[], from: number) => {
    const { nodes, elements, elementOf, mostStep } = timeCircuit(
      model,
      [
        { seconds: 0, setup: { controls: { call: 'off' } } },
        { seconds: 0.05, setup: { controls: { call: 'on' } } },
      ],
      edits,
    );
    const own = model.compiled.parts.find(({ part }) => part.ref === 'Y1')!.branches[0]!;
    const at = elementOf.get(own.index)!;
    const { seconds, own: unknowns } = runInTime(nodes, elements, 0.6, { mostStep });
    return {
      amps: effective(seconds, unknowns[at]![0]!, from, 1 / 60),
      place: valueAt(seconds, unknowns[at]![1]!, from),
      peak: Math.max(...unknowns[at]![0]!.map(Math.abs)),
      back: Math.min(...unknowns[at]![1]!.slice(seconds.findIndex((t) => t > 0.3))),
    };
  };

  it('draws its open current at first and its closed one once it is in; held by its ring it does not let go between crests', () => {
    const { amps: sealed, place, back, peak } = amps([], 0.6);
    expect(sealed).toBeCloseTo(0.11, 2);
    expect(place / 2e-3).toBeCloseTo(1, 1);
    expect(back).toBeGreaterThan(1.9e-3);
    expect(peak).toBeGreaterThan(3 * Math.SQRT2 * sealed);
  });

  it('goes on drawing it where its armature does not close', () => {
    const jam = listFaults(model).find(({ ref, fault }) => ref === 'Y1' && fault === 'jammed')!;
    const { amps: open, place } = amps(jam.variants[0]!.edits(1), 0.6);
    expect(open).toBeCloseTo(0.75, 2);
    expect(place).toBeLessThan(1e-6);
  });
});

describe('a lamp', () => {
  it('draws ten times its current at first, and what somebody has said of it cold', () => {
    const first = (restOhms?: number) => {
      const circuit = TEMPLATES.find(({ id }) => id === 'change-over-relay')!.build({});
      const parts = circuit.parts.map((part) =>
        part.kind === 'lamp' && restOhms !== undefined ? { ...part, restOhms } : part,
      );
      const model = new CircuitModel({ ...circuit, parts });
      const controls = { switch: 'off' };
      const { nodes, elements, elementOf } = timeCircuit(model, [{ seconds: 0, setup: { controls } }]);
      const lamp = model.compiled.parts.find(({ part }) => part.ref === 'H2')!.branches[0]!;
      const { a, b } = elements[elementOf.get(lamp.index)!] as Extract<Element, { kind: 'filament' }>;
      const { volts, own } = runInTime(nodes, elements, 1);
      const at = (k: number) => {
        const heat = own[elementOf.get(lamp.index)!]![0]!.at(k)!;
        const cold = restOhms ?? 0.1 * lamp.ohms;
        return (volts[a]!.at(k)! - volts[b]!.at(k)!) / (cold + (lamp.ohms - cold) * heat);
      };
      return at(0) / at(-1);
    };
    // The way to it takes its share of the first volts.
    expect(first()).toBeGreaterThan(6);
    expect(first()).toBeLessThan(10);
    expect(first(3)).toBeCloseTo(2, 0);
  });
});

describe('a motor of the usual kind', () => {
  it('takes six times its current at first, and runs up to the drawing’s own', () => {
    const model = new CircuitModel(demoCircuit('winch-reversing'));
    const rest = { controls: { pendant: 'rest' } };
    const on = { controls: { pendant: 'in' } };
    const { nodes, elements, elementOf } = timeCircuit(model, [
      { seconds: 0, setup: rest },
      { seconds: 0.1, setup: on },
    ]);
    const own = model.compiled.parts.find(({ part }) => part.kind === 'motor')!.branches[0]!;
    const course = runInTime(nodes, elements, 4);
    const amps = course.own[elementOf.get(own.index)!]![0]!.map(Math.abs);
    const steady = Math.abs(branchAmps(model.situation(on).solve({ mode: 'live' }), own.index));
    expect(amps.at(-1)! / steady).toBeCloseTo(1, 2);
    // The battery and its cables hold it back from six times.
    expect(Math.max(...amps) / steady).toBeGreaterThan(2);
  });
});
