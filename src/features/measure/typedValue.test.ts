import type { RankedTest } from '@/core/diagnosis/rankTests';
import { checkTyped, outcomeLetter } from './typedValue';

const volts: RankedTest = {
  test: { kind: 'volts', from: 'A', to: 'GND', setup: {} },
  bits: 1,
  minutes: 2,
  cautions: [],
  before: { lock: [], open: [] },
  across: [],
  proof: false,
  expected: 12.6,
  outcomes: [
    { reading: 0, low: -0.1, high: 0.5, share: 0.4, means: [], goes: [], faults: [], sound: false },
    { reading: 12.6, low: 12.3, high: 13, share: 0.6, means: [], goes: [], faults: [], sound: true },
  ],
};
const ohms: RankedTest = {
  ...volts,
  test: { kind: 'ohms', from: 'A', to: 'GND', setup: {} },
  outcomes: [
    { reading: 31.5, low: 29, high: 34, share: 0.6, means: [], goes: [], faults: [], sound: true },
    { reading: 'OL', low: 900, high: Infinity, share: 0.4, means: [], goes: [], faults: [], sound: false },
  ],
};

const gauge: RankedTest = {
  ...volts,
  test: { kind: 'pressure', at: 'Regulator outlet', setup: {} },
  outcomes: [
    { reading: 210, low: 190, high: 414, share: 0.4, means: [], goes: [], faults: [], sound: false },
    { reading: 600, low: 570, high: 640, share: 0.6, means: [], goes: [], faults: [], sound: true },
  ],
};

describe('a gauge', () => {
  it.each([
    ['6.1', 610],
    ['6,1 bar', 610],
    ['610 kPa', 610],
    ['88 psi', 88 * 6.894757],
  ])('is typed as it reads: %s', (text, kPa) => {
    const typed = checkTyped(text, gauge, 24, 'bar');
    expect(typed).toMatchObject({ state: 'ready', outcome: 1 });
    if (typed.state === 'ready') expect(typed.value).toBeCloseTo(kPa, 6);
  });

  it.each([
    ['kPa', '610', 610],
    ['psi', '88', 88 * 6.894757],
    ['psi', '6.1 bar', 610],
  ] as const)('marked in %s: a bare figure is in that, a unit counts: %s', (unit, text, kPa) => {
    const typed = checkTyped(text, gauge, 24, unit);
    expect(typed).toMatchObject({ state: 'ready', outcome: 1 });
    if (typed.state === 'ready') expect(typed.value).toBeCloseTo(kPa, 6);
  });

  it('refuses volts, and takes a vacuum', () => {
    expect(checkTyped('6 V', gauge, 24, 'bar')).toMatchObject({
      state: 'refused',
      why: 'That is volts. This test wants a pressure.',
    });
    expect(checkTyped('-0.4', gauge, 24, 'bar')).toMatchObject({ state: 'ready', value: -40 });
  });
});

describe('a display that wanders', () => {
  it('is typed value by value, and counts by its middle', () => {
    expect(checkTyped('30~33~31', ohms, 24, 'bar')).toEqual({
      state: 'ready',
      value: 31,
      outcome: 0,
      wandered: [30, 33, 31],
    });
    expect(checkTyped('31~OL', ohms, 24, 'bar')).toMatchObject({ value: 31, wandered: [31, 'OL'] });
    expect(checkTyped('31~', ohms, 24, 'bar')).toMatchObject({ wandered: [31] });
    expect(checkTyped('~', ohms, 24, 'bar')).toEqual({ state: 'empty' });
    expect(checkTyped('31~12 V', ohms, 24, 'bar')).toMatchObject({ state: 'refused' });
  });
});

describe('checkTyped', () => {
  it('lights the band a value falls in; the lower limit is inside, the upper is not', () => {
    expect(checkTyped('12.7', volts, 12.6, 'bar')).toMatchObject({ state: 'ready', value: 12.7, outcome: 1 });
    expect(checkTyped('12,3', volts, 12.6, 'bar')).toMatchObject({ outcome: 1 });
    expect(checkTyped('13', volts, 12.6, 'bar')).toMatchObject({ outcome: null });
    expect(checkTyped('OL', ohms, 12.6, 'bar')).toMatchObject({ value: 'OL', outcome: 1 });
    expect(checkTyped('2.7M', ohms, 12.6, 'bar')).toMatchObject({ value: 2.7e6, outcome: 1 });
    expect(outcomeLetter(1)).toBe('B');
  });

  it.each([
    ['3.3 MΩ', volts, /That is ohms/],
    ['2.7M', volts, /That is ohms/],
    ['OL', volts, /wants volts/],
    ['127', volts, /127 V on a 13 V run\? Check the point/],
    ['12 V', ohms, /That is volts/],
    ['-4', ohms, /Below zero/],
    ['12..', volts, /as the meter shows it/],
  ])('refuses %s, saying what is wrong', (text, test, why) => {
    expect(checkTyped(text, test, 12.6, 'bar')).toMatchObject({
      state: 'refused',
      why: expect.stringMatching(why),
    });
  });

  it('takes a bound above the meter’s range for over-range', () => {
    expect(checkTyped('>2G', ohms, 12.6, 'bar')).toMatchObject({ value: 'OL' });
    expect(checkTyped('', ohms, 12.6, 'bar')).toEqual({ state: 'empty' });
  });
});
