import { CircuitModel } from '../circuit/model';
import type { Setup, Test } from '../circuit/schema';
import { listCandidateTests } from '../diagnosis/candidateTests';
import { isolationPlan } from './isolationPlan';
import { testGate } from '../job/rules/testGate';
import { guardsOfLine } from '../job/rules/ledgerStanding';
import { entryWriter } from '../testing/entryWriter';
import { somebody } from '../testing/signedAs';
import { reduceJob } from '../job/reduceJob';
import { demoCircuit } from '../../testing/demoCircuits';
import { hydraulicLift } from '../templates/fluid';
import { reliefsCutOff } from './relief';

const lift = new CircuitModel(demoCircuit('groomer-tiller-lift'));
const off = (part: string, node: string): Setup => ({ lifted: [{ part, node }], plugged: [node] });

describe('a relief valve', () => {
  it('is not taken from what it guards while that runs, whether its own end is off or one on the way to it', () => {
    expect(reliefsCutOff(lift, off('RV1', 'Pump outlet'))).toEqual(['RV1']);
    expect(reliefsCutOff(lift, off('P1', 'Pump outlet'))).toEqual(['RV1']);
    const { parts, ...rest } = hydraulicLift();
    const behind = new CircuitModel({
      ...rest,
      parts: [
        { ref: 'H9', kind: 'hose', nodes: { '1': 'P', '2': 'R' } },
        { ref: 'RV9', kind: 'relief', nodes: { in: 'R' }, kPa: 17_000 },
        ...parts,
      ],
    });
    expect(reliefsCutOff(behind, off('H9', 'P'))).toEqual(['RV9']);
    expect(reliefsCutOff(behind, off('H9', 'R'))).toEqual(['RV9']);
  });

  it('may be off once every source that it guards is let down; what is off behind it cuts nothing off', () => {
    const setup = off('RV1', 'Pump outlet');
    expect(reliefsCutOff(lift, { ...setup, isolated: ['P1'] })).toEqual(['RV1']);
    expect(reliefsCutOff(lift, { ...setup, isolated: ['P1', 'AC1'] })).toEqual([]);
    expect(reliefsCutOff(lift, off('H2', 'Cylinder cap end'))).toEqual([]);
    expect(reliefsCutOff(new CircuitModel(hydraulicLift()), off('H1', 'C:A'))).toEqual([]);
  });

  it('no test is offered without it, the gate shuts one that is asked for, and one left off is a defect', () => {
    const cut = listCandidateTests(lift).tests.filter(
      ({ bound }) => reliefsCutOff(lift, bound.test.setup).length > 0,
    );
    expect(cut).toEqual([]);
    const test: Test = { kind: 'pressure', at: 'Pump outlet', setup: off('RV1', 'Pump outlet') };
    const none = { madeSafe: null, isolated: new Map(), locks: new Map() };
    expect(testGate(lift, isolationPlan(lift), none, test, somebody())).toEqual({
      state: 'reliefOff',
      reliefs: ['RV1'],
    });
    const puts = { lifted: [{ part: 'RV1', node: 'Pump outlet' }] };
    const { ledger } = reduceJob([
      entryWriter()('ledger', { item: 'RV1 off Pump outlet', kind: 'lifted', puts }),
    ]);
    expect(guardsOfLine(lift, ledger[0]!)).toEqual(['RV1']);
  });
});
