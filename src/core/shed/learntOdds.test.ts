import { CircuitModel } from '../circuit/model';
import { listFaults } from '../diagnosis/faults';
import { faultKey } from '../diagnosis/experience';
import { NO_FAULT_PRIOR } from '../diagnosis/faultFrequency';
import { Diagnoser } from '../diagnosis/diagnose';
import { likeness } from '../circuit/likeness';
import { seededRandom } from '../random';
import { twoWayPair } from '../templates/electrical';
import { demoCircuit } from '@/testing/demoCircuits';
import {
  ageOf,
  exposureOf,
  learnOdds,
  oddsFor,
  placeOfCircuit,
  seasonOfDay,
  type Exposed,
  type OddsContext,
  type ProvedFault,
} from './learntOdds';

const pair = new CircuitModel(twoWayPair());
const float = new CircuitModel(demoCircuit('groomer-tiller-float'));
const models = [pair, float];
const types = models.map(exposureOf);
const names = models.map(({ compiled }) => likeness(compiled.circuit));
const context = (type: number, equipment: string | null = 'Groomer'): OddsContext => ({
  type: names[type]!,
  equipment,
  season: 'winter',
  place: '',
  weather: null,
  age: null,
});

/** A shed that breaks its own way: jobs drawn from the rules of thumb times its own factors. */
function shed(
  count: number,
  seed: number,
  truth: (one: Exposed, type: number, equipment: string) => number,
  equipmentOf: (k: number) => string = () => 'Groomer',
): ProvedFault[] {
  const random = seededRandom(seed);
  return Array.from({ length: count }, (_, k) => {
    const type = k % types.length;
    const equipment = equipmentOf(k);
    const exposed = types[type]!;
    const weights = exposed.map((one) => one.prior * truth(one, type, equipment));
    let left = random.next() * weights.reduce((sum, weight) => sum + weight, 0);
    const at = weights.findIndex((weight) => (left -= weight) < 0);
    return { type, key: exposed[at]!.key, equipment, season: 'winter', place: '', weather: null, age: null };
  });
}

/** Mean distance of the shares that a shed believes in from the true ones, in shares of a whole (total variation). */
function distance(odds: Record<string, number>, type: number, truth: (one: Exposed) => number): number {
  const exposed = types[type]!;
  const shares = (of: (one: Exposed) => number) => {
    const weights = exposed.map((one) => one.prior * of(one));
    const total = weights.reduce((sum, weight) => sum + weight, 0);
    return weights.map((weight) => weight / total);
  };
  const [believed, true_] = [shares((one) => odds[one.key] ?? 1), shares(truth)];
  return 0.5 * believed.reduce((sum, share, k) => sum + Math.abs(share - true_[k]!), 0);
}

const pinsBreak = (one: Exposed) => (one.of === 'pin|highResistance' ? 8 : one.of === 'coil|open' ? 0.3 : 1);

