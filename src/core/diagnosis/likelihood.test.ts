import type { Reading } from '../circuit/schema';
import { density, mistakeDensity, slipDensity, totalSigma } from './likelihood';
import { meterSigma } from './meter';
import type { Prediction } from './prediction';

const number = (mean: number, sigma = 0, loose = false): Prediction => ({
  type: 'number',
  mean,
  sigma,
  loose,
});
const of = (kind: Reading['kind'], prediction: Prediction, value: Reading['value']) =>
  density(kind, prediction, value, undefined, 25);

describe('meterSigma', () => {
  it('is percent of the value plus counts of the range it is read on', () => {
    // 0.7 of 1 % of 12.6 V plus two counts of 0.01 V.
    expect(meterSigma('volts', 12.6, undefined)).toBeCloseTo(0.7 * (0.126 + 0.02), 6);
    expect(meterSigma('ohms', 31.4, undefined)).toBeCloseTo(0.7 * (0.314 + 0.2), 6);
    expect(meterSigma('volts', -12.6, undefined)).toBe(meterSigma('volts', 12.6, undefined));
  });

  it('follows the meter’s own figures', () => {
    const good = { accuracyPercent: 0.1, counts: 1 };
    expect(meterSigma('volts', 12.6, good)).toBeLessThan(meterSigma('volts', 12.6, undefined) / 4);
    expect(meterSigma('ohms', 1, { leadOhms: 3 })).toBeGreaterThan(0.3);
  });
});

describe('density', () => {
  it('peaks at the prediction and falls off with the scatter', () => {
    const at = (value: number) => of('volts', number(12.6, 0.1), value);
    expect(at(12.6)).toBeGreaterThan(at(12.3));
    expect(at(12.3)).toBeGreaterThan(at(10) * 1000);
  });

  it('integrates to one over the values a meter can show', () => {
    const sigma = totalSigma('volts', 12.6, 0.2, undefined);
    let sum = 0;
    for (let value = 12.6 - 8 * sigma; value < 12.6 + 8 * sigma; value += sigma / 20) {
      sum += of('volts', number(12.6, 0.2), value) * (sigma / 20);
    }
    expect(sum).toBeCloseTo(1, 3);
  });

  it('knows over-range from a figure', () => {
    expect(of('ohms', number(Infinity), 'OL')).toBeGreaterThan(0.9);
    expect(of('ohms', number(31.4, 1), 'OL')).toBeLessThan(1e-6);
    expect(of('ohms', number(31.4, 1), 31.4)).toBeGreaterThan(0.1);
    expect(of('ohms', number(Infinity), 31.4)).toBeLessThan(mistakeDensity('ohms', 31.4, 25));
  });

  it('holds hundreds of kilohms at test volts for a mistake less readily than few, which is something left on', () => {
    const byMistake = (kind: 'insulation' | 'ohms', value: number) =>
      slipDensity(kind, value, number(Infinity), undefined, 25) / mistakeDensity(kind, value, 25);
    expect(byMistake('insulation', 38)).toBe(1);
    expect(byMistake('insulation', 3e5)).toBeLessThan(0.3);
    // Fingers on both probes of an ohmmeter show just that.
    expect(byMistake('ohms', 3e5)).toBe(1);
    expect(of('insulation', number(Infinity), 3e5)).toBeLessThan(
      0.003 * mistakeDensity('insulation', 3e5, 25),
    );
  });

  it('cares little which way round a clamp was put on', () => {
    expect(of('amps', number(0.8, 0.02), -0.8)).toBeCloseTo(of('amps', number(0.8, 0.02), 0.8), 9);
  });

  it('believes little of a pair that floats', () => {
    const floating = number(0, 0.03, true);
    const solid = number(0, 0.03);
    expect(of('volts', floating, 14)).toBeGreaterThan(1e6 * of('volts', solid, 14));
    expect(of('volts', solid, 0)).toBeGreaterThan(of('volts', floating, 0));
  });

  it('reads choices from their odds', () => {
    const odds: Prediction = { type: 'choice', odds: { works: 0.9, weak: 0.02, dead: 0.08 } };
    expect(of('function', odds, 'works')).toBe(0.9);
    expect(of('code', { type: 'choice', odds: { '5,6': 0.7, '': 0.3 } }, [6, 5])).toBe(0.7);
    expect(of('click', { type: 'choice', odds: { true: 1 } }, false)).toBe(0);
  });
});

describe('a mistake of volts', () => {
  const slip = (value: number, due: number, range = 24) =>
    slipDensity('volts', value, number(due), undefined, range);

  it('has a shape: a probe that touches nothing, swapped leads, a misplaced point are likelier than anything else', () => {
    const other = slip(7.3, 24);
    for (const value of [0.01, -24, 2.4]) expect(slip(value, 24)).toBeGreaterThan(3 * other);
    // A missed contact on a 24 V point is no rarer for the 400 V beside it.
    expect(slip(0, 24, 400) / slip(0, 24, 24)).toBeGreaterThan(0.9);
  });

  it('integrates to about one over the range of its circuit', () => {
    let sum = 0;
    for (let value = -28.8; value < 28.8; value += 0.002) sum += 0.002 * slip(value, 24);
    expect(sum).toBeGreaterThan(0.9);
    expect(sum).toBeLessThan(1.02);
  });

  it('of another kind lies anywhere', () => {
    expect(slipDensity('amps', 1, number(2), undefined, 24)).toBe(mistakeDensity('amps', 1, 24));
  });
});
