import { demoCircuit } from '@/testing/demoCircuits';
import type { Circuit, Reading, Test } from '../../circuit/schema';
import { CircuitModel } from '../../circuit/model';
import { cautionsOf } from '../../diagnosis/cautionsOf';
import { listCandidateTests, mayTake } from '../../diagnosis/candidateTests';
import { Diagnoser } from '../../diagnosis/diagnose';
import { switchTest } from '../../diagnosis/fluidCandidates';
import { bindTest } from '../../diagnosis/predict';
import { MachineUnderTest } from '../../testing/machineUnderTest';
import { testGate } from '../../job/rules/testGate';
import { reduceJob } from '../../job/reduceJob';
import { isolationPlan } from '../../safety/isolationPlan';
import { somebody } from '../../testing/signedAs';

const circuit = demoCircuit('dryer-air-switch');
const model = new CircuitModel(circuit);
const airSwitch = circuit.parts.find((part) => part.kind === 'pressureSwitch')!;
const up = switchTest(model, airSwitch, 'rising');
const down = switchTest(model, airSwitch, 'falling');
const read = (test: Test, part?: string, fault?: string, size?: number) =>
  new MachineUnderTest(circuit, part, fault, size).value(test);

describe('a pressure switch on a hand pump', () => {
  it('changes over at its points, at others where it drifted, and not at all where its contact does not follow', () => {
    expect(read(up)).toBeCloseTo(5, 1);
    expect(read(down)).toBeCloseTo(3, 1);
    expect(read(up, 'B1', 'drifted', 2)).toBeCloseTo(10, 1);
    for (const fault of ['stuckOpen', 'stuckClosed']) expect(read(up, 'B1', fault)).toBe('OL');
    // Whatever is wrong elsewhere, the switch is by itself.
    expect(read(up, 'H1', 'blocked')).toBeCloseTo(5, 1);
    expect(read(up, 'W1', 'open')).toBeCloseTo(5, 1);
  });

  it('is read dead, with its line off: not before the work is made safe', () => {
    const gate = testGate(model, isolationPlan(model), reduceJob([]), up, somebody());
    expect(gate).toEqual({ state: 'unsigned' });
    expect(cautionsOf(model, up)).toEqual(expect.arrayContaining(['powerOff', 'pressure']));
    const { lifted: _lifted, ...onItsLine } = up.setup;
    expect(() => bindTest(model, { ...up, setup: onItsLine })).toThrow(/its line off "P1"/);
    const { pulled: _pulled, ...live } = up.setup;
    expect(() => bindTest(model, { ...up, setup: { ...live, controls: { heat: 'on' } } })).toThrow(/powered/);
    expect(() => bindTest(model, { ...up, part: 'F1' } as Test)).toThrow(/only a pressure switch/);
  });

  it('is offered once the doubt is on it, never on refrigerant, on oil with all that presses shut off', () => {
    const offered = (one: CircuitModel) =>
      listCandidateTests(one).tests.flatMap(({ bound: { test } }) => (test.kind === 'changes' ? [test] : []));
    expect(offered(model)).toEqual([up]);
    const cold = circuit.parts.map((part) =>
      'port' in part.nodes || part.kind === 'airSupply' ? { ...part, refrigerant: true } : part,
    );
    expect(offered(new CircuitModel({ ...circuit, parts: cold } as Circuit))).toEqual([]);
    const oil = circuit.parts.map((part) =>
      part.kind === 'airSupply' ? { ...part, kind: 'pump', kPa: 9000 } : part,
    );
    const pressed = new CircuitModel({ ...circuit, parts: oil } as Circuit);
    const [one] = offered(pressed);
    expect(one!.setup.isolated).toEqual(['G1', 'P0']);
    expect(mayTake(pressed, { ...one!, setup: { ...up.setup } })).toBeNull();
  });

  it('tells the switch from its tube', () => {
    const heat = { controls: { heat: 'on' } };
    const before: Reading[] = [
      { kind: 'function', part: 'Y1', setup: heat, value: 'dead' },
      { kind: 'volts', from: 'B:1', to: 'GND', setup: heat, value: 24.3 },
      { kind: 'volts', from: 'B:2', to: 'GND', setup: heat, value: 0 },
      { kind: 'pressure', at: 'P0', setup: {}, value: 12 },
    ];
    const diagnoser = new Diagnoser(circuit);
    const said = (value: number | 'OL') => diagnoser.diagnose([...before, { ...up, value } as Reading]);
    expect(said('OL').verdict).toMatchObject({ state: 'name', part: 'B1', fault: 'stuckOpen' });
    expect(said(5).suspects[0]!.part).not.toBe('B1');
    expect(said(11).suspects[0]).toMatchObject({ part: 'B1', fault: 'drifted' });
  });
});
