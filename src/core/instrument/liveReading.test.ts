import { PlaceWatch, readingOf } from './liveReading';
import type { MeterMode, TimedSample } from './meterMode';
import { METER_SILENT, type MeterReport } from './meterReport';
import { offeredBy } from './offered';

const DC: MeterMode = { measures: 'volts', coupling: 'dc' };
const OHMS: MeterMode = { measures: 'ohms' };
const sample = (value: number | 'OL', mode = DC): TimedSample => ({ mode, value, at: 0 });

/** Reports as they come: each value a report of its own, the last 24 kept. */
function reports(
  values: readonly (number | 'OL')[],
  more: Partial<MeterReport> = {},
  mode = DC,
): MeterReport[] {
  return values.map((_one, at) => ({
    ...METER_SILENT,
    name: 'Bench',
    turns: true,
    lost: null,
    samples: values.slice(Math.max(0, at - 23), at + 1).map((value) => sample(value, mode)),
    count: at + 1,
    ...more,
  }));
}
const through = (watch: PlaceWatch, all: readonly MeterReport[], wanted = DC) =>
  all.map((report) => readingOf(watch.take(report), wanted)).at(-1)!;

describe('leads that come to a new place', () => {
  it('offer nothing as long as the display shows what the old place read, however long that is', () => {
    const still = through(new PlaceWatch(sample(27.41)), reports(Array<number>(40).fill(27.42)));
    expect(still).toEqual({ is: 'notMoved', text: '27.42 V' });
    expect(offeredBy(still).text).toBe('');
  });
  it('count from where it changed, for good: the same figure again is then the new place’s', () => {
    const values = [27.41, 27.41, 0.3, ...Array<number>(40).fill(27.41)];
    const lifted = through(new PlaceWatch(sample(27.41)), reports(values));
    expect(lifted).toMatchObject({ is: 'steady', text: '27.41 V' });
    // Right behind the change nothing is at rest.
    expect(through(new PlaceWatch(sample(27.41)), reports(values.slice(0, 5))).is).toBe('moving');
  });
  it('count at once where nothing was read before, where the dial was turned, and where a wire moves them', () => {
    const steady = reports([12, 12, 12, 12]);
    expect(through(new PlaceWatch(null), steady).is).toBe('steady');
    expect(through(new PlaceWatch(sample(12, OHMS)), steady).is).toBe('steady');
    expect(through(new PlaceWatch(sample(12)), reports([12, 12, 12, 12], { simulated: true })).is).toBe(
      'steady',
    );
  });
});

describe('what a report comes to', () => {
  const at = (report: MeterReport, wanted = DC) => readingOf({ report, waits: false }, wanted);
  it('is silence, a wrong dial, a display on its way, one at rest, one that wanders', () => {
    expect(at(METER_SILENT)).toEqual({ is: 'lost', why: 'the meter is being called' });
    expect(at({ ...METER_SILENT, lost: null })).toEqual({ is: 'moving', text: '' });
    expect(at(reports([3])[0]!, OHMS)).toEqual({ is: 'wrongDial', stands: DC, wanted: OHMS, turns: true });
    expect(at(reports([3, 9])[1]!)).toEqual({ is: 'moving', text: '9 V' });
    const steady = at(reports([27.4, 27.41, 27.4, 27.41])[3]!);
    expect(offeredBy(steady)).toEqual({ text: '27.41 V', instrument: 'Bench' });
    const wanders = at(reports(Array.from({ length: 20 }, (_one, k) => (k % 2 ? 5 : 11))).at(-1)!);
    expect(offeredBy(wanders).text).toBe('5 V~11 V~11 V');
  });
  it('of a meter on a wire that does not say AC or DC is taken for either', () => {
    const bare = reports([5, 5, 5, 5], {}, { measures: 'volts' }).at(-1)!;
    expect(at(bare).is).toBe('steady');
    expect(at(bare, { measures: 'volts', coupling: 'ac' }).is).toBe('steady');
  });
});
