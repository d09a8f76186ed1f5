import { codes, fill } from '../testing/fill';
import type { ConnectorAnswer } from './connector';

const check = (fields: object) => fill<ConnectorAnswer>('connector', { pins: ['1', '2', 'PE'], ...fields });
const THROUGH = ['1', '2', 'PE'].map((pin) => ({ pin, ohms: 0.3 }));
const APART = [
  { from: '1', to: '2', ohms: 'OL' },
  { from: '1', to: 'PE', ohms: 'OL' },
  { from: '2', to: 'PE', ohms: 'OL' },
];

describe('a plug with its lead', () => {
  it('is good when every core goes through, no two are one, and its diode conducts one way', () => {
    expect(check({ through: THROUGH, between: APART, leadOhms: 0.2 })).toMatchObject({
      verdict: 'good',
      next: null,
    });
    const diode = { anode: '2', cathode: '1', forward: 0.58, reverse: 'OL' };
    expect(check({ through: THROUGH, between: APART, leadOhms: 0.2, ...diode })).toMatchObject({
      verdict: 'good',
      diode: 'good',
    });
  });

  it('asks for core, pair and diode in that order, and stops at the first thing bad', () => {
    expect(check({}).next).toEqual({ ask: 'through.1' });
    expect(check({ through: THROUGH, leadOhms: 0.2 }).next).toEqual({ from: '1', to: '2' });
    expect(check({ through: THROUGH, between: APART, leadOhms: 0.2, anode: '2', cathode: '1' }).next).toEqual(
      {
        ask: 'forward',
      },
    );
    expect(check({ through: [{ pin: '2', ohms: 'OL' }] })).toMatchObject({ verdict: 'bad', next: null });
    expect(check({ between: [{ from: '1', to: 'PE', ohms: 0.4 }] })).toMatchObject({
      verdict: 'bad',
      shorted: [['1', 'PE']],
    });
    const turned = { anode: '2', cathode: '1', forward: 'OL', reverse: 0.6 };
    expect(check(turned)).toMatchObject({ verdict: 'bad', diode: 'reversed' });
    expect(check({ ...turned, forward: 0.01, reverse: 0.01 }).diode).toBe('shorted');
  });

  it('does not blame a core for leads that nobody held together', () => {
    const warm = [{ pin: '1', ohms: 0.8 }, ...THROUGH.slice(1)];
    const answer = check({ through: warm, between: APART });
    expect(answer).toMatchObject({ verdict: null, next: { ask: 'leadOhms' } });
    expect(codes(answer)).toContain('leadsNotKnown');
    expect(check({ through: warm, between: APART, leadOhms: 0.1 }).verdict).toBe('bad');
    expect(check({ through: warm, between: APART, leadOhms: 0.4 }).verdict).toBe('good');
    expect(check({ through: [{ pin: '1', ohms: 1.4 }] }).pins[0]!.verdict).toBe('high');
  });

  it('a few kilohms across the diode are its own, elsewhere they are no short either', () => {
    const across = [{ from: '1', to: '2', ohms: 4e3 }];
    expect(codes(check({ between: across, anode: '2', cathode: '1' }))).toContain('throughDiode');
    expect(check({ between: across }).shorted).toEqual([]);
    expect(() => check({ between: [{ from: '1', to: '7', ohms: 1 }] })).toThrow(/between\[0\].to/);
    expect(() => check({ through: [{ pin: '9', ohms: 1 }] })).toThrow(/through\[0\].pin/);
  });
});
