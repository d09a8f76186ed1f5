import { codes, fill } from '../testing/fill';
import type { NeedsAnswer } from './needs';

const needs = (fields: object) => fill<NeedsAnswer>('needs', fields);
const air = { supplyKpa: 580, restKpa: 600, neededKpa: 250 };
const fed = { ratedVolts: 24, coilVolts: 23.4 };

describe('the three needs of a valve', () => {
  it('asks for what is free first: gauge, override, click', () => {
    expect(needs({}).next).toEqual({ ask: 'supplyKpa' });
    expect(needs(air).next).toEqual({ ask: 'override' });
    expect(needs({ ...air, override: 'moves' }).next).toEqual({ ask: 'clicks' });
  });

  it('back pressure without air is the want of air, not the valve’s fault', () => {
    const starved = needs({ supplyKpa: 150, neededKpa: 250, exhaust: 'pushes', override: 'still' });
    expect(starved).toMatchObject({ missing: ['air'], next: null });
    expect(codes(starved)).toContain('midwayForAir');
    // What pushes may pass the valve, or the piston behind it: its outlets are plugged before either is blamed.
    const pushes = { ...air, ...fed, clicks: true, exhaust: 'pushes', override: 'still' };
    expect(needs(pushes)).toMatchObject({ missing: [], next: { ask: 'exhaustAlone' } });
    const dirty = needs({ ...pushes, exhaustAlone: 'pushes' });
    expect(dirty.missing).toEqual(['valve']);
    expect(codes(dirty)).toContain('standsMidway');
    const piston = needs({ ...pushes, exhaustAlone: 'none' });
    expect(piston).toMatchObject({ missing: ['beyond'], has: ['electricity', 'coil', 'air', 'valve'] });
    // Without the gauge nobody knows which of the two it is.
    expect(needs({ exhaust: 'pushes' })).toMatchObject({ missing: [], next: { ask: 'supplyKpa' } });
  });

  it('the command is cut in halves from the coil back', () => {
    const dead = {
      ...air,
      override: 'moves',
      clicks: false,
      commanded: 'still',
      ratedVolts: 24,
      coilVolts: 0.1,
    };
    const first = needs(dead);
    expect(first).toMatchObject({ missing: ['electricity'], firstLoss: null, next: { ask: 'cardVolts' } });
    expect(needs({ ...dead, cardVolts: 24.1 }).next).toEqual({ ask: 'cableVolts' });
    expect(needs({ ...dead, cardVolts: 24.1, cableVolts: 0 })).toMatchObject({
      firstLoss: 'cable',
      next: null,
    });
    expect(needs({ ...dead, cardVolts: 24.1, cableVolts: 24 }).firstLoss).toBe('coil');
    expect(needs({ ...dead, cardVolts: 0.2 }).next).toEqual({ ask: 'bit' });
    expect(needs({ ...dead, cardVolts: 0.2, bit: true }).firstLoss).toBe('card');
    expect(needs({ ...dead, cardVolts: 0.2, bit: false }).firstLoss).toBe('bit');
  });

  it('fed and silent is the coil; fed, clicking and still, with a free spool, is its pilot air', () => {
    expect(needs({ ...air, ...fed, clicks: false, override: 'moves' }).missing).toEqual(['coil']);
    const pilot = needs({ ...air, ...fed, clicks: true, override: 'moves', commanded: 'still' });
    expect(pilot.missing).toEqual(['valve']);
    expect(codes(pilot)).toContain('overrideAlone');
  });

  it('pushed by hand and still: what comes out of its outlet tells the valve from what it moves', () => {
    const stuck = { ...air, ...fed, clicks: true, override: 'still', exhaust: 'none' };
    expect(needs(stuck).next).toEqual({ ask: 'outlet' });
    // Little comes out where little goes in: a gauge behind a choke shows all of it as long as nothing flows.
    expect(needs({ ...stuck, outlet: 'none' })).toMatchObject({ missing: [], next: { ask: 'inlet' } });
    expect(needs({ ...stuck, outlet: 'none', inlet: 'full' }).missing).toEqual(['valve']);
    expect(needs({ ...stuck, outlet: 'weak', inlet: 'weak' }).missing).toEqual(['air']);
    const beyond = needs({ ...stuck, outlet: 'full' });
    expect(beyond.missing).toEqual(['beyond']);
    expect(beyond.has).toContain('valve');
    // Nobody felt at the exhaust: a spool mid-way blows full into the open, too.
    expect(needs({ ...stuck, exhaust: undefined, outlet: 'full' })).toMatchObject({
      missing: [],
      next: { ask: 'exhaust' },
    });
  });

  it('of two coils both on at once nothing is the valve’s fault', () => {
    const both = {
      ...air,
      ...fed,
      clicks: true,
      override: 'moves',
      commanded: 'still',
      exhaust: 'none',
      twoCoils: true,
    };
    expect(needs(both)).toMatchObject({ missing: [], next: { ask: 'otherCoilVolts' } });
    expect(needs({ ...both, otherCoilVolts: 23.8 }).missing).toEqual(['electricity']);
    expect(codes(needs({ ...both, otherCoilVolts: 23.8 }))).toContain('bothCoils');
    expect(needs({ ...both, otherCoilVolts: 0.1 }).missing).toEqual(['valve']);
  });

  it('changed plugs: what works on the other’s plug lacks its own command', () => {
    expect(needs({ onNeighboursPlug: 'moves', commanded: 'still' })).toMatchObject({
      missing: ['electricity'],
      has: ['coil', 'air'],
    });
    expect(needs({ plugOnNeighbour: 'moves', clicks: false }).missing).toEqual(['coil']);
  });

  it('a supply that falls in flow, water, an unknown need and a click without volts are said', () => {
    expect(codes(needs({ supplyKpa: 420, restKpa: 600, neededKpa: 250 }))).toContain('fallsInFlow');
    expect(codes(needs({ supplyKpa: 590, restKpa: 600, neededKpa: 250 }))).not.toContain('fallsInFlow');
    expect(codes(needs({ wet: true }))).toContain('wetAir');
    const unknown = needs({ supplyKpa: 300 });
    expect(codes(unknown)).toContain('neededNotKnown');
    expect(unknown.missing).toEqual([]);
    const odd = needs({ clicks: true, ratedVolts: 24, coilVolts: 0 });
    expect(codes(odd)).toContain('clickWithoutVolts');
    expect(odd).toMatchObject({ missing: [], has: [] });
  });

  it('what works lacks nothing; what is half known is not said to be good', () => {
    expect(needs({ commanded: 'moves' })).toMatchObject({ missing: [], next: null });
    expect(needs({ ...air }).has).toEqual(['air']);
    expect(needs({ supplyKpa: 10 }).missing).toEqual(['air']);
  });
  it('its own outlet, on command and at rest, tells the spool from what it moves', () => {
    const pulls = { ...air, ...fed, clicks: true, inlet: 'full' };
    expect(needs({ ...pulls, outletCommanded: 'none' }).missing).toEqual(['valve']);
    // Little comes out where little goes in.
    expect(needs({ ...pulls, inlet: 'weak', outletCommanded: 'none' }).missing).toEqual(['air']);
    const through = { ...pulls, outletCommanded: 'full', commanded: 'still' };
    expect(needs(through).missing).toEqual([]);
    expect(needs({ ...through, outletAtRest: 'none' })).toMatchObject({
      missing: ['beyond'],
      has: ['electricity', 'coil', 'air', 'valve'],
    });
    // Blowing at rest, too, it stands mid-way, unless something feeds its coil.
    const blows = { ...through, outletAtRest: 'full' };
    expect(needs(blows).missing).toEqual([]);
    expect(needs({ ...blows, coilAtRestVolts: 23 }).missing).toEqual([]);
    const stuck = needs({ ...blows, coilAtRestVolts: 0.1 });
    expect(stuck.missing).toEqual(['valve']);
    expect(codes(stuck)).toContain('blowsAtRest');
    // Of two coils the other one is read first: with both fed a sound one stays where it is.
    expect(needs({ ...pulls, twoCoils: true, outletCommanded: 'none' }).missing).toEqual([]);
  });

  it('on oil a gauge behind it does what a hand does on air', () => {
    const oil = {
      medium: 'oil',
      supplyKpa: 16_000,
      neededKpa: 2500,
      ...fed,
      clicks: true,
      override: 'still',
      commanded: 'still',
    };
    expect(needs(oil)).toMatchObject({ missing: [], next: { ask: 'outletKpa' } });
    expect(needs({ ...oil, outletKpa: 30 }).missing).toEqual(['valve']);
    expect(needs({ ...oil, outletKpa: 15_500 }).missing).toEqual(['beyond']);
    expect(needs({ ...oil, outletKpa: 8000 }).missing).toEqual([]);
  });
});
