import { codes, fill } from '../testing/fill';
import type { WindingsAnswer } from './windings';

const WIRES = ['A', 'B', 'C'];
const windings = (ab: unknown, ac: unknown, bc: unknown, more: object = {}) =>
  fill<WindingsAnswer>('windings', {
    wires: WIRES,
    ohms: [
      ['A', 'B', ab],
      ['A', 'C', ac],
      ['C', 'B', bc],
    ].flatMap(([from, to, value]) => (value === null ? [] : [{ from, to, value }])),
    ...more,
  });

describe('three wires of two windings', () => {
  it('tells which is which by the one that is the sum', () => {
    expect(windings(14.7, 0.5, 14.4, { leadOhms: 0.2 })).toMatchObject({
      common: 'C',
      pullIn: 'A',
      holdIn: 'B',
      verdict: 'good',
      next: null,
    });
    expect(windings(14.7, 0.5, 14.4, { leadOhms: 0.2 }).pullInOhms).toBeCloseTo(0.3, 6);
    expect(codes(windings(14.7, 0.5, 14.4))).toContain('leadsNotKnown');
  });
  it('readings that do not add up say nothing', () => {
    expect(windings(20, 0.5, 14.4, { leadOhms: 0.2 })).toMatchObject({ verdict: 'unknown', common: null });
    expect(windings(14.4, 'OL', 0.5)).toMatchObject({ verdict: 'unknown', next: { from: 'A', to: 'C' } });
  });
  it('an open one, all open, a short, and two alike', () => {
    const open = windings('OL', 'OL', 14.4);
    expect(open).toMatchObject({ verdict: 'open', common: null, holdIn: null });
    expect(open.findings).toContainEqual({ code: 'nothingAt', wire: 'A' });
    expect(windings('OL', 'OL', 'OL').verdict).toBe('open');
    expect(windings(14.2, 0.2, 14.2, { leadOhms: 0.2 }).verdict).toBe('short');
    expect(windings(20, 10, 10.1, { leadOhms: 0 })).toMatchObject({
      verdict: 'unknown',
      pullIn: null,
      common: 'C',
    });
  });
  it('asks for the pair that nobody read, and for the leads where they decide', () => {
    expect(windings(14.7, null, 14.4)).toMatchObject({ verdict: 'unknown', next: { from: 'A', to: 'C' } });
    expect(windings('OL', 'OL', null)).toMatchObject({ verdict: 'open' });
    expect(windings(14.0, 0.3, 14.0)).toMatchObject({ verdict: 'unknown', next: { ask: 'leadOhms' } });
  });
  it('a wire that is none of the three is refused by name', () => {
    expect(() => fill('windings', { wires: WIRES, ohms: [{ from: 'A', to: 'D', value: 3 }] })).toThrow(
      /ohms\[0\]\.to: "D" is not on this sheet/,
    );
    expect(() => fill('windings', { wires: ['A', 'B'] })).toThrow(/wires/);
  });
});
