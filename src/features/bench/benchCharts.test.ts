import { computeSheet } from '@/core/sheets/sheets';
import { seenPoints } from '@/core/trace/seenPoints';
import { chartOf, type SheetChart } from './benchCharts';

/** What a sheet draws, its answer computed as the bench does. */
function drawn(name: Parameters<typeof chartOf>[0], fields: object): SheetChart | null {
  const document = { format: 'spiraxis-sheet', version: 1, sheet: name, ...fields };
  return chartOf(name, document, computeSheet(document as never));
}

const run = (from: string, ...points: [seconds: number, ohms: number | 'OL'][]) =>
  points.map(([seconds, ohms]) => ({ from, to: 'PE', ohms, seconds }));

describe('what a sheet draws', () => {
  const insulation = { conductors: ['1', '2', '3', '4'], frame: 'PE', circuitVolts: 24, testVolts: 250 };

  it('a run over its time, the worst first, with the last proved one and the mark it has to pass', () => {
    const chart = drawn('insulation', {
      ...insulation,
      readings: [
        ...run('1', [15, 4e8], [30, 6e8], [60, 9e8]),
        ...run('2', [60, 2e5], [15, 3e5], [30, 2.5e5]),
        { from: '3', to: 'PE', ohms: 'OL' },
      ],
      before: run('2', [30, 5e8], [60, 8e8]),
    })!;
    expect(chart.lines.map(({ name, past }) => [name, past ?? false])).toEqual([
      ['2 to PE', false],
      ['2 to PE, last proved', true],
      ['1 to PE', false],
    ]);
    expect(chart.lines[0]!.points).toEqual([
      [15, 3e5],
      [30, 2.5e5],
      [60, 2e5],
    ]);
    expect(chart.limit).toEqual({ value: 5e5, words: 'passes from 500 kΩ' });
    expect(chart.logarithmic).toBe(true);
  });

  it('a fuse as the bounds of its time, the coil’s current through them; without either nothing', () => {
    const coil = { ohms: [1.2], leadOhms: 0, temperatureC: 20, supplyVolts: 12 };
    const chart = drawn('coil', { ...coil, fuseAmps: 5 })!;
    const [latest, earliest, own] = chart.lines;
    expect(own!.points.map(([amps]) => amps)).toEqual([expect.closeTo(10, 6), expect.closeTo(10, 6)]);
    // At twice its rating: 0.15 s at the earliest, 5 s at the latest.
    expect(earliest!.points).toContainEqual([10, 0.15]);
    expect(latest!.points).toContainEqual([10, 5]);
    // Nothing guarantees that it opens under 135 %.
    expect(Math.min(...latest!.points.map(([amps]) => amps))).toBe(6.75);
    expect(drawn('coil', coil)).toBeNull();
    expect(drawn('coil', { ohms: [1.2], fuseAmps: 5 })).toBeNull();
  });

  it('single readings draw nothing; over range is drawn at what the tester ends at, a short where a logarithm has a place', () => {
    expect(drawn('insulation', { ...insulation, readings: [{ from: '1', to: 'PE', ohms: 1e6 }] })).toBeNull();
    const chart = drawn('insulation', { ...insulation, readings: run('1', [30, 0], [60, 'OL']) })!;
    expect(chart.lines[0]!.points).toEqual([
      [30, 1],
      [60, 2e9],
    ]);
  });

  it('of many runs no more than can be told apart', () => {
    const readings = ['1', '2', '3', '4'].flatMap((one) => run(one, [30, 1e9], [60, 1e9]));
    expect(drawn('insulation', { ...insulation, readings })!.lines).toHaveLength(3);
  });

  it('a trace with the level that it settled at', () => {
    const seconds = Array.from({ length: 200 }, (_one, k) => k * 0.001);
    const values = seconds.map((at) => 2 * (1 - Math.exp(-at / 0.01)));
    const chart = drawn('trace', { kind: 'inrush', quantity: 'amps', seconds, values })!;
    expect(chart.lines).toHaveLength(2);
    expect(chart.lines[1]!.name).toMatch(/^settled at 2(\.0+)? A$/);
    expect(drawn('trace', { kind: 'inrush' })).toBeNull();
  });

  it('a curve with its two levels and when it is on', () => {
    const curve = [0, 600, 1200, 1800].map((seconds, k) => ({ seconds, value: [10, 0, 10, 0][k]! }));
    const chart = drawn('cutIn', {
      sensor: 'line',
      cutIn: 2,
      cutOut: 8,
      acts: 'below',
      initially: 'off',
      curve,
    })!;
    expect(chart.lines.map(({ name }) => name)).toEqual(['read', 'cut-in', 'cut-out']);
    expect(chart.on!.length).toBeGreaterThan(0);
    for (const [from, to] of chart.on!) expect(to).toBeGreaterThan(from);
  });

  it('a sweep in the order of its positions', () => {
    const chart = drawn('survey', {
      pins: ['1'],
      sweep: [
        { position: 50, volts: 2.5 },
        { position: 0, volts: 0.5 },
      ],
    })!;
    expect(chart.lines[0]!.points.map(([x]) => x)).toEqual([0, 50]);
  });

  it('a sheet without a course draws none', () => {
    expect(drawn('diode', { forward: 0.6, reverse: 'OL' })).toBeNull();
  });
});

describe('a long trace', () => {
  it('keeps its ends, its highest and its lowest, and its order', () => {
    const points = Array.from({ length: 50_000 }, (_one, k): [number, number] => [k, Math.sin(k / 300)]);
    points[31_234] = [31_234, 9];
    points[7] = [7, -9];
    const kept = seenPoints(points);
    expect(kept.length).toBeLessThan(1500);
    expect(kept[0]).toEqual(points[0]);
    expect(kept.at(-1)).toEqual(points.at(-1));
    expect(kept.map(([, y]) => y)).toEqual(expect.arrayContaining([9, -9]));
    kept.slice(1).forEach(([x], k) => expect(x).toBeGreaterThanOrEqual(kept[k]![0]));
    expect(seenPoints(points.slice(0, 10))).toEqual(points.slice(0, 10));
  });
});
