import { codes, fill } from '../testing/fill';
import type { InterlocksAnswer } from './interlocks';

const CHAIN = ['S1', 'S2', 'S3', 'S4'].map((name) => ({ name, type: 'NO', pressed: true }));
const chain = (volts: Record<string, number>, switches: object[] = CHAIN, more: object = {}) =>
  fill<InterlocksAnswer>('interlocks', {
    switches,
    supplyVolts: 12.6,
    volts: Object.entries(volts).map(([after, value]) => ({ after, value })),
    ...more,
  });

describe('an interlock chain', () => {
  it('the first point without volts follows the first open contact', () => {
    const answer = chain({ supply: 12.6, S1: 12.6, S2: 12.5, S3: 0, S4: 0 });
    expect(answer).toMatchObject({ firstLoss: { name: 'S3' }, suspect: ['S3'], next: null });
    expect(answer.closed).toEqual({ S1: true, S2: true, S3: false, S4: true });
    expect(answer.firstLoss!.volts).toBeCloseTo(12.5, 6);
  });
  it('one that is rightly open is no suspect', () => {
    const free = CHAIN.map((one) => (one.name === 'S3' ? { ...one, pressed: false } : one));
    const answer = chain({ S1: 12.6, S2: 12.6, S3: 0 }, free);
    expect(answer).toMatchObject({ firstLoss: { name: 'S3' }, suspect: [] });
    expect(codes(answer)).toContain('rightlyOpen');
  });
  it('a guard that should be open and passes volts is bridged', () => {
    const free = CHAIN.map((one) => (one.name === 'S2' ? { ...one, pressed: false } : one));
    const answer = chain({ S1: 12.6, S2: 12.6, S3: 12.6, S4: 12.6 }, free);
    expect(answer).toMatchObject({ firstLoss: null, suspect: ['S2'], closed: { S2: true } });
    expect(codes(answer)).toContain('bridged');
  });
  it('a contact that loses part of it is resistive (L01)', () => {
    const answer = chain({ S1: 12.6, S2: 8.4, S3: 8.4, S4: 8.4 });
    expect(answer).toMatchObject({ firstLoss: { name: 'S2' }, suspect: ['S2'], closed: { S2: true } });
    expect(answer.firstLoss!.volts).toBeCloseTo(4.2, 6);
    expect(codes(answer)).toContain('resistive');
  });
  it('asks for the middle of what is left, and the rest stays open', () => {
    expect(chain({ supply: 12.6 })).toMatchObject({ firstLoss: null, suspect: [], next: { after: 'S2' } });
    const split = chain({ supply: 12.6, S4: 0 });
    expect(split).toMatchObject({
      firstLoss: null,
      suspect: ['S1', 'S2', 'S3', 'S4'],
      next: { after: 'S2' },
    });
    expect(chain({ S2: 12.6, S4: 0 })).toMatchObject({ suspect: ['S3', 'S4'], next: { after: 'S3' } });
    expect(chain({ S1: 12.6, S2: 12.6, S3: 12.6, S4: 12.6 }).next).toBeNull();
  });
  it('without volts the switches say what they should be, without a supply nothing is lost', () => {
    const free = [
      { name: 'A', type: 'NC', pressed: false },
      { name: 'B', type: 'NO', pressed: false },
      { name: 'C', type: 'NO' },
    ];
    expect(chain({}, free)).toMatchObject({ closed: { A: true, B: false, C: null }, firstLoss: null });
    const dead = chain({ supply: 0.1, S1: 0, S4: 0 });
    expect(dead).toMatchObject({ firstLoss: null, suspect: [], next: null });
    expect(codes(dead)).toContain('noSupply');
    expect(chain({ S1: 12.6 }, CHAIN, { supplyVolts: undefined }).next).toEqual({ after: 'supply' });
    expect(() => chain({ S9: 3 })).toThrow(/volts\[0\]\.after: "S9" is not on this sheet/);
  });
});
