import { areLineVolts } from './lineVolts';

describe('line volts', () => {
  it.each([
    [49.9, false],
    [-12.6, false],
    [50, true],
    [-400, true],
    [NaN, true],
    [Infinity, true],
  ])('%p V: %p; what is no number counts as line', (volts, line) => {
    expect(areLineVolts(volts)).toBe(line);
  });
});
