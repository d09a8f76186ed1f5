import { CircuitModel } from '../circuit/model';
import type { Edit } from '../circuit/edits';
import { listFaults } from '../diagnosis/faults';
import type { CandidateFault } from '../diagnosis/faultTypes';
import { demoCircuit } from '../../testing/demoCircuits';
import { FUSE_ROWS } from '../circuit/fuseTime';
import { branchAmps } from '../circuit/world';
import { constant } from './elements';
import { runInTime, valueAt } from './run';
import { timeCircuit, type Moment } from './ofCircuit';

const DIRECT = [
  'compressor-gate',
  'dryer-air-switch',
  'groomer-blade-float',
  'groomer-blade-tilt',
  'groomer-comb-flaps',
  'groomer-tiller-float',
  'heater-flap',
  'loader-bucket-lock',
  'press-clamp',
  'tractor-blower-stop',
  'winch-reversing',
] as const;
/** Of the supply: as near as the two must stand once everything has settled. */
const NEAR = 0.002;

/** Where the course has come to once it has settled, against the steady solution: the farthest node, share of the supply; null where a fuse has gone. */
function farthest(
  model: CircuitModel,
  controls: Readonly<Record<string, string>>,
  edits: Edit[],
): number | null {
  const { compiled } = model;
  const { changed } = model.situation({ controls }).solve({ mode: 'live' }, edits);
  const { nodes, elements, nodeOf } = timeCircuit(model, [{ seconds: 0, setup: { controls } }], edits);
  const watched = watchedFor(model);
  // Where it ends counts here, not how it looks on the way.
  const { volts, own } = runInTime(nodes, elements, watched, { mostStep: watched / 40 });
  if (elements.some(({ kind }, at) => kind === 'fuse' && own[at]![0]!.at(-1)! > 1)) return null;
  const off = compiled.nodeNames.map((_name, node) => {
    if (compiled.domains[node] !== 'electrical') return 0;
    const steady = changed.pairVolts(node, compiled.frame);
    return Number.isNaN(steady) ? 0 : Math.abs(volts[nodeOf(node)]!.at(-1)! - steady);
  });
  return Math.max(...off) / compiled.supplyVolts;
}

/** Until every timer has run out and a motor behind a bad contact has come to its speed, seconds. */
function watchedFor({ compiled: { circuit } }: CircuitModel): number {
  const timers = circuit.parts.map((part) => (part.kind === 'timer' ? part.seconds : 0));
  const motors = circuit.parts.some(({ kind }) => kind === 'motor') ? 6 : 0;
  return 1 + Math.max(...timers) + motors;
}

function severityOf({ severity }: CandidateFault): number {
  return severity ? Math.sqrt(severity.mainLeast * severity.mainMost) : 1;
}

describe.each(DIRECT)('%s in time', (name) => {
  const model = new CircuitModel(demoCircuit(name));

  it('settles to what the steady solution says, in every position of its controls', () => {
    for (const controls of model.combinations) expect(farthest(model, controls, [])).toBeLessThan(NEAR);
  });

  it('does with any fault in it', () => {
    const controls = model.combinations.at(-1)!;
    let tried = 0;
    for (const fault of listFaults(model)) {
      // A weak spot gives way once, and has no state in time; fuses and limits have no course yet.
      if (fault.fault === 'weakInsulation') continue;
      const edits = fault.variants[0]!.edits(severityOf(fault));
      const { devices, state, chatters } = model.situation({ controls }).solve({ mode: 'live' }, edits);
      if (
        chatters ||
        devices.some(({ kind }, at) => (kind === 'fuse' || kind === 'driver') && state[at] === 1)
      )
        continue;
      const off = farthest(model, controls, edits);
      // What a timer lets through at first may take a fuse, which the steady solution of later knows nothing of.
      if (off === null) continue;
      expect([fault.ref, fault.fault, off < NEAR]).toEqual([fault.ref, fault.fault, true]);
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
