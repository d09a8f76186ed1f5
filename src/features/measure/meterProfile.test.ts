import { asShown, meterFrom, meterOf, USUAL_METER, withoutLeads } from './meterProfile';

describe('the meter in the hand', () => {
  it('is the usual one where nothing sound is kept', () => {
    for (const text of [null, 'no json', '{}', JSON.stringify({ ...USUAL_METER, counts: -3 })])
      expect(meterFrom(text)).toBe(USUAL_METER);
    const own = { ...USUAL_METER, leadOhms: 0.3, over: '1' };
    expect(meterFrom(JSON.stringify(own))).toEqual(own);
  });
  it('has its own sign for over-range, and leads of its own', () => {
    const own = { ...USUAL_METER, over: '1', leadOhms: 0.3 };
    expect(asShown('1', own)).toBe('OL');
    expect(asShown('1.2', own)).toBe('1.2');
    expect(asShown('1', USUAL_METER)).toBe('1');
    expect(withoutLeads('ohms', 0.5, own)).toBeCloseTo(0.2, 9);
    expect(withoutLeads('ohms', 0.1, own)).toBe(0);
    expect(withoutLeads('volts', 0.5, own)).toBe(0.5);
    expect(withoutLeads('ohms', 'OL', own)).toBe('OL');
  });
  it('goes with a reading only where it is not the usual one', () => {
    expect(meterOf('volts', USUAL_METER)).toBeUndefined();
    expect(meterOf('volts', { ...USUAL_METER, loadMegohms: 0.4 })).toMatchObject({ loadOhms: 400_000 });
    expect(meterOf('click', { ...USUAL_METER, counts: 5 })).toBeUndefined();
  });
});
