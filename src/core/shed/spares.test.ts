import { CircuitModel } from '../circuit/model';
import { singleCoil } from '../templates/electrical';
import { contactorTwoSupplies, levelControl } from '../templates/line';
import { demoCircuit } from '../../testing/demoCircuits';
import { TEMPLATES } from '../templates/templates';
import { matchSpare, rankSpares, standIns, wantedSpare, type SpareRatings, type Wanted } from './spares';

const coil = wantedSpare(new CircuitModel(singleCoil({ volts: 25.4, ohms: 24 })), 'Y1')!;
const fitOf = (ratings: SpareRatings, wanted: Wanted = coil) =>
  matchSpare(wanted, { kind: wanted.kind, ratings });

describe('what a part asks of a spare', () => {
  it('is what it sees in its own circuit: a 24 V alternating coil behind a transformer is that', () => {
    const { ratings } = wantedSpare(new CircuitModel(levelControl()), 'Y1')!;
    expect(ratings).toMatchObject({ volts: 24, current: 'AC' });
  });
  it('of a coil its nominal volts, not what the rail reads', () => {
    expect(coil).toMatchObject({ kind: 'coil', ratings: { volts: 24, current: 'DC', ohms: 24 } });
  });
  it('of a contactor what its contacts carry, and how many of each', () => {
    const { ratings } = wantedSpare(new CircuitModel(contactorTwoSupplies()), 'K1')!;
    expect(ratings.contactAmps).toBeGreaterThan(10);
    expect(ratings.normallyOpen).toBeGreaterThan(0);
  });
  it('is told for every part of every template, and for none that is not there', () => {
    for (const { build } of TEMPLATES) {
      const model = new CircuitModel(build());
      for (const { part } of model.compiled.parts) expect(wantedSpare(model, part.ref)).not.toBeNull();
    }
    expect(wantedSpare(new CircuitModel(singleCoil()), 'Y99')).toBeNull();
  });
});

describe('a spare', () => {
  it('fits where all that is wanted is met', () => {
    expect(fitOf({ volts: 24, current: 'DC', ohms: 24.6 })).toEqual({ fit: 'fits', differs: [] });
  });
  it('of other volts, of the other current, or of other ohms does not, and says what differs', () => {
    expect(fitOf({ volts: 12, current: 'DC', ohms: 24 })).toEqual({
      fit: 'doesNot',
      differs: [{ rating: 'volts', wanted: 24, has: 12, isMore: false }],
    });
    expect(fitOf({ volts: 24, current: 'AC', ohms: 24 }).fit).toBe('doesNot');
    expect(fitOf({ volts: 24, current: 'DC', ohms: 40 }).fit).toBe('doesNot');
  });
  it('whose label says nothing is never taken for one that fits', () => {
    expect(fitOf({ volts: 24, current: 'DC' })).toMatchObject({
      fit: 'askLabel',
      differs: [{ rating: 'ohms', has: null }],
    });
    expect(fitOf({}).fit).toBe('askLabel');
    expect(
      matchSpare(
        { kind: 'pin', ratings: {}, ohmsTolerance: null, unsaid: false },
        { kind: 'pin', ratings: {} },
      ).fit,
    ).toBe('askLabel');
  });
  it('for what flows is for that medium, bears its pressure, and its ports are read off the label', () => {
    const wanted = wantedSpare(new CircuitModel(demoCircuit('groomer-tiller-lift')), 'Q1')!;
    expect(wanted.ratings).toMatchObject({ medium: 'oil', kPa: expect.any(Number) });
    const { ratings } = wanted;
    expect(fitOf(ratings, wanted)).toEqual({ fit: 'askLabel', differs: [] });
    expect(fitOf({ ...ratings, medium: 'air' }, wanted).fit).toBe('doesNot');
    expect(fitOf({ ...ratings, kPa: ratings.kPa! / 2 }, wanted).fit).toBe('doesNot');
    expect(fitOf({ ...ratings, kPa: ratings.kPa! * 2 }, wanted).differs).toEqual([
      expect.objectContaining({ rating: 'kPa', isMore: true }),
    ]);
    const cold = wantedSpare(new CircuitModel(demoCircuit('cellar-liquid-valve')), 'Q1')!;
    expect(cold.ratings.medium).toBe('refrigerant');
    expect(fitOf({ ...cold.ratings, medium: 'air' }, cold).fit).toBe('doesNot');
  });
  it('of another kind is none', () => {
    expect(matchSpare(coil, { kind: 'relay', ratings: { volts: 24, current: 'DC', ohms: 24 } }).fit).toBe(
      'doesNot',
    );
  });
  it('fuse is neither larger nor smaller', () => {
    const fuse = wantedSpare(new CircuitModel(singleCoil()), 'F1')!;
    const { amps } = fuse.ratings;
    expect(fitOf({ amps: amps! }, fuse).fit).toBe('fits');
    for (const other of [amps! * 1.5, amps! / 2]) expect(fitOf({ amps: other }, fuse).fit).toBe('doesNot');
  });
  it('contact may carry more than is needed, never less', () => {
    const wanted: Wanted = {
      kind: 'relay',
      ratings: { contactAmps: 12, normallyOpen: 1 },
      ohmsTolerance: null,
      unsaid: false,
    };
    expect(fitOf({ contactAmps: 30, normallyOpen: 2 }, wanted)).toMatchObject({
      fit: 'fits',
      differs: [
        { rating: 'contactAmps', isMore: true },
        { rating: 'normallyOpen', isMore: true },
      ],
    });
    expect(fitOf({ contactAmps: 10, normallyOpen: 1 }, wanted).fit).toBe('doesNot');
  });
  it('has others that stand in for it by what its label says; a switch’s setting stands on no card', () => {
    const shelf = (kind: 'coil' | 'pressureSwitch', ...labels: SpareRatings[]) =>
      labels.map((ratings, at) => ({ number: `OR-${at}`, kind, ratings, stock: at }));
    const coils = shelf(
      'coil',
      { volts: 24, current: 'DC', ohms: 24 },
      { volts: 24, current: 'DC', ohms: 25 },
      { volts: 12, current: 'DC', ohms: 24 },
      { volts: 24, current: 'DC' },
    );
    expect(standIns(coils[0]!, coils).map(({ number, fit }) => [number, fit])).toEqual([
      ['OR-1', 'fits'],
      ['OR-3', 'askLabel'],
    ]);
    const switches = shelf('pressureSwitch', { contactAmps: 5 }, { contactAmps: 10 });
    expect(standIns(switches[0]!, switches)[0]).toMatchObject({ number: 'OR-1', fit: 'askLabel' });
    expect(standIns({ ...coils[0]!, ratings: {} }, coils)).toEqual([]);
  });
  it('that fits and is there stands first', () => {
    const spare = (number: string, ratings: SpareRatings, stock: number) => ({
      number,
      kind: 'coil' as const,
      ratings,
      stock,
    });
    const good = { volts: 24, current: 'DC', ohms: 24 } as const;
    const ranked = rankSpares(coil, [
      spare('wrong', { ...good, volts: 12 }, 9),
      spare('label', { volts: 24, current: 'DC' }, 3),
      spare('gone', good, 0),
      spare('there', good, 2),
    ]);
    expect(ranked.map(({ number }) => number)).toEqual(['there', 'gone', 'label', 'wrong']);
  });
});
