import { outputGround } from './outputGround';

describe('the ground of an output', () => {
  it.each([
    [13, 'live'],
    [11.2, 'live'],
    [10.9, 'part'],
    [1.7, 'part'],
    [1.5, ''],
    [0, ''],
  ])('%d of 13 V', (volts, is) => {
    const ground = { live: 'bg-verdi-t!', part: 'bg-copper-t!', '': '' }[is];
    expect(outputGround(volts, 13)).toBe(ground);
  });
});
