import { CircuitModel } from './model';
import { parseCircuit } from './parse';
import { setupSchema, type Setup } from './schema';
import { SETUP_KEYS } from './setupKeys';
import { branchAmps } from './world';

/** Two coils behind one fuse, a three-wire sensor, and a cylinder that the first coil's valve drives. */
const model = new CircuitModel(
  parseCircuit({
    format: 'spiraxis-circuit',
    version: 1,
    name: 'Bench',
    frame: 'GND',
    controls: { lever: ['rest', 'left', 'right'], rod: ['in', 'middle', 'out'] },
    parts: [
      { ref: 'G1', kind: 'source', nodes: { '+': 'B+', '-': 'GND' }, volts: 12, internalOhms: 0.01 },
      { ref: 'F1', kind: 'fuse', nodes: { '1': 'B+', '2': 'A' }, amps: 10 },
      { ref: 'S1L', kind: 'switch', nodes: { '1': 'A', '2': 'L' }, closedWhen: { lever: ['left'] } },
      { ref: 'S1R', kind: 'switch', nodes: { '1': 'A', '2': 'R' }, closedWhen: { lever: ['right'] } },
      { ref: 'X1.1', kind: 'pin', connector: 'X1', nodes: { '1': 'L', '2': 'Y1:1' } },
      { ref: 'X2.1', kind: 'pin', connector: 'X2', nodes: { '1': 'R', '2': 'Y2:1' } },
      { ref: 'Y1', kind: 'coil', nodes: { '1': 'Y1:1', '2': 'GND' }, ohms: 8 },
      { ref: 'Y2', kind: 'coil', nodes: { '1': 'Y2:1', '2': 'GND' }, ohms: 8 },
      {
        ref: 'B1',
        kind: 'sensor3',
        nodes: { supply: 'A', signal: 'SIG', return: 'GND' },
        ohms: 5000,
        control: 'rod',
      },
      { ref: 'P1', kind: 'airSupply', nodes: { out: 'main' }, kPa: 700 },
      { ref: 'Q1', kind: 'valve', ways: '3/2', nodes: { '1': 'main', '2': 'port', '3': 'ATM' }, coil: 'Y1' },
      { ref: 'C1', kind: 'cylinder', nodes: { a: 'port' }, frictionKPa: 50, springKPa: 50 },
    ],
  }),
);
const { compiled } = model;
const world = (setup: Setup) => model.situation(setup).solve({ mode: 'live' });
const amps = (setup: Setup, ref: string) =>
  Math.abs(branchAmps(world(setup), compiled.parts[compiled.partIndex.get(ref)!]!.branches[0]!.index));
const volts = (setup: Setup, node: string) =>
  world(setup).changed.pairVolts(compiled.nodeIndex.get(node)!, compiled.frame);
const left: Setup = { controls: { lever: 'left' } };

describe('a set-up', () => {
  it('has the keys of its schema', () => {
    expect(SETUP_KEYS.toSorted()).toEqual(Object.keys(setupSchema.shape).sort());
  });

  it('stands every control that it does not name at its first position', () => {
    expect(amps({}, 'Y1')).toBeLessThan(1e-6);
    expect(amps(left, 'Y1')).toBeCloseTo(1.5, 1);
    expect(amps(left, 'Y2')).toBeLessThan(1e-6);
  });

  it.each([
    ['a fuse pulled', { ...left, pulled: ['F1'] }],
    ['the supply isolated', { ...left, isolated: ['G1'] }],
    ['a plug off', { ...left, unplugged: ['X1'] }],
    ['the coil out', { ...left, removed: ['Y1'] }],
    ['one end lifted', { ...left, lifted: [{ part: 'Y1', node: 'Y1:1' }] }],
  ] as [string, Setup][])('stops the current with %s', (_what, setup) => {
    expect(amps(setup, 'Y1')).toBeLessThan(1e-6);
  });

  it('feeds a coil over a bridge', () => {
    expect(amps({ jumpers: [['A', 'Y2:1']] }, 'Y2')).toBeCloseTo(1.5, 1);
  });

  it('turns a sensor’s wiper with its control, from return to supply', () => {
    const at = (rod: string) => volts({ controls: { rod } }, 'SIG') / volts({}, 'A');
    expect(at('in')).toBeCloseTo(0.1, 2);
    expect(at('middle')).toBeCloseTo(0.5, 2);
    expect(at('out')).toBeCloseTo(0.9, 2);
  });

  it('moves a part’s current to its twin’s place when they are swapped', () => {
    const swapped: Setup = { ...left, swapped: [['Y1', 'Y2']] };
    // Y1 now sits where Y2 did, and Y2 is what the left side feeds.
    expect(amps(swapped, 'Y1')).toBeLessThan(1e-6);
    expect(amps(swapped, 'Y2')).toBeCloseTo(1.5, 1);
  });

  it.each([
    [{ controls: { gear: 'left' } }, 'setup.controls', /unknown control "gear"; known: lever, rod/],
    [
      { controls: { lever: 'up' } },
      'setup.controls.lever',
      /unknown position "up"; it has rest, left, right/,
    ],
    [{ pulled: ['F9'] }, 'setup.pulled', /unknown part "F9"; known: G1, F1/],
    [{ unplugged: ['X9'] }, 'setup.unplugged', /unknown connector "X9"; known: X1, X2/],
    [{ lifted: [{ part: 'Y1', node: 'A' }] }, 'setup.lifted', /"Y1" has no end on node "A"/],
    [{ jumpers: [['A', 'nowhere']] }, 'setup.jumpers', /unknown node "nowhere"/],
    [{ swapped: [['Y1', 'F1']] }, 'setup.swapped', /"Y1" and "F1" are not alike/],
    [{ secured: ['F1'] }, 'setup.secured', /"F1" is a fuse; name the coil or actuator that holds the load/],
    [{ override: ['Y1'] }, 'setup.override', /"Y1" is a coil; only a valve has an override/],
    [{ open: ['A'] }, 'setup.open', /node "A" is electrical; name a node of the air, oil or vacuum side/],
  ] as [Setup, string, RegExp][])('is refused by name: %j', (setup, field, problem) => {
    expect(() => model.situation(setup)).toThrow(
      expect.objectContaining({ field, problem: expect.stringMatching(problem) }),
    );
  });
});

describe('the air side in a set-up', () => {
  const kPa = (setup: Setup, node: string) => {
    const now = world(setup);
    return now.changed.pairVolts(compiled.nodeIndex.get(node)!, compiled.atmosphere);
  };

  it('follows the coil, the hand on the valve and the bench supply', () => {
    expect(kPa({}, 'port')).toBeLessThan(5);
    for (const setup of [left, { override: ['Q1'] }, { energised: ['Y1'] }])
      expect(kPa(setup, 'port')).toBeGreaterThan(650);
  });

  it('loses its pressure where a line is open, and holds it where the opening is stopped', () => {
    expect(kPa({ ...left, open: ['port'] }, 'port')).toBeLessThan(500);
    const off: Setup = { ...left, lifted: [{ part: 'C1', node: 'port' }] };
    expect(kPa(off, 'port')).toBeLessThan(500);
    expect(kPa({ ...off, plugged: ['port'] }, 'port')).toBeGreaterThan(650);
  });
});
