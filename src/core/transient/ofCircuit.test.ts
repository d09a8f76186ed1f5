import { CircuitModel } from '../circuit/model';
import type { Edit } from '../circuit/edits';
import { listFaults } from '../diagnosis/faults';
import type { CandidateFault } from '../diagnosis/faultTypes';
import { demoCircuit } from '../../testing/demoCircuits';
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

/** Where the course has come to after a second, against the steady solution: the farthest node, share of the supply. */
function farthest(model: CircuitModel, controls: Readonly<Record<string, string>>, edits: Edit[]): number {
  const { compiled } = model;
  const { changed } = model.situation({ controls }).solve({ mode: 'live' }, edits);
  const { nodes, elements, nodeOf } = timeCircuit(model, [{ seconds: 0, setup: { controls } }], edits);
  const { volts } = runInTime(nodes, elements, 1);
  const off = compiled.nodeNames.map((_name, node) => {
    if (compiled.domains[node] !== 'electrical') return 0;
    const steady = changed.pairVolts(node, compiled.frame);
    return Number.isNaN(steady) ? 0 : Math.abs(volts[nodeOf(node)]!.at(-1)! - steady);
  });
  return Math.max(...off) / compiled.supplyVolts;
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
      expect([fault.ref, fault.fault, farthest(model, controls, edits) < NEAR]).toEqual([
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
});
