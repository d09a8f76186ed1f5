import oracles from '../oracles.json';
import { codes, fill } from '../testing/fill';
import type { CoilAnswer } from './coil';

const coil = (fields: object) => fill<CoilAnswer>('coil', fields);
const MAKER = { maker: { ohms: 31.5, tolerance: 0.08 }, leadOhms: 0.2, temperatureC: 20 };

describe('coil', () => {
  it('is held at 20 °C, and the ratio of its ohms is the share of its turns (E03, E22)', () => {
    const answer = coil({
      ohms: [20.4],
      leadOhms: 0,
      temperatureC: 35,
      maker: { ohms: 24, tolerance: 0.05 },
      supplyVolts: 24,
    });
    expect(answer.ohms20).toBeCloseTo(oracles.E03.out.R20, 6);
    expect(answer.turnsLost).toBeCloseTo(oracles.E22.out.lost_pct / 100, 4);
    expect(answer.verdict).toBe('low');
    expect(answer.ampsCold! / 1 - 1).toBeCloseTo(oracles.E22.out.I_up_pct / 100, 4);
  });
  it('is judged by the best that is known, in order, and says which', () => {
    const read = { ohms: [31.9], leadOhms: 0.2, temperatureC: 20 };
    const all = { own: [60], fleet: [90, 90, 90], twins: [31.2], maker: { ohms: 31.5, tolerance: 0.08 } };
    expect(coil({ ...read, ...all })).toMatchObject({ heldAgainst: 'maker', verdict: 'good' });
    expect(coil({ ...read, ...all, maker: null })).toMatchObject({ heldAgainst: 'twin', verdict: 'good' });
    expect(coil({ ...read, ...all, maker: null, twins: [] })).toMatchObject({
      heldAgainst: 'own',
      verdict: 'low',
    });
    expect(coil({ ...read, fleet: all.fleet })).toMatchObject({ heldAgainst: 'fleet', verdict: 'low' });
    expect(coil(read)).toMatchObject({ heldAgainst: 'range', verdict: 'unknown', next: { ask: 'maker' } });
  });
  it('says nothing that unknown leads or an unknown temperature could turn round, and asks for them', () => {
    const maker = { ohms: 1.2, tolerance: 0.08 };
    expect(coil({ ohms: [1.4], maker, temperatureC: 20 })).toMatchObject({
      verdict: 'unknown',
      next: { ask: 'leadOhms' },
    });
    expect(coil({ ohms: [1.42], maker, temperatureC: 20, leadOhms: 0.21 }).verdict).toBe('good');
    const warm = coil({ ohms: [34.6], maker: MAKER.maker, leadOhms: 0.2 });
    expect(warm).toMatchObject({ verdict: 'unknown', next: { ask: 'temperatureC' } });
    expect(codes(coil({ ohms: [31.9], maker: MAKER.maker }))).toEqual(
      expect.arrayContaining(['leadsNotKnown', 'temperatureNotKnown']),
    );
    expect(coil({ ohms: [14], maker: MAKER.maker }).verdict).toBe('low');
  });
  it('a meter coarser than the tolerance neither passes nor fails it (E06)', () => {
    const answer = coil({
      ohms: [1.7],
      leadOhms: 0.3,
      temperatureC: 20,
      maker: { ohms: 1.4, tolerance: 0.03 },
    });
    expect(answer.verdict).toBe('unknown');
    expect(codes(answer)).toContain('tooNearToCall');
  });
  it('open, come and go, settling', () => {
    expect(coil({ ...MAKER, ohms: ['OL', 'OL'] })).toMatchObject({
      verdict: 'open',
      ohms20: null,
      ampsCold: null,
    });
    expect(coil({ ...MAKER, ohms: [31.9, 'OL', 32] }).verdict).toBe('wandering');
    expect(coil({ ...MAKER, ohms: [31.9, 40.2, 28.1] }).verdict).toBe('wandering');
    const settling = coil({ ...MAKER, ohms: [44, 36, 32.4, 32.1, 32.0, 32.0] });
    expect(settling).toMatchObject({ verdict: 'good' });
    expect(codes(settling)).toContain('settled');
    expect(coil({})).toMatchObject({ verdict: 'unknown', heldAgainst: null, next: { ask: 'ohms' } });
  });
  it('twins that disagree say nothing of what is usual', () => {
    const answer = coil({ ohms: [24], leadOhms: 0, temperatureC: 20, twins: [31, 15] });
    expect(answer).toMatchObject({ verdict: 'unknown', heldAgainst: 'range' });
    expect(codes(answer)).toContain('twinsDisagree');
    expect(coil({ ohms: [24], leadOhms: 0, temperatureC: 20, twins: [31, 31.4, 15] }).verdict).toBe('low');
  });
  it('on alternating volts no current follows from ohms; label figures give it (E12)', () => {
    const ac = {
      ohms: [60],
      leadOhms: 0,
      temperatureC: 20,
      supplyVolts: 120,
      hz: 60,
      maker: { ohms: 60, tolerance: 0.1 },
    };
    const bare = coil(ac);
    expect([bare.ampsCold, bare.ampsHot]).toEqual([null, null]);
    expect(codes(bare)).toContain('inductanceNotKnown');
    expect(bare.next).toEqual({ ask: 'va' });
    expect(coil({ ...ac, henries: oracles.E12.out.L_sealed }).ampsCold).toBeCloseTo(
      oracles.E12.in.Isealed,
      5,
    );
    expect(coil({ ...ac, va: 13.2 }).ampsCold).toBeCloseTo(0.11, 5);
    const jammed = coil({ ...ac, sealedAmps: 0.11, inrushAmps: 0.75, measuredAmps: 0.7 });
    expect(codes(jammed)).toContain('jammedArmature');
    expect(
      codes(coil({ ...ac, ohms: [36], sealedAmps: 0.11, inrushAmps: 0.75, measuredAmps: 0.7 })),
    ).toContain('shortedTurns');
  });
  it('holds the current against driver and fuse, or says that it cannot', () => {
    const answer = coil({ ...MAKER, ohms: [15.4], supplyVolts: 25.2, driverLimitAmps: 1.5, fuseAmps: 7.5 });
    expect(answer).toMatchObject({ overLimit: true, overFuse: false });
    expect(coil({ ...MAKER, ohms: [15.4], driverLimitAmps: 1.5 })).toMatchObject({
      ampsCold: null,
      overLimit: null,
    });
  });
});