describe('odds that a shed learns', () => {
  it('come nearer to the true ones the more jobs there are', () => {
    const off = [0, 40, 300].map((count) =>
      distance(
        oddsFor(types[0]!, learnOdds(types, names, shed(count, 5, pinsBreak)), context(0)),
        0,
        pinsBreak,
      ),
    );
    expect(off[1]).toBeLessThan(0.75 * off[0]!);
    expect(off[2]).toBeLessThan(0.45 * off[0]!);
  });

  it('of one part of one type of function are seen where its kind says nothing of it', () => {
    const bad = types[0]!.find(({ of }) => of === 'pin|open')!.key;
    const truth = (one: Exposed, type: number) => (type === 0 && one.key === bad ? 40 : 1);
    const learnt = learnOdds(types, names, shed(60, 9, truth));
    const odds = oddsFor(types[0]!, learnt, context(0));
    const others = types[0]!.filter(({ of, key }) => of === 'pin|open' && key !== bad);
    expect(odds[bad]).toBeGreaterThan(6);
    for (const { key } of others) expect(odds[key] ?? 1).toBeLessThan(odds[bad]! / 3);
  });

  it('hardly move where the shed breaks as the rules of thumb have it, and not at all with no job', () => {
    expect(oddsFor(types[0]!, learnOdds(types, names, []), context(0))).toEqual({});
    const odds = oddsFor(
      types[0]!,
      learnOdds(
        types,
        names,
        shed(300, 3, () => 1),
      ),
      context(0),
    );
    expect(distance(odds, 0, () => 1)).toBeLessThan(0.15);
  });

  it('what breaks in a weather counts in that weather, and where nobody said which for nothing', () => {
    const truth = (weather: string) => (one: Exposed) => (weather === 'thaw' ? pinsBreak(one) : 1);
    const jobs = (['thaw', 'frost'] as const).flatMap((weather, at) =>
      shed(150, 11 + at, truth(weather)).map((job) => ({ ...job, weather })),
    );
    const learnt = learnOdds(types, names, jobs);
    const pin = types[0]!.find((one) => pinsBreak(one) > 1)!;
    const at = (weather: OddsContext['weather']) =>
      oddsFor(types[0]!, learnt, { ...context(0), weather })[pin.key] ?? 1;
    expect(at('thaw')).toBeGreaterThan(1.15 * at(null));
    expect(at('frost')).toBeLessThan(at(null));
    expect(Object.keys(learnt.factors.weather).every((key) => /^(thaw|frost)\|/.test(key))).toBe(true);
  });

  it('a strange type of machine does not mislead the others', () => {
    const strange = (one: Exposed, _type: number, equipment: string) =>
      equipment === 'Winch' ? (one.of === 'coil|shortedTurns' ? 60 : 1) : pinsBreak(one);
    const equipmentOf = (k: number) => (k % 4 < 2 ? 'Groomer' : 'Winch');
    const learnt = learnOdds(types, names, shed(400, 21, strange, equipmentOf));
    const groomer = oddsFor(types[0]!, learnt, context(0, 'Groomer'));
    const winch = oddsFor(types[0]!, learnt, context(0, 'Winch'));
    expect(distance(groomer, 0, pinsBreak)).toBeLessThan(0.6 * distance({}, 0, pinsBreak));
    const isWinch = (one: Exposed) => strange(one, 0, 'Winch');
    expect(distance(winch, 0, isWinch)).toBeLessThan(0.5 * distance({}, 0, isWinch));
  });

  it('of machines that have run long are seen on those alone, and a machine nobody looked at is neither', () => {
    const wornCoils = (one: Exposed) => (one.of === 'coil|open' ? 12 : 1);
    const young = shed(200, 31, () => 1).map((job): ProvedFault => ({ ...job, age: ageOf(300) }));
    const old = shed(200, 32, wornCoils).map((job): ProvedFault => ({ ...job, age: ageOf(12_000) }));
    const learnt = learnOdds(types, names, [...young, ...old]);
    const coil = types[0]!.find(({ of }) => of === 'coil|open')!.key;
    const odds = (hours: number | null) =>
      oddsFor(types[0]!, learnt, { ...context(0), age: ageOf(hours) })[coil] ?? 1;
    expect(odds(9000) / odds(500)).toBeGreaterThan(2.5);
    expect(odds(null)).toBeGreaterThan(odds(500));
    expect(odds(null)).toBeLessThan(odds(9000));
    expect(odds(3000)).toBeCloseTo(odds(null), 9);
  });

  it('the lead’s own factor stands in place of what was learnt', () => {
    const learnt = learnOdds(types, names, shed(300, 5, pinsBreak));
    const odds = oddsFor(types[0]!, learnt, context(0), { 'coil|open': 2.5 });
    expect(odds[types[0]!.find(({ of }) => of === 'coil|open')!.key]).toBe(2.5);
  });

  it('leave the shares adding to one, and move the doubt before any reading', () => {
    const learnt = learnOdds(types, names, shed(300, 5, pinsBreak));
    const odds = oddsFor(types[0]!, learnt, context(0));
    const plain = new Diagnoser(twoWayPair());
    const wise = new Diagnoser(twoWayPair(), { odds, windings: {} });
    const total = wise.faults.reduce((sum, { prior }) => sum + prior, 0);
    expect(total).toBeCloseTo(1 - NO_FAULT_PRIOR, 9);
    const pin = (of: Diagnoser) => {
      const own = of.faults.filter(({ fault, part }) => fault === 'highResistance' && isPin(of, part));
      return own.reduce((sum, { prior }) => sum + prior, 0);
    };
    expect(pin(wise)).toBeGreaterThan(2 * pin(plain));
  });

  it('a fault that the drawing no longer has is passed over', () => {
    const jobs: ProvedFault[] = [
      { type: 0, key: 'Y99|open', equipment: null, season: 'winter', place: '', weather: null, age: null },
    ];
    expect(oddsFor(types[0]!, learnOdds(types, names, jobs), context(0, null))).toEqual({});
  });
});

function isPin({ model }: Diagnoser, part: number): boolean {
  return model.compiled.parts[part]!.part.kind === 'pin';
}

describe('what jobs are counted under', () => {
  it('every fault of a function once, with its whole share', () => {
    const listed = listFaults(pair).reduce((sum, { prior }) => sum + prior, 0);
    expect(types[0]!.reduce((sum, { prior }) => sum + prior, 0)).toBeCloseTo(listed, 9);
    expect(new Set(types[0]!.map(({ key }) => key)).size).toBe(types[0]!.length);
    expect(listFaults(pair).map(faultKey)).toContain('Y1|open');
  });
  it('how far the machine has run, by its hour meter', () => {
    expect([null, 0, 999, 1000, 3999, 7999, 8000].map(ageOf)).toEqual([
      null,
      'new',
      'new',
      'run-in',
      'half-worn',
      'worn',
      'old',
    ]);
  });
  it('winter from November to April, and where the machine stands', () => {
    expect(['2026-10-31', '2026-11-01', '2027-04-30', '2027-05-01'].map(seasonOfDay)).toEqual([
      'summer',
      'winter',
      'winter',
      'summer',
    ]);
    const wet = new CircuitModel({
      ...twoWayPair(),
      environment: { wet: true, vibration: true, hot: false },
    });
    expect(placeOfCircuit(wet)).toBe('vibration wet');
  });
});
