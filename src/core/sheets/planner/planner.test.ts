import { codes, fill } from '../testing/fill';
import type { PlannerAnswer } from './planner';

const planner = (fields: object) =>
  fill<PlannerAnswer>('planner', { sensor: 'outside', acts: 'below', ...fields });
const day = { lowC: -8, highC: 8, coldestHour: 5 };

describe('a control planned', () => {
  it('asks for what it hangs on, one after the other', () => {
    expect(fill<PlannerAnswer>('planner', {}).next).toEqual({ ask: 'sensor' });
    expect(planner({}).next).toEqual({ ask: 'cutIn' });
    expect(planner({ cutIn: -2 }).next).toEqual({ ask: 'cutOut' });
    expect(planner({ cutIn: -2, cutOut: 2 }).next).toEqual({ ask: 'lowC' });
  });

  it('a day: on at midnight and again before the next, off at noon; a week has one start more than days', () => {
    const one = planner({ cutIn: -2, cutOut: 2, ...day });
    expect(one).toMatchObject({ run: { starts: 2, shortCycles: 0, trouble: [] }, next: null });
    // A cosine of 8 °C, coldest at 5: under −2 °C until 10.03 and from 23.97 o’clock, over 2 °C from 11.97.
    const [{ on, off }] = one.run!.intervals as [{ on: number; off: number }];
    expect(on / 3600).toBeCloseTo(0, 1);
    expect(off / 3600).toBeCloseTo(11.97, 1);
    const week = planner({ cutIn: -2, cutOut: 2, ...day, days: 7 });
    expect(week.run!.starts).toBe(8);
    expect(week.run!.mostAnHour).toBe(1);
  });

  it('thresholds out of the pressures that are wanted, at its altitude (P14), and only for licensed people', () => {
    const found = planner({
      sensor: 'line',
      refrigerant: 'R-134a',
      cutInKpaGauge: 200,
      cutOutKpaGauge: 300,
      altitudeMetres: 0,
      ...day,
    });
    expect(found.cutIn).toBeCloseTo(0.82, 2);
    expect(codes(found)).toContain('licensed');
    const high = planner({ sensor: 'line', refrigerant: 'R-134a', cutInKpaGauge: 200, altitudeMetres: 1500 });
    expect(high.cutIn).toBeCloseTo(-0.757, 2);
    // A pressure sensor takes the pressures as they are.
    expect(planner({ sensor: 'pressure', cutInKpaGauge: 200, cutOutKpaGauge: 300 })).toMatchObject({
      cutIn: 200,
      cutOut: 300,
    });
  });

  it('of a blend that glides the side has to be said', () => {
    const blend = {
      sensor: 'line',
      refrigerant: 'R-448A',
      cutInKpaGauge: 500,
      cutOutKpaGauge: 700,
      altitudeMetres: 0,
    };
    const open = planner(blend);
    expect(open).toMatchObject({ cutIn: null, next: { ask: 'cutInKpaGauge' } });
    expect(codes(open)).toContain('sideNotKnown');
    const [bubble, dew] = ['bubble', 'dew'].map((side) => planner({ ...blend, side }).cutIn!);
    expect(dew! - bubble!).toBeGreaterThan(3);
  });

  it('a sensor in the line feels what the output does: a narrow band short-cycles where the one outside does not', () => {
    const both = { cutIn: 2, cutOut: 3, ...day, shift: 6, settleSeconds: 300 };
    const outside = planner({ ...both, sensor: 'outside' });
    expect(outside.run!.shortCycles).toBe(0);
    const line = planner({ ...both, sensor: 'line' });
    expect(line.schools.line!.starts!).toBeGreaterThan(10);
    expect(line.schools.outside!.starts).toBe(outside.run!.starts);
    expect(line.run!.trouble).toContain('deadBandTooNarrow');
    const wide = planner({ ...both, sensor: 'line', cutOut: 8 });
    expect(wide.run!.starts!).toBeLessThan(line.run!.starts! / 3);
    const held = planner({ ...both, sensor: 'line', minimumOnSeconds: 1200, minimumOffSeconds: 1200 });
    expect(held.run!.mostAnHour).toBeLessThanOrEqual(2);
  });

  it('a sensor in the line without the plant’s response is not told; swapped thresholds are', () => {
    const line = planner({ sensor: 'line', cutIn: -2, cutOut: 2, ...day });
    expect(line).toMatchObject({ run: null, next: { ask: 'shift' } });
    expect(codes(line)).toContain('responseNotKnown');
    const swapped = planner({ cutIn: 4, cutOut: 2, ...day });
    expect(codes(swapped)).toContain('swapped');
    expect(swapped.run).toBeNull();
  });

  it('a curve goes before the day, and never on is said', () => {
    const curve = [0, 6, 12].map((hour) => ({ seconds: hour * 3600, value: 5 + hour }));
    const never = planner({ cutIn: -2, cutOut: 2, ...day, curve });
    expect(codes(never)).toContain('neverOn');
    expect(never.seen).toHaveLength(3);
  });

  it('lists what is set at the controller', () => {
    expect(planner({ cutIn: -2, cutOut: 2, minimumOffSeconds: 300, ...day }).settings).toEqual([
      { name: 'sensor', value: 'outside' },
      { name: 'acts', value: 'below' },
      { name: 'cutIn', value: -2 },
      { name: 'cutOut', value: 2 },
      { name: 'minimumOff', value: 300 },
    ]);
  });
});
