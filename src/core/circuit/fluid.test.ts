import { bindTest, predict, predictedValue } from '../diagnosis/predict';
import { faultByName, listFaults } from '../diagnosis/faults';
import * as fluid from '../templates/fluid';
import { InputError } from './inputError';
import { CircuitModel } from './model';
import { parseCircuit } from './parse';
import type { Circuit, Setup, Test } from './schema';

const on: Setup = { controls: { bit: '1' } };

function read(circuit: Circuit, test: Test, fault?: [string, string, number?]): unknown {
  const model = new CircuitModel(circuit);
  const edits = fault
    ? (() => {
        const found = faultByName(listFaults(model), fault[0], fault[1], fault[2]);
        return found.fault.variants[0]!.edits(found.severity);
      })()
    : [];
  return predictedValue(test.kind, predict(bindTest(model, test), edits));
}

const moves = (setup: Setup): Test => ({ kind: 'moves', part: 'C1', setup });
const pressure = (at: string, setup: Setup = {}): Test => ({ kind: 'pressure', at, setup });

describe('a clamp on a pilot valve', () => {
  const clamp = fluid.airClamp();

  it('extends on command and retracts at rest, full pressure behind the piston', () => {
    expect(read(clamp, moves(on))).toBe('extends');
    expect(read(clamp, moves({}))).toBe('retracts');
    expect(read(clamp, pressure('C:A', on))).toBeCloseTo(600, 0);
    expect(read(clamp, pressure('C:B', on))).toBeCloseTo(0, 3);
    expect(read(clamp, pressure('P0'))).toBeCloseTo(700, 0);
  });

  it('stands mid-way when the pilot lacks pressure: both sides pressed, no motion, air out of both exhausts', () => {
    const low: [string, string, number] = ['Z2', 'lowPressure', 0.3];
    expect(read(clamp, moves(on), low)).toBe('still');
    expect(Number(read(clamp, pressure('C:A', on), low))).toBeGreaterThan(20);
    expect(Number(read(clamp, pressure('C:B', on), low))).toBeGreaterThan(20);
    expect(read(clamp, { kind: 'flow', at: 'Q1:3', setup: on }, low)).not.toBe('none');
    expect(read(clamp, { kind: 'flow', at: 'Q1:5', setup: on }, low)).not.toBe('none');
    // At rest the spring alone decides, and the valve is not to blame.
    expect(read(clamp, moves({}), low)).toBe('retracts');
  });

  it('tells coil from valve by the override, and valve from cylinder', () => {
    const override: Setup = { override: ['Q1'] };
    // Driven to where it rests already: nothing is seen to move.
    expect(read(clamp, moves(on), ['Y1', 'open'])).toBe('still');
    expect(read(clamp, moves(override), ['Y1', 'open'])).toBe('extends');
    expect(read(clamp, moves(override), ['Q1', 'stuckAtRest'])).toBe('still');
    expect(read(clamp, pressure('Q1:4', override), ['C1', 'jammed'])).toBeCloseTo(600, 0);
    expect(read(clamp, moves(override), ['C1', 'jammed'])).toBe('still');
  });

  it('shows a leaking piston seal as bubbles at the far port, and none when it is tight', () => {
    const bubbles: Test = { kind: 'flow', at: 'C:B', setup: { ...on, open: ['C:B'] } };
    expect(read(clamp, bubbles)).toBe('none');
    expect(read(clamp, bubbles, ['C1', 'sealLeak', 2000])).toBe('bubbles');
    expect(read(clamp, bubbles, ['C1', 'sealLeak', 20])).toBe('weak');
  });

  it('holds the piston when its exhaust is stopped, and frees it when the port is opened', () => {
    const blocked: [string, string, number] = ['U3', 'blocked', 1e5];
    expect(read(clamp, moves(on), blocked)).toBe('still');
    expect(read(clamp, { kind: 'function', part: 'C1', setup: { ...on, open: ['Q1:3'] } }, blocked)).toBe(
      'works',
    );
    expect(read(clamp, { kind: 'function', part: 'C1', setup: { ...on, plugged: ['Q1:3'] } })).toBe('dead');
  });

  it('isolates a leak by taking the line off and stopping its end', () => {
    const leak: [string, string, number] = ['H4', 'leaking', 0.05];
    const off: Setup = { ...on, lifted: [{ part: 'R4', node: 'Q1:4' }], plugged: ['Q1:4'] };
    expect(Number(read(clamp, pressure('Q1:4', on), leak))).toBeLessThan(560);
    expect(read(clamp, pressure('Q1:4', off), leak)).toBeCloseTo(600, 0);
  });
});

