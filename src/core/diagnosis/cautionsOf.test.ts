import { CircuitModel } from '../circuit/model';
import type { Setup, Test } from '../circuit/schema';
import { TEMPLATES } from '../templates/templates';
import { cautionsOf, type Caution } from './cautionsOf';
import { Diagnoser } from './diagnose';
import { workingPatterns } from './patterns';

const template = (id: string) => new CircuitModel(TEMPLATES.find((one) => one.id === id)!.build());
const pair = template('two-way-pair');
const working = (model: CircuitModel): Setup => workingPatterns(model)[0]!.setup;
const ofPair = (test: object): Caution[] => cautionsOf(pair, { setup: {}, ...test } as Test);
const [from, to] = [
  pair.compiled.nodeNames.find((name) => name !== pair.compiled.circuit.frame)!,
  pair.compiled.circuit.frame,
];

describe('what can hurt in a test', () => {
  it('is the machine moving, wherever the set-up feeds a load, whoever chose the test', () => {
    for (const kind of ['volts', 'code', 'fuse', 'function'] as const) {
      const test =
        kind === 'volts'
          ? { kind, from, to, setup: working(pair) }
          : { kind, part: 'F1', setup: working(pair) };
      expect(ofPair(test)).toContain('moves');
      expect(ofPair({ ...test, setup: {} })).not.toContain('moves');
    }
    expect(ofPair({ kind: 'ohms', from, to, setup: { isolated: ['G1'] } })).toEqual(['powerOff']);
  });

  it.each([
    [{ jumpers: [[from, to]] }, 'jumper'],
    [{ unplugged: [pair.compiled.connectors[0]!] }, 'unplug'],
    [{ removed: ['F1'] }, 'takeOut'],
    [{ swapped: [['Y1', 'Y2']] }, 'swap'],
  ] as const)('is what %j does', (setup, caution) => {
    expect(ofPair({ kind: 'fuse', part: 'F1', setup })).toContain(caution);
  });

  it('is test volts, and the electronics they would reach', () => {
    const driver = template('driver-high-side');
    const { compiled } = driver;
    const unit = compiled.circuit.parts.find(({ kind }) => kind === 'driver')!;
    const out = (unit.nodes as Record<string, string>).out!;
    const test: Test = {
      kind: 'insulation',
      from: out,
      to: compiled.circuit.frame,
      testVolts: 250,
      setup: {
        isolated: compiled.circuit.parts.filter(({ kind }) => kind === 'source').map(({ ref }) => ref),
      },
    };
    expect(cautionsOf(driver, test)).toEqual(
      expect.arrayContaining(['testerVolts', 'electronicsOff', 'powerOff']),
    );
  });

  it('is line volts on a live line circuit, not on a dead one', () => {
    const line = template('contactor-two-supplies');
    const { compiled } = line;
    const hot = compiled.nodeNames.find((_name, node) => compiled.alternating[node] === 1)!;
    const volts: Test = { kind: 'volts', from: hot, to: compiled.circuit.frame, setup: working(line) };
    expect(cautionsOf(line, volts)).toContain('lineVolts');
    expect(cautionsOf(line, { ...volts, kind: 'ohms' } as Test)).not.toContain('lineVolts');
    expect(ofPair({ kind: 'volts', from, to })).not.toContain('lineVolts');
  });

  it('is a load that comes down, secured or not', () => {
    const brake = template('brake-release');
    const coil = brake.compiled.circuit.parts.find((part) => part.kind === 'coil' && part.freesLoad)!;
    const run = { controls: { drive: 'running', guard: 'closed' } };
    const test = (setup: Setup): Test => ({ kind: 'fuse', part: 'F1', setup });
    expect(cautionsOf(brake, test(run))).toContain('freedLoad');
    expect(cautionsOf(brake, test({ ...run, secured: [coil.ref] }))).toContain('freedLoad');
    expect(cautionsOf(brake, test({ pulled: ['F1'] }))).not.toContain('freedLoad');
  });

  it('is pressure on the fluid side', () => {
    const air = template('air-clamp');
    const port = air.compiled.nodeNames.find((_name, node) => air.compiled.domains[node] === 'fluid')!;
    expect(cautionsOf(air, { kind: 'pressure', at: port, setup: {} })).toContain('pressure');
    const actuator = air.compiled.circuit.parts.find(({ kind }) => kind === 'cylinder')!;
    expect(cautionsOf(air, { kind: 'moves', part: actuator.ref, setup: working(air) })).toEqual(
      expect.arrayContaining(['moves', 'pressure']),
    );
  });

  it('is oil where oil is the medium, in place of pressure', () => {
    const lift = template('hydraulic-both-ways');
    const found = cautionsOf(lift, { kind: 'pressure', at: 'P', setup: {} });
    expect(found).toContain('oil');
    expect(found).not.toContain('pressure');
  });

  it('stands on a test of the person’s own as on the program’s', () => {
    const diagnoser = new Diagnoser(pair.compiled.circuit);
    const own: Test = { kind: 'volts', from, to, setup: { ...working(pair), removed: ['Y2'] } };
    expect(diagnoser.evaluate([], own).cautions).toEqual(
      expect.arrayContaining(['moves', 'takeOut', 'live']),
    );
    for (const { test, cautions } of diagnoser.diagnose([], { most: 20 }).next)
      expect(cautions).toEqual(cautionsOf(diagnoser.model, test));
  });
});
