import { CircuitModel } from '../../circuit/model';
import type { Test } from '../../circuit/schema';
import type { Entry } from '../entries';
import { reduceJob } from '../reduceJob';
import { contactorTwoSupplies } from '../../templates/line';
import { entryWriter } from '../../testing/entryWriter';
import { isolationPlan } from '../../safety/isolationPlan';
import { stepsDone } from './stepsDone';
import { standsSafe, testGate, workStanding } from './testGate';
import { somebody } from '../../testing/signedAs';

const write = entryWriter();
const entry = ({ type, body, ...more }: { type: Entry['type']; body: object }) => write(type, body, more);

describe('the gate before a test', () => {
  const model = new CircuitModel(contactorTwoSupplies());
  const plan = isolationPlan(model);
  const supplies = plan.filter(({ prove }) => prove.length > 0).map(({ point }) => point);
  const dead: Test = { kind: 'ohms', from: 'a', to: 'b', setup: {} };
  const calling = { controls: { thermostat: 'calling' } };
  // The motor hangs on the line supply, and its contactor on the other one.
  const live: Test = { kind: 'volts', from: 'T1:L', to: 'PE', setup: calling };
  const closed = plan.map(({ point, energy }) =>
    entry({ type: 'isolation', body: { point, energy, how: '', lock: '1', tag: '1', released: '' } }),
  );
  const signed = entry({ type: 'madeSafe', body: { points: plan.map(({ point }) => point) } });
  const gate = (entries: Entry[], test: Test) => testGate(model, plan, reduceJob(entries), test, somebody());

  it('a dead test waits for the signed plan; a live one before any lock does not', () => {
    expect(gate([], dead)).toEqual({ state: 'unsigned' });
    expect(gate(closed, dead)).toEqual({ state: 'unsigned' });
    expect(gate([], live)).toEqual({ state: 'free' });
    expect(gate([...closed, signed], dead)).toEqual({ state: 'free' });
  });
  it('a live test opens by name the locked supplies that feed it, save those that it leaves off', () => {
    expect(gate([...closed, signed], live)).toEqual({ state: 'open', points: supplies });
    const withOneOff: Test = { ...live, setup: { ...calling, isolated: [supplies[0]!] } };
    expect(gate([...closed, signed], withOneOff)).toEqual({ state: 'open', points: supplies.slice(1) });
  });
  it('a reading on the low side opens no line supply, nor does the motor at rest ask for its contactor', () => {
    const low: Test = { kind: 'volts', from: 'A1', to: 'PE', setup: calling };
    expect(gate([...closed, signed], low)).toEqual({ state: 'open', points: ['G2'] });
    expect(gate([...closed, signed], { ...live, setup: {} })).toEqual({ state: 'open', points: ['G1'] });
    const click: Test = { kind: 'click', part: 'K1', setup: calling };
    expect(gate([...closed, signed], click)).toEqual({ state: 'open', points: ['G2'] });
  });
  it('what was opened for a test is closed again before the next dead one', () => {
    const opened = entry({ type: 'reopened', body: { point: supplies[0]!, reason: 'volts', setup: {} } });
    expect(gate([...closed, signed, opened], dead)).toEqual({ state: 'close', points: [supplies[0]!] });
    const again = entry({
      type: 'isolation',
      body: { point: supplies[0]!, energy: 'line', how: '', lock: '1', tag: '1', released: '' },
    });
    expect(gate([...closed, signed, opened, again], dead)).toEqual({ state: 'free' });
  });
  it('the work stands safe under the signature only, and not while a point is open for a test', () => {
    const safe = (...entries: Entry[]) => standsSafe(plan, reduceJob(entries));
    const opened = entry({ type: 'reopened', body: { point: supplies[0]!, reason: 'volts', setup: {} } });
    expect(safe()).toBe(false);
    expect(safe(...closed)).toBe(false);
    expect(safe(...closed.slice(1), signed)).toBe(false);
    expect(safe(...closed, signed)).toBe(true);
    expect(safe(...closed, signed, opened)).toBe(false);
    expect(workStanding(plan, reduceJob([...closed, signed, opened]))).toEqual({
      state: 'openedForTest',
      open: [plan.find(({ point }) => point === supplies[0])],
    });
  });
  it('the step counts as done while every point that was signed for is closed, and after the repair', () => {
    const done = (...entries: Entry[]) => stepsDone(reduceJob(entries), null).includes('make-safe');
    const opened = entry({ type: 'reopened', body: { point: supplies[0]!, reason: 'volts', setup: {} } });
    expect(done(...closed)).toBe(false);
    expect(done(...closed, signed)).toBe(true);
    expect(done(...closed, signed, opened)).toBe(false);
    const blank = { spare: '', serial: '', dated: '', torque: '', seals: '' };
    const fix = entry({ type: 'fix', body: { part: 'K1', work: 'contact cleaned', ...blank } });
    expect(done(...closed, signed, fix, opened)).toBe(true);
  });
});
