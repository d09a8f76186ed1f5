import { demoCircuit } from '@/testing/demoCircuits';
import type { Reading, Test } from '../../circuit/schema';
import { CircuitModel } from '../../circuit/model';
import { cautionsOf } from '../../diagnosis/cautionsOf';
import { listCandidateTests } from '../../diagnosis/candidateTests';
import { Diagnoser } from '../../diagnosis/diagnose';
import { bindTest } from '../../diagnosis/predict';
import { airClamp, hydraulicLift } from '../../templates/fluid';
import { MachineUnderTest } from '../../testing/machineUnderTest';

const circuit = demoCircuit('heater-flap');
const model = new CircuitModel(circuit);
const port = (circuit.parts.find(({ ref }) => ref === 'U1')!.nodes as { port: string }).port;
const line = circuit.parts.find(
  ({ kind, nodes }) => kind === 'hose' && Object.values(nodes).includes(port),
)!.ref;
const pumped: Test = {
  kind: 'hold',
  at: port,
  setup: { lifted: [{ part: line, node: port }], plugged: [port] },
};

describe('a hand pump on a vacuum line', () => {
  it('holds on a sound actuator and falls on a leaking one', () => {
    expect(new MachineUnderTest(circuit).value(pumped)).toBe('holds');
    expect(new MachineUnderTest(circuit, 'U1', 'leaking', 30).value(pumped)).toBe('falls');
    // What leaks elsewhere is off.
    expect(new MachineUnderTest(circuit, line, 'leaking', 30).value(pumped)).toBe('holds');
  });
  it('is offered where vacuum or air is, never on oil or refrigerant, and says that something will move', () => {
    const kinds = (one: CircuitModel) =>
      new Set(listCandidateTests(one).tests.map(({ bound }) => bound.test.kind));
    expect(kinds(model).has('hold')).toBe(true);
    expect(kinds(new CircuitModel(airClamp())).has('hold')).toBe(true);
    expect(kinds(new CircuitModel(demoCircuit('cellar-liquid-valve'))).has('hold')).toBe(false);
    expect(kinds(new CircuitModel(hydraulicLift())).has('hold')).toBe(false);
    expect(cautionsOf(model, pumped)).toContain('moves');
  });
  it('proves a leaking actuator: it is all that is left there', () => {
    const dead = {
      kind: 'function',
      part: 'U1',
      setup: { controls: { command: 'on' } },
      value: 'dead',
    } as const;
    const { suspects } = new Diagnoser(circuit).diagnose([dead, { ...pumped, value: 'falls' } as Reading]);
    expect(suspects[0]).toMatchObject({ part: 'U1', fault: 'leaking' });
  });
  it('tells a leaking piston from a leaking line', () => {
    const clamp = airClamp();
    const told = {
      kind: 'hold',
      at: 'C:A',
      setup: { lifted: [{ part: 'H4', node: 'C:A' }], plugged: ['C:A'] },
    } as unknown as Test;
    expect(new MachineUnderTest(clamp).value(told)).toBe('holds');
    expect(new MachineUnderTest(clamp, 'H4', 'leaking', 20).value(told)).toBe('holds');
    expect(new MachineUnderTest(clamp, 'C1', 'sealLeak', 20).value(told)).toBe('falls');
  });
  it('is refused on oil', () => {
    const lift = new CircuitModel(hydraulicLift());
    const at = lift.compiled.nodeNames.find((_name, node) => lift.compiled.domains[node] === 'fluid')!;
    expect(() => bindTest(lift, { kind: 'hold', at, setup: {} })).toThrow(/gives at once/);
  });
  it('is refused where the place is open', () => {
    expect(() => bindTest(model, { ...pumped, setup: {} } as Test)).toThrow(/is open in this set-up/);
  });
});
