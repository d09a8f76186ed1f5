import { tellSeal } from './seal';

describe('bubbles at both ends of a piston', () => {
  it('say which lip or which end of the bore; one end alone says nothing', () => {
    expect(tellSeal(false, false)).toBe('tight');
    expect(tellSeal(true, false)).toBe('rodLipOrCapBore');
    expect(tellSeal(false, true)).toBe('capLipOrRodBore');
    expect(tellSeal(true, true)).toBe('failed');
    expect([tellSeal(null, true), tellSeal(false, null)]).toEqual([null, null]);
  });
});
