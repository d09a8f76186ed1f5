import { CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';
import { testKey } from '../diagnosis/observations';
import { reduceJob } from '../job/reduceJob';
import { shopMarks } from '../tables/marks';
import { singleCoil, winchPack } from '../templates/electrical';
import { entryWriter, fitted } from '../testing/entryWriter';
import { MachineUnderTest } from '../testing/machineUnderTest';
import { readPastLimits, stillDrifts, type Drifting } from './readPastLimit';

const circuit = winchPack();
const model = new CircuitModel(circuit);
const marks = shopMarks({});
const sound = new MachineUnderTest(circuit);
const contactor = circuit.parts.find(({ kind }) => kind === 'relay')!;
const ends = contactor.nodes as { com: string; no: string };
const running = { controls: { pendant: 'out' } };
const drop: Test = { kind: 'volts', from: ends.com, to: ends.no, setup: running };

function log(...more: (readonly [Parameters<ReturnType<typeof entryWriter>>[0], object])[]) {
  const write = entryWriter();
  return reduceJob([write('retest', { tests: [drop] }), ...more.map(([type, body]) => write(type, body))]);
}
const read = (test: Test, value: number | 'OL', more: object = {}) =>
  ['reading', { reading: { ...test, value, ...more }, typed: String(value), phase: 'fixed' }] as const;

describe('places that a job leaves past their limits', () => {
  it('are those whose last reading is, with the side and what they are held against', () => {
    expect(readPastLimits(model, log(read(drop, Number(sound.value(drop)))), marks)).toEqual([]);
    const [past, ...others] = readPastLimits(model, log(read(drop, 0.1), read(drop, 0.31)), marks);
    expect(others).toEqual([]);
    expect(past).toMatchObject({
      side: 'most',
      measure: { value: 0.31, part: contactor.ref },
      limits: { most: marks.drops.heavyContact.repair, source: { code: 'drop', place: 'heavyContact' } },
    });
    expect(readPastLimits(model, log(read(drop, 0.31), read(drop, 0.1)), marks)).toEqual([]);
  });

  it('are what the part reads that was fitted, and nothing of before', () => {
    const state = log(read(drop, 0.4), ['fix', fitted(contactor.ref)]);
    expect(readPastLimits(model, state, marks)).toEqual([]);
  });

  it('leave to a winding what the weather may have done, where nobody took its warmth', () => {
    const alone = new CircuitModel(singleCoil());
    const [own] = alone.compiled.parts[alone.compiled.partIndex.get('Y1')!]!.branches;
    const winding: Test = { kind: 'ohms', from: 'X1.1:2', to: 'Y1:2', setup: { isolated: ['G1'] } };
    const past = (ohms: number, more: object = {}) =>
      readPastLimits(alone, log(read(winding, ohms, more)), marks);
    const most = own!.ohms * (1 + (own!.tolerance || marks.coilOhms.maker));
    expect(past(1.02 * most)).toEqual([]);
    expect(past(1.02 * most, { celsius: 20 })).toHaveLength(1);
    expect(past(0.3 * own!.ohms)).toHaveLength(1);
  });
});

describe('what drifted before a job', () => {
  const place = testKey(drop);
  const ahead: Drifting = { place, part: contactor.ref, title: 'contact', on: '2026-12-24', beyond: false };
  const still = (state: ReturnType<typeof log>, ...drifting: Drifting[]) =>
    stillDrifts(model, state, drifting)?.title ?? null;

  it('still does until its part is changed; one reading within the limit stops no trend', () => {
    expect(still(log(), ahead)).toBe('contact');
    expect(still(log(read(drop, 0.1)), ahead)).toBe('contact');
    expect(still(log(['fix', fitted(contactor.ref)]), ahead)).toBeNull();
    expect(still(log(['fix', fitted(contactor.ref)]), ahead, { ...ahead, part: 'M9', title: 'next' })).toBe(
      'next',
    );
  });

  it('and was past its limit speaks for itself once it is read again', () => {
    const beyond = { ...ahead, beyond: true };
    expect(still(log(), beyond)).toBe('contact');
    expect(still(log(read(drop, 0.1)), beyond)).toBeNull();
  });

  it('of a point is over where something was mended and it was read after', () => {
    const point = { ...ahead, part: null };
    expect(still(log(['fix', fitted(contactor.ref)]), point)).toBe('contact');
    expect(still(log(['fix', fitted(contactor.ref)], read(drop, 0.1)), point)).toBeNull();
  });

  it('is nothing to say where no limit is met', () => {
    expect(still(log(), { ...ahead, on: null })).toBeNull();
  });
});
