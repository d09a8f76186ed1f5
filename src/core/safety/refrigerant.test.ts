import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '../circuit/model';
import type { Setup, Test } from '../circuit/schema';
import { listCandidateTests } from '../diagnosis/candidateTests';
import { cautionsOf } from '../diagnosis/cautionsOf';
import { Diagnoser } from '../diagnosis/diagnose';
import type { Entry } from '../job/entries';
import { careOf, mayBeLeft, proofList, proofStanding } from '../job/proofList';
import { reduceJob } from '../job/reduceJob';
import { handOverStops } from '../job/rules/handOverStops';
import { mayAppend } from '../job/rules/mayAppend';
import { testGate } from '../job/rules/testGate';
import { entryWriter, fitted } from '../testing/entryWriter';
import { isolationPlan } from './isolationPlan';
import { holdsRefrigerant, isOfRefrigerant, REFRIGERANT_CARES, refrigerantOpened } from './refrigerant';
import { signedAs, somebody } from '../testing/signedAs';
import type { Person } from '../people/roles';

const model = new CircuitModel(demoCircuit('cellar-liquid-valve'));
const open: Test = { kind: 'flow', at: 'R2', setup: { open: ['R2'] } };
const write = entryWriter('Henrike');
const henrike = somebody('Henrike');
const tove = somebody('Tove', { licences: ['lineVolts'] });
const decided = write('decision', {
  part: 'Q1',
  fault: 'stuckAtRest',
  action: 'replace',
  why: 'no pressure behind',
});
const fix = (part: string, more: object = {}) => write('fix', fitted(part, more));
const by = (entry: Entry, person: string): Entry => ({ ...entry, person });
const refusal = (entry: Entry, who: Person = henrike, log: readonly Entry[] = [decided]) =>
  mayAppend(entry, {
    model,
    log: () => log,
    after: () => [],
    receivedMs: Date.parse(entry.at),
    signing: signedAs(who),
  });

describe('a refrigerant circuit', () => {
  it('is opened for no reading, whatever is isolated, and no such test is offered', () => {
    expect(refrigerantOpened(model, open)).toEqual(['R2']);
    const off: Setup = { isolated: ['P0', 'P9', 'G1'], open: ['R2'] };
    expect(refrigerantOpened(model, { ...open, setup: off })).toEqual(['R2']);
    const lifted = [{ part: 'H1', node: 'R3' }];
    // A line that is taken off lets it out, also where its end is stopped afterwards.
    for (const setup of [{ lifted }, { plugged: ['R3'] }, { lifted, plugged: ['R3'] }] as Setup[])
      expect(refrigerantOpened(model, { kind: 'pressure', at: 'R1', setup })).toEqual(['R3']);
    expect(refrigerantOpened(model, { kind: 'pressure', at: 'R2', setup: {} })).toEqual([]);
    const tests = listCandidateTests(model).tests.map(({ bound }) => bound.test);
    expect(tests.filter((test) => refrigerantOpened(model, test).length > 0)).toEqual([]);
    expect(
      tests.filter(({ setup }) => setup.lifted?.some(({ node }) => holdsRefrigerant(model, node))),
    ).toEqual([]);
    expect(tests.some(({ kind }) => kind === 'pressure')).toBe(true);
    const none = { madeSafe: null, isolated: new Map(), locks: new Map() };
    const gate = testGate(model, isolationPlan(model), none, open, henrike);
    expect(gate).toEqual({ state: 'refrigerantOpened', at: ['R2'] });
    const reading = { ...open, value: 'none' };
    expect(refusal(write('reading', { reading, typed: 'none' }))).toMatchObject({
      code: 'opensRefrigerant',
    });
    expect(isolationPlan(model).filter(({ energy }) => energy === 'refrigerant')).toHaveLength(2);
    const gauge: Test = { kind: 'pressure', at: 'R2', setup: {} };
    expect(cautionsOf(model, gauge)).toContain('refrigerant');
    expect(cautionsOf(model, gauge)).not.toContain('pressure');
  });

  it('stands locked like any supply: a gauge is read once its valves were opened by name', () => {
    const locked = isolationPlan(model).map(({ point }) => point);
    const said = {
      kind: 'function',
      part: 'Y1',
      setup: { controls: { call: 'on' } },
      value: 'works',
    } as const;
    const { next } = new Diagnoser(demoCircuit('cellar-liquid-valve')).diagnose([said], {
      locked,
      most: 200,
    });
    const gauge = next.find(({ test }) => test.kind === 'pressure')!;
    expect(gauge.before.open).toContain('P0');
    const state = {
      madeSafe: null,
      isolated: new Map(locked.map((point) => [point, {} as never])),
      locks: new Map(),
    };
    expect(testGate(model, isolationPlan(model), state, gauge.test, henrike)).toMatchObject({
      state: 'open',
    });
  });

  it('is worked on by who is licensed for it, and by nobody else', () => {
    expect(refusal(fix('Q1', { untested: 'sealed' }))).toBeNull();
    expect(refusal(by(fix('Q1', { untested: 'sealed' }), 'Tove'), tove)).toEqual({
      code: 'notLicensed',
      person: 'Tove',
      licence: 'refrigerant',
    });
    const care = write(
      'proof',
      { proof: 'care leakCheck Q1', done: true, found: 'done' },
      { against: { number: 9, own: [] } },
    );
    expect(refusal(by(care, 'Tove'), tove)).toMatchObject({ code: 'notLicensed' });
    expect(refusal(care)).toBeNull();
    // Its coil is electricity like any other.
    expect(isOfRefrigerant(model, 'Y1')).toBe(false);
    expect(refusal(by(fix('Y1', { untested: 'none' }), 'Tove'), tove)).toBeNull();
  });

  it('goes back to work after each care is shown; leak check and evacuation are not left with a reason', () => {
    const proofs = proofList(model, reduceJob([decided])).flatMap((proof) =>
      proof.kind === 'care' ? [proof] : [],
    );
    // Only a pressure switch has something to trip.
    expect(proofs.map(({ care }) => care)).toEqual(REFRIGERANT_CARES.filter((care) => care !== 'trips'));
    expect(proofs.filter((proof) => !mayBeLeft(proof)).map(({ care }) => care)).toEqual([
      'leakCheck',
      'evacuation',
    ]);
    expect(careOf('care stem Q1')).toEqual({ care: 'stem', part: 'Q1' });
    expect([careOf('works Q1'), careOf('care nothing Q1')]).toEqual([null, null]);
    const left = (care: string) =>
      refusal(
        write(
          'proof',
          { proof: `care ${care} Q1`, done: false, found: '', reason: 'flared' },
          { against: { number: 9, own: [] } },
        ),
      );
    expect(left('evacuation')).toEqual({ code: 'careShown', care: 'evacuation' });
    expect(left('hotWork')).toBeNull();
    const dated = proofs.find(({ care }) => care === 'dated')!;
    const standing = (...log: Entry[]) => proofStanding(dated, reduceJob([decided, ...log])).state;
    expect([standing(fix('Q1')), standing(fix('Q1', { dated: '2026-02-04' }))]).toEqual(['open', 'done']);
    const stops = handOverStops(model, reduceJob([decided, fix('Q1')]));
    expect(JSON.stringify(stops)).toContain('care evacuation Q1');
    expect(proofList(model, reduceJob([])).some(({ kind }) => kind === 'care')).toBe(false);
  });
});
