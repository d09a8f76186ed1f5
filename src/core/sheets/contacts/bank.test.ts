import { codes, fill } from '../testing/fill';
import type { ContactsAnswer } from './contacts';

const bank = (fields: object) =>
  fill<ContactsAnswer>('contacts', { leadOhms: 0.2, contactors: [{ name: 'K1' }], ...fields });

describe('poles of a contactor', () => {
  const pole = (fields: object, more: object = {}) => {
    const answer = bank({ poles: [{ contactor: 'K1', from: '1', to: '2', ...fields }], ...more });
    return { ...answer.poles[0]!, findings: codes(answer), next: answer.next };
  };

  it('switched or straight through, by their ohms at rest and held in', () => {
    expect(pole({ restOhms: 'OL', operatedOhms: 0.3 }).does).toBe('switched');
    expect(pole({ restOhms: 0.3, operatedOhms: 'OL' }).does).toBe('restsClosed');
    expect(pole({ restOhms: 'OL', operatedOhms: 'OL' }).does).toBe('neverMakes');
    // A link and a welded contact read alike: it says both.
    expect(pole({ restOhms: 0.3, operatedOhms: 0.3 })).toMatchObject({
      does: 'straight',
      findings: expect.arrayContaining(['straightOrWelded']),
    });
  });

  it('says nothing of one reading, nor of ohms between open and closed', () => {
    expect(pole({ restOhms: 'OL' }).does).toBeNull();
    expect(pole({ restOhms: 300, operatedOhms: 0.3 }).does).toBeNull();
  });

  it('fed at the end that stays live; of both live or both dead nothing is said', () => {
    expect(pole({ fromVolts: 24.1, toVolts: 0 }, { lineVolts: 24 }).line).toBe('1');
    expect(pole({ fromVolts: 0.4, toVolts: -24 }).line).toBe('2');
    expect(pole({ fromVolts: 24, toVolts: 24 }).line).toBeNull();
    expect(pole({ fromVolts: 0, toVolts: 0 }).line).toBeNull();
    expect(pole({ fromVolts: 12, toVolts: 0 }, { lineVolts: 24 }).line).toBeNull();
    expect(pole({ fromVolts: 24 }).line).toBeNull();
  });

  it('of a contactor that is not on the sheet is refused', () => {
    expect(() => bank({ poles: [{ contactor: 'K9', from: '1', to: '2' }] })).toThrow(/"K9" is not on/);
    expect(() => bank({ poles: [{ contactor: 'K1', from: '1', to: '1' }] })).toThrow(/to itself/);
  });
});

describe('a spare contactor by its label', () => {
  const needs = { amps: 200, dutyShare: 0.25, coilVolts: 24, coil: 'DC', poles: 1 };
  const spare = (fields: object) => bank({ needs, spares: [{ name: 'S', ...fields }] }).spares[0]!;

  it('does when it bears all that the place asks', () => {
    expect(spare({ amps: 250, dutyShare: 0.5, coilVolts: 24, coil: 'DC', poles: 2 })).toEqual({
      name: 'S',
      fits: true,
      short: [],
      open: [],
    });
  });

  it('does not for one thing that is short, and what its label leaves open stays open', () => {
    expect(spare({ amps: 150, coilVolts: 12 })).toMatchObject({
      fits: false,
      short: ['amps', 'coilVolts'],
      open: ['duty', 'poles', 'coil'],
    });
    expect(spare({ amps: 250, coilVolts: 24, coil: 'DC', poles: 1 })).toMatchObject({
      fits: null,
      open: ['duty'],
    });
    expect(spare({ amps: 250, coilVolts: 24, coil: 'AC', dutyShare: 1, poles: 1 }).short).toEqual(['coil']);
  });

  it('is not known to do where nobody said what the place needs', () => {
    expect(bank({ spares: [{ name: 'S' }] }).spares[0]).toMatchObject({ fits: null, open: [] });
  });
});

describe('how long a contactor is on', () => {
  it('is held against its label, and says nothing without its cycle (E15)', () => {
    expect(bank({ onSeconds: 120, cycleSeconds: 300, dutyShare: 0.25 })).toMatchObject({
      duty: { share: 0.4, mostOnSeconds: 75, over: true },
    });
    expect(codes(bank({ onSeconds: 120, cycleSeconds: 300, dutyShare: 0.25 }))).toContain('dutyOver');
    expect(codes(bank({ onSeconds: 120, dutyShare: 0.25 }))).toContain('onTimeWithoutCycle');
    expect(bank({ onSeconds: 120, cycleSeconds: 300 }).duty).toBeNull();
  });
});
