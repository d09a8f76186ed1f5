import { CircuitModel } from '../circuit/model';
import type { Reading } from '../circuit/schema';
import { twoWayPair } from '../templates/electrical';
import { entryWriter, fitted } from '../testing/entryWriter';
import { jobSheet } from '../sheets/onCircuit/build';
import { shopMarks } from '../tables/marks';
import { keptFigures, MEASURE_KINDS, provedMeasures, windingType } from './provedMeasures';
import { READING_KINDS } from '../kinds/reading';
import { reduceJob } from './reduceJob';

const circuit = twoWayPair();
const model = new CircuitModel(circuit);
const cells = jobSheet(model, 'coil', [], shopMarks({}))!.rows.map(({ cells: [cell] }) => cell!.test);
const at = (coil: 0 | 1, ohms: number, more: object = {}) =>
  ({ ...cells[coil], value: ohms, ...more }) as Reading;
const own = model.compiled.parts.find(({ part }) => part.ref === 'Y1')!;

/** A log with these entries before its hand-over; none where it stays open. */
function proved(entries: (write: ReturnType<typeof entryWriter>) => object[], handedOver = true) {
  const write = entryWriter();
  const log = entries(write) as ReturnType<typeof write>[];
  if (handedOver) log.push(write('handOver', { note: '' }));
  return provedMeasures(model, reduceJob(log)).map(({ part, value, corrected }) => [
    part,
    Number(value.toFixed(2)),
    corrected,
  ]);
}
const reading = (body: Reading, more: object = {}) => ({ reading: body, typed: '', ...more });
const fix = fitted('Y1');

describe('figures that a job leaves proved', () => {
  const on = { controls: { lever: 'forward' } };
  const working = { kind: 'volts', from: 'B+', to: 'GND', setup: on } as const;
  const measures = (readings: Reading[]) => {
    const write = entryWriter();
    const log = readings.map((one) => write('reading', reading(one, { phase: 'fixed', check: 'a' })));
    return provedMeasures(model, reduceJob([...log, write('handOver', { note: '' })]));
  };

  it('are those of every kind that shows one', () => {
    const figures = Object.entries(READING_KINDS).filter(([, { shows }]) => shows.is === 'figure');
    expect(['winding', ...figures.map(([kind]) => kind)].sort()).toEqual([...MEASURE_KINDS].sort());
  });

  it('what rises with the supply is brought to its rated volts where that was read, and says so', () => {
    const [source] = model.compiled.parts.filter(({ part }) => part.kind === 'source');
    const [plus, minus] = source!.nodes.map((node) => model.compiled.nodeNames[node]!);
    const rated = source!.part.kind === 'source' ? source!.part.volts : NaN;
    const supply = { kind: 'volts', from: plus, to: minus, setup: on, value: 0.9 * rated } as Reading;
    const amps = { kind: 'amps', through: 'Y1', setup: on, value: 1.8 } as Reading;
    const [alone] = measures([amps]);
    expect(alone).toMatchObject({ kind: 'amps', part: 'Y1', value: 1.8, corrected: false });
    const [, scaled] = measures([supply, amps]);
    expect(scaled).toMatchObject({ corrected: true, value: expect.closeTo(2, 6) });
    expect(scaled!.sigma).toBeLessThan(alone!.sigma);
  });

  it('insulation whose warmth was taken is what it would have read at 20 °C; else it stands as read', () => {
    const leak = { kind: 'insulation', from: 'Y1:1', to: 'GND', testVolts: 500, setup: {} } as const;
    const [warm] = measures([{ ...leak, value: 50e6, celsius: 40 } as Reading]);
    expect(warm).toMatchObject({ value: 200e6, corrected: true });
    const [asRead] = measures([{ ...leak, value: 50e6 } as Reading]);
    expect(asRead).toMatchObject({ value: 50e6, corrected: false });
    const [over] = measures([{ ...leak, value: 'OL', celsius: 40 } as Reading]);
    expect(over!.over).toBe(true);
    expect(over!.value).toBe(measures([{ ...leak, value: 'OL' } as Reading])[0]!.value);
  });

  it('over range is at least the end of it, and nothing where none is known', () => {
    const leak = {
      kind: 'insulation',
      from: cells[0]!.kind === 'ohms' ? cells[0]!.from : '',
      to: 'GND',
      testVolts: 250,
      setup: cells[0]!.setup,
      value: 'OL',
    } as Reading;
    const [one] = measures([leak]);
    expect(one).toMatchObject({ kind: 'insulation', over: true });
    expect(one!.value).toBeGreaterThan(1e8);
    expect(measures([{ ...leak, unsteady: true } as Reading])).toEqual([]);
  });

  it('before the work say nothing: the fault was in them', () => {
    const write = entryWriter();
    const log = [
      write('reading', reading({ ...working, value: 19 } as Reading)),
      write('handOver', { note: '' }),
    ];
    expect(provedMeasures(model, reduceJob(log))).toEqual([]);
  });
});

