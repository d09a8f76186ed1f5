import { CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';
import { listCandidateTests } from '../diagnosis/candidateTests';
import { isolationPlan } from './isolationPlan';
import { testGate } from '../job/rules/testGate';
import { TEMPLATES } from '../templates/templates';
import { hydraulicLift, springCylinder } from '../templates/fluid';
import { oilOpened } from './pressedOil';

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

  it('of no drawing is a test offered that opens it, and the gate shuts one that is asked for by address', () => {
    for (const { id, build } of TEMPLATES) {
      const model = new CircuitModel(build({}));
      const offered = listCandidateTests(model).tests.filter(
        ({ bound }) => oilOpened(model, bound.test).length > 0,
      );
      expect([id, offered.length]).toEqual([id, 0]);
    }
    const gate = testGate(lift, isolationPlan(lift), { madeSafe: null, isolated: new Map() }, blows);
    expect(gate).toEqual({ state: 'oilOpened', at: ['Q1:2'] });
  });

  it('air may be opened: it is a rule about oil', () => {
    const air = new CircuitModel(springCylinder());
    expect(oilOpened(air, { kind: 'flow', at: 'Q1:2', setup: { open: ['Q1:2'] } })).toEqual([]);
  });
});
