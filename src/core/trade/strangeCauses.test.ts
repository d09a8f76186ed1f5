import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '../circuit/model';
import type { Circuit, Reading, Test } from '../circuit/schema';
import { Diagnoser } from '../diagnosis/diagnose';
import { workingPatterns } from '../diagnosis/patterns';
import {
  changeOverRelay,
  driverHighSide,
  singleCoil,
  twinOutputs,
  twoWayPair,
} from '../templates/electrical';
import { at, Story, volts, works } from './story';

/** Single causes that an experienced person thinks of when nothing else fits, and how each is proved. */
const TILT = demoCircuit('groomer-blade-tilt');
const tilt = (way: string) => at({ key: 'on', tilt: way });

/** What the operator finds in each command, then the program's own way to the end. */
function followed(circuit: Circuit, fault: [string, string], complaint: readonly Test[], most = 6) {
  const story = new Story(circuit, fault).take(...complaint);
  return { told: story.follow(most), asked: story.readings.slice(complaint.length) };
}

describe('a wire that touches a live feed', () => {
  const complaint = [works('Y7', tilt('left')), works('Y8', tilt('right')), works('Y7', tilt('rest'))];

  it('is one cause, and read with both its ends off against the feed before it is named', () => {
    const { told, asked } = followed(TILT, ['W14', 'shortToSupply'], complaint);
    expect(told.named).toBe('W14');
    expect(told.suspects[0]).toMatchObject({ fault: 'shortToSupply', other: 'G1' });
    const last = asked.find((one) => one.kind === 'ohms' && one.to === 'B+')!;
    expect(last.setup).toMatchObject({ isolated: ['G1'], unplugged: ['X31', 'X7'] });
  });

  it('is no suspect where the wire hangs on the battery or on the frame anyway', () => {
    const wires = new Diagnoser(TILT).faults.filter(({ fault }) => fault === 'shortToSupply');
    expect(wires.map(({ ref }) => ref)).not.toContain('W18');
    expect(wires.map(({ ref }) => ref)).toEqual(expect.arrayContaining(['W14', 'W15']));
  });
});

describe('two wires of a loom that touch', () => {
  it('are read against each other with both ends of one off, and named both', () => {
    const { told, asked } = followed(
      TILT,
      ['W14+W15', 'shortBetween'],
      [works('Y7', tilt('left')), works('Y8', tilt('left'))],
      8,
    );
    expect([told.named, told.suspects[0]!.other].sort()).toEqual(['W14', 'W15']);
    const between = asked.filter(
      (one) =>
        one.kind === 'ohms' && one.from !== 'GND' && one.to !== 'GND' && one.setup.unplugged?.includes('X31'),
    );
    expect(between.map(({ value }) => typeof value)).toContain('number');
  });
});

describe('pins in each other’s place', () => {
  it('in the plug of a coil with a suppressor across it are named, and read at the pins themselves', () => {
    const { told } = followed(
      TILT,
      ['X7.1+X7.2', 'crossedPins'],
      [works('Y7', tilt('left')), works('Y8', tilt('right'))],
    );
    // Turned round, the suppressor conducts past the coil: not it is bad, but how it is plugged.
    expect(told.named).toBe('X7.1');
    expect(told.suspects[0]).toMatchObject({ fault: 'crossedPins', other: 'X7.2' });
  });

  it('of a winding that works either way round are no fault', () => {
    const crossed = (circuit: Circuit) =>
      new Diagnoser(circuit).faults.filter(({ fault }) => fault === 'crossedPins').map(({ ref }) => ref);
    const bare = singleCoil();
    const plain: Circuit = { ...bare, parts: bare.parts.filter(({ kind }) => kind !== 'diode') };
    expect(crossed(plain)).toEqual([]);
    expect(crossed(twoWayPair()).length).toBeGreaterThan(0);
  });
});

describe('what hands left behind', () => {
  it('a bridge with ohms of its own over a contact is named by the contact it lies across', () => {
    const circuit = singleCoil();
    const off = at({ key: 'off' });
    const story = new Story(circuit, ['S1', 'bridged', 12]).take(
      works('Y1', off),
      works('Y1', at({ key: 'on' })),
    );
    const told = story.follow(8);
    expect(told.named).toBe('S1');
    expect(told.suspects[0]).toMatchObject({ part: 'S1', fault: 'bridged' });
  });

  it('wires on the resting contact of a relay instead of the working one are its relay’s fault, found by both loads', () => {
    const circuit = changeOverRelay();
    const relay = circuit.parts.find(({ kind }) => kind === 'relay')!;
    const rest = workingPatterns(new CircuitModel(circuit)).flatMap(({ setup }) => {
      const loads = circuit.parts.filter(
        ({ kind }) => kind === 'lamp' || kind === 'heater' || kind === 'motor',
      );
      return loads.map(({ ref }) => works(ref, setup));
    });
    const told = new Story(circuit, [relay.ref, 'wrongTerminal']).take(...rest).ask();
    expect(told.suspects.slice(0, 4)).toContainEqual(
      expect.objectContaining({ part: relay.ref, fault: 'wrongTerminal' }),
    );
  });
});

describe('a block of outputs', () => {
  it('that gives nothing on any is thought of where each output alone would be two faults', () => {
    const circuit = twinOutputs();
    const [first, second] = circuit.parts.filter(({ kind }) => kind === 'driver');
    const patterns = workingPatterns(new CircuitModel(circuit));
    const story = new Story(circuit, [`${first!.ref}+${second!.ref}`, 'blockDead']);
    for (const { setup, loads } of patterns) for (const ref of loads) story.take(works(ref, setup));
    const told = story.follow(8);
    expect(told.suspects[0]).toMatchObject({ part: first!.ref, fault: 'blockDead', other: second!.ref });
    expect(told.named).toBe(first!.ref);
  });
});

describe('an output that lets current through while it is off', () => {
  it('is told from one that is open or stays on by the volts it leaves', () => {
    const circuit = driverHighSide();
    const off = Object.fromEntries(Object.entries(circuit.controls).map(([key, list]) => [key, list[0]!]));
    const out = circuit.parts.find(({ kind }) => kind === 'driver')!.nodes as Record<string, string>;
    const load = circuit.parts.find(({ kind }) => kind === 'coil')!;
    const read: Reading[] = [
      { ...works(load.ref, at(off)), value: 'dead' } as Reading,
      { ...volts(out['out']!, circuit.frame, at(off)), value: 4.1 } as Reading,
    ];
    const told = new Story(circuit).say(...read).ask();
    expect(told.suspect('A1', 'leakyOutput')).toBeGreaterThan(told.suspect('A1', 'stuckOn'));
    expect(told.suspect('A1', 'leakyOutput')).toBeGreaterThan(0.3);
  });
});