describe('figures that are kept as the machine’s own', () => {
  it('are the last of each line that was shown in the end; none where it was read wrong, or left with a reason', () => {
    const amps = { kind: 'amps', through: 'Y1', setup: { controls: { lever: 'forward' } } } as const;
    const kept = (...lines: [value: number, found: object][]) => {
      const write = entryWriter();
      const log = lines.flatMap(([value, found]) => [
        write('reading', reading({ ...amps, value }, { phase: 'fixed', check: 'current Y1' })),
        write('proof', { proof: 'current Y1', found: '', ...found }),
      ]);
      return keptFigures(reduceJob(log)).map((one) => one.reading.value);
    };
    expect(kept([9, { done: false }])).toEqual([]);
    expect(kept([9, { done: false }], [1.8, { done: true }])).toEqual([1.8]);
    expect(kept([9, { done: false, reason: 'clamp is broken' }])).toEqual([]);
  });
});

describe('windings that a job leaves proved', () => {
  it('are none while it is open; afterwards what was read of the good ones, at 20 °C where their temperature was taken', () => {
    const read = (write: ReturnType<typeof entryWriter>) => [
      write('reading', reading(at(0, 12.4, { celsius: 50 }))),
      write('reading', reading(at(1, 11.9))),
    ];
    expect(proved(read, false)).toEqual([]);
    expect(proved(read)).toEqual([
      ['Y1', 11.09, true],
      ['Y2', 11.9, false],
    ]);
  });

  it('count of a replaced one its spare on the bench and what it read after, never what it read before', () => {
    const spare = {
      part: 'Y1',
      measure: 'winding',
      typed: '11.8',
      good: true,
      bench: 'winding',
      value: 11.8,
    };
    const before = (write: ReturnType<typeof entryWriter>) => [
      write('reading', reading(at(0, 3.1))),
      write('spareTest', spare),
    ];
    expect(proved((write) => [...before(write), write('fix', fix)])).toEqual([['Y1', 11.8, false]]);
    // Read on the bench and not fitted: it is not in the machine.
    expect(proved(before)).toEqual([['Y1', 3.1, false]]);
    expect(
      proved((write) => [
        ...before(write),
        write('fix', fix),
        write('reading', reading(at(0, 12.1), { phase: 'fixed', check: 'a' })),
      ]),
    ).toEqual([['Y1', 12.1, false]]);
  });

  it('leave out what wandered, over range, and what is no winding alone', () => {
    const odd = [at(0, 12, { unsteady: true }), { ...at(1, 1), value: 'OL' } as Reading];
    expect(proved((write) => odd.map((one) => write('reading', reading(one))))).toEqual([]);
  });

  it('are held beside a like one of another machine; only those whose temperature was taken judge', () => {
    const unknown = new CircuitModel({
      ...circuit,
      parts: circuit.parts.map((part) => (part.kind === 'coil' ? { ...part, ohms: undefined } : part)),
    } as typeof circuit);
    const coil = unknown.compiled.parts.find(({ part }) => part.ref === 'Y1')!;
    const past = (atReference: boolean) =>
      [11.6, 11.8, 12].map((ohms, n) => ({
        part: 'Y9',
        type: windingType(coil)!,
        ohms,
        atReference,
        own: false,
        machine: 'L-7',
        jobNumber: 300 + n,
        at: '2026-01-01T00:00:00Z',
      }));
    const sheetWith = (atReference: boolean, ohms: number) =>
      jobSheet(unknown, 'coil', [at(0, ohms, { celsius: 20 })], shopMarks({}), {
        baselines: [],
        windings: past(atReference),
      })!;
    expect(sheetWith(true, 11.9).rows[0]!.verdict).toBe('good');
    // Too low by its like, as it stands: what lies across it is still to be told apart.
    expect(sheetWith(true, 6).rows[0]!.verdict).toBe('lowHere');
    expect(sheetWith(false, 6).rows[0]!.verdict).toBeNull();
    expect(sheetWith(false, 6).coils![0]!.past.fleet).toHaveLength(3);
    expect(windingType(own)).not.toBe(windingType(coil));
  });
});
