import type { WindingPairAnswer } from '@/core/sheets/onCircuit/windingsSheet';
import { windingsFound } from './windings';

const pair = (more: Partial<WindingPairAnswer>): WindingPairAnswer => ({
  common: 'C',
  pullIn: 'P',
  holdIn: 'H',
  pullInOhms: 0.36,
  holdInOhms: 14.2,
  verdict: 'good',
  findings: [],
  next: null,
  pair: { pullIn: 'Y5P', holdIn: 'Y5H' },
  drawn: { pullIn: 'P', holdIn: 'H', common: 'C' },
  off: [],
  ...more,
});
const said = (more: Partial<WindingPairAnswer>) => windingsFound([pair(more)]).join(' ');

describe('what is said of two windings', () => {
  it('is which wire is which, and how that stands against the drawing', () => {
    expect(said({})).toBe('P is the pull-in, 0.36 Ω; H the hold-in, 14.2 Ω; C the common. As drawn.');
    expect(said({ off: ['Y5H'] })).toMatch(/As drawn, but Y5H not by its ohms\.$/);
    expect(said({ common: 'H', holdIn: 'C' })).toMatch(
      /its wires are exchanged, or it is another solenoid\.$/,
    );
  });
  it('is the broken one by its own name, also where it is the common', () => {
    const open = (wire: string) => said({ verdict: 'open', findings: [{ code: 'nothingAt', wire }] });
    expect(open('P')).toBe('Nothing leads from P: Y5P is open.');
    expect(open('H')).toBe('Nothing leads from H: Y5H is open.');
    expect(open('C')).toBe('Nothing leads from C, the common: it is broken inside.');
  });
  it('is that nothing is known, or a short, and nothing more', () => {
    expect(said({ verdict: 'unknown' })).toBe('Y5P with Y5H: not known yet which wire is which.');
    expect(said({ verdict: 'short' })).toMatch(/nothing but wire between two of them\.$/);
  });
});
