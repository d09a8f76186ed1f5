import { CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';
import { bindTest, predict, predictedValue } from '../diagnosis/predict';
import { listCandidateTests } from '../diagnosis/candidateTests';
import { isolationPlan } from './isolationPlan';
import { testGate } from '../job/rules/testGate';
import { TEMPLATES } from '../templates/templates';
import { hydraulicLift, springCylinder } from '../templates/fluid';
import { oilOpened } from './pressedOil';
import { somebody } from '../testing/signedAs';

const lift = new CircuitModel(hydraulicLift());
const raised = { controls: { lever: 'lift' } };
const blows: Test = { kind: 'flow', at: 'Q1:2', setup: { ...raised, open: ['Q1:2'] } };

describe('oil under pressure', () => {
  it('is not opened, felt at nor stopped by hand, on either side of a valve', () => {
    expect(oilOpened(lift, blows)).toEqual(['Q1:2']);
    expect(oilOpened(lift, { kind: 'function', part: 'C1', setup: { ...raised, open: ['C:A'] } })).toEqual([
      'C:A',
    ]);
    expect(oilOpened(lift, { kind: 'pressure', at: 'C:A', setup: { ...raised, plugged: ['C:A'] } })).toEqual([
      'C:A',
    ]);
    const off = [{ part: 'H1', node: 'C:A' }];
    expect(oilOpened(lift, { kind: 'pressure', at: 'P', setup: { ...raised, lifted: off } })).toEqual([
      'C:A',
    ]);
  });

  it('is read by gauges; a line may be off whose end is stopped, or whose pump is isolated', () => {
    expect(oilOpened(lift, { kind: 'pressure', at: 'P', setup: raised })).toEqual([]);
    const stopped = { lifted: [{ part: 'H1', node: 'C:A' }], plugged: ['C:A'] };
    expect(oilOpened(lift, { kind: 'pressure', at: 'C:A', setup: { ...raised, ...stopped } })).toEqual([]);
    expect(oilOpened(lift, { ...blows, setup: { ...blows.setup, isolated: ['P1'] } })).toEqual([]);
  });

  it('that an accumulator holds is under pressure until that is let down as well, after its pump has stopped', () => {
    const { parts, ...rest } = hydraulicLift();
    const charged = new CircuitModel({
      ...rest,
      parts: [{ ref: 'AC1', kind: 'accumulator', nodes: { in: 'P' }, kPa: 8000 }, ...parts],
    });
    const withOff = (...isolated: string[]) =>
      oilOpened(charged, { ...blows, setup: { ...blows.setup, isolated } });
    expect(withOff('P1')).toEqual(['Q1:2']);
    expect(withOff('AC1')).toEqual(['Q1:2']);
    expect(withOff('P1', 'AC1')).toEqual([]);
    const oil = isolationPlan(charged).filter(({ energy }) => energy === 'oil');
    expect(oil.map(({ point }) => point)).toEqual(['P1', 'AC1']);
    // It changes nothing that is read while the pump runs.
    const gauge: Test = { kind: 'pressure', at: 'C:A', setup: raised };
    const read = (model: CircuitModel) => predictedValue('pressure', predict(bindTest(model, gauge), []));
    expect(read(charged)).toBeCloseTo(read(lift) as number, 3);
  });

  it('of no drawing is a test offered that opens it, and the gate shuts one that is asked for by address', () => {
    for (const { id, build } of TEMPLATES) {
      const model = new CircuitModel(build({}));
      const offered = listCandidateTests(model).tests.filter(
        ({ bound }) => oilOpened(model, bound.test).length > 0,
      );
      expect([id, offered.length]).toEqual([id, 0]);
    }
    const none = { madeSafe: null, isolated: new Map(), locks: new Map() };
    const gate = testGate(lift, isolationPlan(lift), none, blows, somebody());
    expect(gate).toEqual({ state: 'oilOpened', at: ['Q1:2'] });
  });

  it('air may be opened: it is a rule about oil', () => {
    const air = new CircuitModel(springCylinder());
    expect(oilOpened(air, { kind: 'flow', at: 'Q1:2', setup: { open: ['Q1:2'] } })).toEqual([]);
  });
});
