import oracles from '../oracles.json';
import { codes, fill } from '../testing/fill';
import type { ContactsAnswer } from './contacts';

const sheet = (contactors: object[], more: object = {}) =>
  fill<ContactsAnswer>('contacts', { leadOhms: 0.2, contactors, ...more });
const one = (fields: object, more: object = {}) => {
  const answer = sheet([{ name: 'K', ...fields }], more);
  return { ...answer, verdict: answer.verdicts['K'] };
};

describe('a bank of contactors', () => {
  it('an ohmmeter’s pass is none: it wants a load, and kilohms are no contact', () => {
    expect(one({ clicks: true, coilOhms: 5.2, closedOhms: 0.3 })).toMatchObject({
      verdict: 'needsLoad',
      next: { ask: 'K.dropVolts' },
    });
    expect(one({ clicks: true, closedOhms: 4200 }).verdict).toBe('bad');
    expect(one({ clicks: true, closedOhms: 'OL' }).verdict).toBe('open');
    expect(one({ clicks: true, openOhms: 0.2 }).verdict).toBe('welded');
  });
  it('coil, mechanics, and a click that its coil cannot have made', () => {
    expect(one({ clicks: false, coilOhms: 'OL' }).verdict).toBe('coil');
    expect(one({ clicks: false, coilOhms: 5.2 }).verdict).toBe('mechanical');
    expect(one({ clicks: false })).toMatchObject({ verdict: null, next: { ask: 'K.coilOhms' } });
    const odd = one({ clicks: true, coilOhms: 'OL' });
    expect(odd.verdict).toBeNull();
    expect(codes(odd)).toContain('clickAgainstCoil');
    expect(one({})).toMatchObject({ verdict: null });
  });
  it('the drop counts at its rated amps, the heat at those that flowed (E07)', () => {
    const drop = (dropVolts: number, atAmps?: number, ratedAmps?: number, more: object = {}) =>
      one({ clicks: true, dropVolts, atAmps, ratedAmps }, { school: 'millivolts', ...more });
    expect(drop(0.15, 120, 120)).toMatchObject({ verdict: 'worn', watts: { K: oracles.E07.out.P } });
    expect(drop(0.06, 60, 60).verdict).toBe('good');
    expect(drop(0.06, 60, 240).verdict).toBe('bad');
    expect(drop(0.06)).toMatchObject({ verdict: null, next: { ask: 'K.atAmps' }, watts: { K: null } });
    expect(drop(0, 0, 200).verdict).toBeNull();
    expect(drop(0.01, 10, 200).verdict).toBe('needsLoad');
    expect(drop(0.06, 60)).toMatchObject({ verdict: null, next: { ask: 'K.ratedAmps' } });
    expect(drop(0.6, 60).verdict).toBe('bad');
    expect(drop(12.4, 0, 200, { lineVolts: 12.6 }).verdict).toBe('open');
  });
  it('each school has its own marks', () => {
    const drop = (school: string, dropVolts: number, more: object = {}) =>
      one({ dropVolts, atAmps: 20, ratedAmps: 20 }, { school, ...more }).verdict;
    expect([drop('volts', 0.15), drop('volts', 0.4), drop('volts', 0.7)]).toEqual(['good', 'worn', 'bad']);
    expect([drop('percent', 2, { lineVolts: 400 }), drop('percent', 2)]).toEqual(['good', null]);
    expect(drop('percent', 20, { lineVolts: 400 })).toBe('bad');
  });
  it('which two serve a direction follows from what works, or is not said', () => {
    const bank = ['K1', 'K2', 'K3', 'K4'].map((name) => ({
      name,
      clicks: true,
      closedOhms: ['K3', 'K4'].includes(name) ? 'OL' : 0.2,
    }));
    const directions = [
      { name: 'out', works: true },
      { name: 'in', works: false },
    ];
    expect(sheet(bank, { directions }).serves).toEqual({ out: ['K1', 'K2'], in: ['K3', 'K4'] });
    const oneBad = bank.map((own) => ({ ...own, closedOhms: own.name === 'K3' ? 3800 : 0.2 }));
    expect(sheet(oneBad, { directions }).serves).toEqual({ out: null, in: null });
    expect(
      sheet(oneBad, { directions: [{ name: 'out', pair: ['K4', 'K1'] }, { name: 'in' }] }).serves,
    ).toEqual({
      out: ['K1', 'K4'],
      in: ['K2', 'K3'],
    });
    expect(() => sheet(bank, { directions: [{ name: 'in', pair: ['K1', 'K9'] }] })).toThrow(
      /"K9" is not on this sheet/,
    );
  });
  it('make after make: judged by the worst, and told where they differ', () => {
    const load = { clicks: true, atAmps: 100, ratedAmps: 100 };
    const steady = one({ ...load, drops: [0.05, 0.06, 0.055, 0.05, 0.06] });
    expect(steady).toMatchObject({ verdict: 'good', makes: { K: { middle: 0.055, worst: 0.06, count: 5 } } });
    expect(codes(steady)).not.toContain('unsteady');
    const sticky = one({ ...load, drops: [0.05, 0.06, 0.31, 0.05, 0.05] });
    expect(sticky.verdict).toBe('bad');
    expect(codes(sticky)).toContain('unsteady');
    // Two makes say nothing of how it repeats.
    expect(codes(one({ ...load, drops: [0.05, 0.31] }))).not.toContain('unsteady');
    expect(one({ ...load, dropVolts: 0.05 }).makes).toEqual({});
  });
});
