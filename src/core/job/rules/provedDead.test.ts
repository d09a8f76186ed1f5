import fc from 'fast-check';
import { CircuitModel } from '../../circuit/model';
import { isolationPlan } from '../../safety/isolationPlan';
import { contactorTwoSupplies } from '../../templates/line';
import { airClamp } from '../../templates/fluid';
import type { EntryOf, Measured } from '../entries';
import { provedDead, readProofStep, refuseProof, type ProofStep } from './provedDead';

const work: ProofStep = { at: 'work', from: 'B+', to: 'GND' };
const volts = (value: number, typed = String(value)): Measured => ({ value, unit: 'V', typed });
const plan = isolationPlan(new CircuitModel(contactorTwoSupplies()));
const point = plan.find(({ prove }) => prove.length > 1)!;
const proof = (change: Partial<EntryOf<'isolation'>['body']['proved'] & object> = {}) => ({
  meter: 'Shed meter 3',
  knownBefore: volts(12.6),
  work: point.prove.map(({ from, to }) => ({ from, to, measured: volts(0) })),
  knownAfter: volts(12.6),
  ...change,
});

describe('what is typed when a place is proved dead', () => {
  it.each([
    ['12.6 V', 12.6],
    ['120V', 120],
    ['1k', 1000],
    ['1k2', 1200],
    ['0.0', 0],
    ['−0,2', -0.2],
    ['120mV', 0.12],
  ])('%s is read as the volts it is', (typed, value) => {
    expect(readProofStep(typed, work, 'bar')).toEqual({ value, unit: 'V', typed });
  });

  it.each([
    ['', 'missing'],
    ['dead', 'noValue'],
    ['OL', 'overRange'],
    ['>2G', 'overRange'],
    ['0 A', 'wrongUnit'],
    ['0.2 ohms', 'wrongUnit'],
    ['0 bar', 'wrongUnit'],
  ])('%j is refused: %s', (typed, code) => {
    expect(readProofStep(typed, work, 'bar')).toMatchObject({ code, step: work });
  });

  it('at a gauge only a pressure is one', () => {
    expect(readProofStep('75 psi', { at: 'gauge' }, 'bar')).toMatchObject({
      unit: 'Pa',
      value: 75 * 6894.757,
    });
    expect(readProofStep('0.02', { at: 'gauge' }, 'bar')).toMatchObject({
      unit: 'Pa',
      value: 2000,
      typed: '0.02 bar',
    });
    // Two psi still move something; two kPa do not.
    expect(readProofStep('2', { at: 'gauge' }, 'psi')).toMatchObject({
      value: expect.closeTo(13_789.5, 1),
      typed: '2 psi',
    });
    expect(readProofStep('2', { at: 'gauge' }, 'kPa')).toMatchObject({
      value: expect.closeTo(2000, 6),
      typed: '2 kPa',
    });
    expect(readProofStep('0 V', { at: 'gauge' }, 'bar')).toMatchObject({ code: 'wrongUnit' });
  });
});

describe('proved dead', () => {
  it('takes three steps with every place silent and the known source speaking twice', () => {
    expect(refuseProof(point.prove, proof())).toBeNull();
    expect(refuseProof(point.prove, undefined)).toMatchObject({ code: 'missing' });
    expect(refuseProof(point.prove, proof({ knownAfter: volts(0) }))).toMatchObject({
      code: 'knownSilent',
      step: { at: 'knownAfter' },
    });
    expect(refuseProof(point.prove, proof({ work: proof().work.slice(1) }))).toMatchObject({
      code: 'missing',
    });
  });

  it('any live place, named or not, is a live circuit', () => {
    const alive = { from: 'elsewhere', to: 'PE', measured: volts(120, '120V') };
    expect(refuseProof(point.prove, proof({ work: [...proof().work, alive] }))).toMatchObject({
      code: 'alive',
      typed: '120V',
    });
  });

  it('no number that is over the limit, and nothing that is no number, ever passes', () => {
    fc.assert(
      fc.property(fc.double(), fc.nat({ max: point.prove.length - 1 }), (value, at) => {
        const changed = proof();
        changed.work[at] = { ...changed.work[at]!, measured: volts(value) };
        expect(refuseProof(point.prove, changed) === null).toBe(Math.abs(value) <= 1);
      }),
    );
  });

  it('where no meter shows it, somebody says how it was shown, and a gauge that is read reads nothing', () => {
    const air = isolationPlan(new CircuitModel(airClamp())).find(({ energy }) => energy === 'air')!;
    const body = { point: air.point, energy: air.energy, how: '', lock: '', tag: '', released: '' };
    expect(provedDead(air, body)).toEqual({ code: 'notTried' });
    expect(provedDead(air, { ...body, tried: 'tried, rests' })).toBeNull();
    const gauge = (pascals: number): Measured => ({ value: pascals, unit: 'Pa', typed: '' });
    expect(provedDead(air, { ...body, tried: 'tried', gauge: gauge(0) })).toBeNull();
    expect(provedDead(air, { ...body, tried: 'tried', gauge: gauge(600_000) })).toMatchObject({
      code: 'alive',
    });
  });
});
