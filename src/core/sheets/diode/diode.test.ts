import { codes, fill } from '../testing/fill';
import type { DiodeAnswer } from './diode';

const diode = (forward: unknown, reverse: unknown, more: object = {}) =>
  fill<DiodeAnswer>('diode', { forward, reverse, ...more });

describe('a diode', () => {
  it('conducts one way: silicon, Schottky', () => {
    expect(diode(0.58, 'OL')).toMatchObject({ verdict: 'good', kind: 'silicon', next: null });
    expect(diode(0.22, 'OL')).toMatchObject({ verdict: 'good', kind: 'schottky' });
    expect(diode(0.43, 'OL')).toMatchObject({ verdict: 'good', kind: null });
    expect(diode('OL', 0.58).verdict).toBe('reversed');
    expect(diode(0.001, 0.002).verdict).toBe('shorted');
    const open = diode('OL', 'OL');
    expect(open.verdict).toBe('open');
    expect(codes(open)).toContain('orBothWays');
  });
  it('a coil across it hides it (E21)', () => {
    expect(diode(0.018, 0.018, { coilOhms: 18 })).toMatchObject({ verdict: 'hidden', next: { ask: 'lift' } });
    expect(diode(0, 0, { coilOhms: 18 }).verdict).toBe('hidden');
    expect(diode(0.31, 0.312)).toMatchObject({ verdict: 'hidden' });
    // Where the coil is open it does not hide.
    const seen = diode(0.57, 'OL', { coilOhms: 18 });
    expect(seen.verdict).toBe('good');
    expect(codes(seen)).toContain('coilOpen');
    expect(diode(0.6, 1.02, { coilOhms: 1000 }).verdict).toBe('good');
  });
  it('over range is what the meter shows for it', () => {
    expect(diode(0.58, 1, { overShows: '1' }).verdict).toBe('good');
    expect(diode(0.58, 0, { overShows: '0' }).verdict).toBe('good');
    expect(diode(0, 0.58, { overShows: '0' }).verdict).toBe('reversed');
    expect(diode(1, 1, { overShows: '1' }).verdict).toBe('open');
    const inferred = diode(0.58, 0);
    expect(inferred.verdict).toBe('good');
    expect(codes(inferred)).toContain('overRangeInferred');
  });
  it('one direction is not enough, and two that fit no diode say nothing', () => {
    expect(diode(0.58, null)).toMatchObject({ verdict: null, next: { ask: 'reverse' } });
    expect(diode(null, null)).toMatchObject({ verdict: null, next: { ask: 'forward' } });
    expect(diode(0.5, 1.6).verdict).toBeNull();
  });
});