describe('coil, valve, pressure and contact in one loop', () => {
  it('runs the compressor below the switch’s point and stops it above', () => {
    const setup: Setup = { controls: { main: 'on' } };
    const motor: Test = { kind: 'function', part: 'M1', setup };
    expect(read(fluid.compressorControl(), motor)).toBe('works');
    const charged = fluid.compressorControl();
    for (const part of charged.parts) if (part.kind === 'airSupply') part.kPa = 850;
    expect(read(charged, { kind: 'amps', through: 'M1', setup })).toBeCloseTo(0, 6);
    // A switch that has drifted down cuts out too early.
    expect(read(fluid.compressorControl(), motor, ['B1', 'drifted', 0.5])).toBe('dead');
  });

  it('chatters where a valve feeds the switch that feeds its own coil the wrong way', () => {
    const circuit = parseCircuit({
      format: 'spiraxis-circuit',
      version: 1,
      name: 'buzzing valve',
      frame: 'GND',
      parts: [
        { ref: 'G1', kind: 'source', nodes: { '+': 'B+', '-': 'GND' }, volts: 24 },
        {
          ref: 'B1',
          kind: 'pressureSwitch',
          nodes: { '1': 'B+', '2': 'A', port: 'Q:2' },
          makeKPa: 300,
          breakKPa: 100,
          contact: 'NC',
        },
        { ref: 'Y1', kind: 'coil', nodes: { '1': 'A', '2': 'GND' }, ohms: 48 },
        { ref: 'P1', kind: 'airSupply', nodes: { out: 'P' }, kPa: 600 },
        { ref: 'Q1', kind: 'valve', ways: '3/2', nodes: { '1': 'P', '2': 'Q:2' }, coil: 'Y1' },
      ],
    });
    expect(new CircuitModel(circuit).situation({}).solve({ mode: 'live' }).chatters).toBe(true);
  });
});

describe('a gate with two coils', () => {
  it('can be stuck to either side', () => {
    const gate = fluid.gateValve();
    const model = new CircuitModel(gate);
    const { fault } = faultByName(listFaults(model), 'Q1', 'stuckShifted');
    const rest = bindTest(model, { kind: 'moves', part: 'C1', setup: {} });
    const ways = fault.variants.map(({ edits }) => predictedValue('moves', predict(rest, edits(1))));
    expect(ways).toEqual(['extends', 'retracts']);
    expect(predictedValue('moves', predict(rest, []))).toBe('still');
  });
});

describe('vacuum', () => {
  it('pulls the actuator on command, and lets go at rest through the vent', () => {
    const circuit = fluid.vacuumVent();
    const part = 'U1';
    expect(read(circuit, { kind: 'moves', part, setup: { controls: { command: 'on' } } })).toBe('retracts');
    expect(read(circuit, { kind: 'moves', part, setup: {} })).toBe('extends');
    const gauge = pressure('V4', { controls: { command: 'on' } });
    expect(read(circuit, gauge)).toBeCloseTo(-75, 1);
    // A valve that vents when it should not: the gauge never passes half.
    expect(Number(read(circuit, gauge, ['Q1', 'stuckMidway']))).toBeGreaterThan(-45);
  });
});

describe('what cannot be read', () => {
  const clamp = fluid.airClamp();
  it.each([
    [{ kind: 'volts', from: 'C:A', to: 'GND', setup: {} }, /carries fluid/],
    [{ kind: 'pressure', at: 'S+', setup: {} }, /is electrical/],
    [{ kind: 'moves', part: 'Y1', setup: {} }, /name a cylinder/],
    [{ kind: 'pressure', at: 'P', setup: { override: ['Y1'] } }, /only a valve has an override/],
    [{ kind: 'amps', through: 'H1', setup: {} }, /clamp a wire/],
    [{ kind: 'pressure', at: 'P', setup: { secured: ['Q1'] } }, /name the coil/],
  ] as [Test, RegExp][])('is refused by name: %j', (test, message) => {
    expect(() => bindTest(new CircuitModel(clamp), test)).toThrow(InputError);
    expect(() => bindTest(new CircuitModel(clamp), test)).toThrow(message);
  });

  it('refuses a node that carries both, and a valve whose coil is not there', () => {
    const parts = clamp.parts.map((part) =>
      part.kind === 'silencer' && part.ref === 'U3' ? { ...part, nodes: { in: 'A1:O' } } : part,
    );
    expect(() => new CircuitModel({ ...clamp, parts })).toThrow(/give this end another name/);
    const lost = clamp.parts.map((part) => (part.kind === 'valve' ? { ...part, coil: 'Y9' } : part));
    expect(() => new CircuitModel({ ...clamp, parts: lost })).toThrow(/no coil "Y9"; known: Y1/);
  });
});
