import { insulationAt20, insulationFactor } from './insulationWarmth';

it('insulation halves with every ten kelvin, and is told as it would have read at 20 °C', () => {
  expect(insulationFactor(20, 40)).toBeCloseTo(0.25, 12);
  expect(insulationFactor(30, 20)).toBeCloseTo(2, 12);
  expect(insulationAt20(50e6, 40)).toBeCloseTo(200e6, 3);
  expect(insulationAt20(50e6, 20)).toBe(50e6);
});
