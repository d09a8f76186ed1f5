import { CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';
import { Diagnoser } from '../diagnosis/diagnose';
import { provedMeasures, windingType, type PastWinding } from '../job/provedMeasures';
import { reduceJob } from '../job/reduceJob';
import { seededRandom } from '../random';
import { shopMarks } from '../tables/marks';
import { proportionalPilot, twoWayPair } from '../templates/electrical';
import { entryWriter, fitted } from '../testing/entryWriter';
import { calibrate, wilson } from './calibration';
import { functionTrends, type PlaceMeasure } from './functionTrends';
import { learntWindings } from './learntWindings';
import { measureLimits } from './measureLimits';
import { outcomeOf } from './outcome';

const circuit = twoWayPair();
const model = new CircuitModel(circuit);
const marks = shopMarks({});
const diagnoser = new Diagnoser(circuit);
const { suspects } = diagnoser.diagnose([], { most: 1 });

describe('how a job ended', () => {
  const decision = { part: 'Y1', fault: 'open', action: 'replace', why: 'read' };
  const ended = (...more: (readonly [Parameters<ReturnType<typeof entryWriter>>[0], object])[]) => {
    const write = entryWriter();
    const log = [
      write('complaint', { words: 'dead', when: ['wet'] }),
      ...more.map(([type, body]) => write(type, body)),
    ];
    return outcomeOf(model, reduceJob(log), { said: [suspects, suspects], named: 'Y1', began: log[0]!.at });
  };
  const worked = ['proof', { proof: 'works Y1', done: true, found: 'works' }] as const;
  const handedOver = ['handOver', { note: '' }] as const;

  it('is what was mended, once the machine was seen to work, with what the program had said', () => {
    const outcome = ended(['decision', decision], ['fix', fitted('Y1')], worked, handedOver)!;
    expect(outcome).toMatchObject({ part: 'Y1', fault: 'open', when: ['wet'], named: 'Y1', minutes: 4 });
    expect(outcome.doubt).toHaveLength(2);
    const [first] = outcome.doubt;
    expect(first![0]![1]).toBeGreaterThanOrEqual(first!.at(-1)![1]);
    expect(first!.every(([, share]) => share >= 0.02)).toBe(true);
  });

  it('is nothing while it is open, where nothing was done, where nobody saw it work, and where something else was mended', () => {
    expect(ended(['decision', decision], ['fix', fitted('Y1')], worked)).toBeNull();
    expect(ended(['decision', { ...decision, action: 'nothing' }], worked, handedOver)).toBeNull();
    expect(ended(['decision', decision], ['fix', fitted('Y1')], handedOver)).toBeNull();
    expect(ended(['decision', decision], ['fix', fitted('Y2')], worked, handedOver)).toBeNull();
  });

  it('is nothing where only an earlier work was followed by a reading', () => {
    const test = { kind: 'function', part: 'Y1', setup: { controls: { lever: 'forward' } } };
    const read = ['reading', { reading: { ...test, value: 'dead' }, typed: 'dead', phase: 'fixed' }] as const;
    const again = [['decision', decision] as const, ['fix', fitted('Y1')] as const];
    expect(ended(['fix', fitted('Y2')], read, ...again, handedOver)).toBeNull();
    expect(ended(['fix', fitted('Y2')], ...again, read, handedOver)).toMatchObject({ part: 'Y1' });
  });

  it('names no fault where the decision names none that the part can have', () => {
    const odd = { ...decision, fault: 'looked tired' };
    expect(ended(['decision', odd], ['fix', fitted('Y1')], worked, handedOver)!.fault).toBeNull();
  });
});

describe('how well doubt came true', () => {
  it('is seen in bins with their bounds; a program that says what it knows is near the line', () => {
    const random = seededRandom(4);
    const outcomes = Array.from({ length: 400 }, () => {
      const first = 0.3 + 0.65 * random.next();
      const part = random.next() < first ? 'A' : 'B';
      return {
        part,
        doubt: [[['A', first] as const, ['B', 1 - first] as const]],
        named: first > 0.9 ? 'A' : null,
      };
    });
    const { off, bins, jobs, named, wrong } = calibrate(outcomes);
    expect(jobs).toBe(400);
    expect(off).toBeLessThan(0.04);
    for (const { least, cameTrue, most } of bins) expect(least <= cameTrue && cameTrue <= most).toBe(true);
    expect(wrong).toBeLessThan(0.2 * named);
    // One that is always sure and half the time wrong is far from it.
    const sure = outcomes.map((one, k) => ({
      ...one,
      part: k % 2 ? 'A' : 'B',
      doubt: [[['A', 0.97] as const]],
    }));
    expect(calibrate(sure).off).toBeGreaterThan(0.4);
    expect(calibrate([]).bins).toEqual([]);
  });
  it('bounds of few are wide, of none of ten not from nothing', () => {
    expect(wilson(0, 10)[1]).toBeGreaterThan(0.1);
    expect(wilson(5, 10)[0]).toBeGreaterThan(wilson(1, 2)[0]);
  });
});

describe('windings by their past', () => {
  const coil = model.compiled.parts.find(({ part }) => part.ref === 'Y1')!;
  const drawn = coil.branches[0]!;
  const past = (ohms: number, more: Partial<PastWinding> = {}): PastWinding => ({
    part: 'Y1',
    type: windingType(coil)!,
    ohms,
    atReference: true,
    own: true,
    machine: 'G-2',
    jobNumber: 300,
    at: '2026-01-01T00:00:00Z',
    ...more,
  });

  it('its own stand before the drawing’s, nearer than that; the engine solves with them', () => {
    const own = 0.95 * drawn.ohms;
    const windings = learntWindings(model, [past(own), past(own * 1.01), past(own * 0.99)]);
    expect(windings.Y1).toMatchObject({ from: 'own', count: 3 });
    expect(windings.Y1!.ohms).toBeCloseTo(own, 6);
    expect(windings.Y2).toBeUndefined();
    const wise = new Diagnoser(circuit, { odds: {}, windings });
    const at = wise.model.compiled.partIndex.get('Y1')!;
    expect(wise.model.compiled.parts[at]!.branches[0]!.ohms).toBeCloseTo(own, 6);
  });

  it('one that its maker would refuse is not taken for sound', () => {
    expect(learntWindings(model, [past(0.5 * drawn.ohms)])).toEqual({});
  });

  it('of its type where nobody has said its ohms, from four on', () => {
    const unsaid = new CircuitModel({
      ...circuit,
      parts: circuit.parts.map((part) => (part.kind === 'coil' ? { ...part, ohms: undefined } : part)),
    } as typeof circuit);
    const type = windingType(unsaid.compiled.parts[unsaid.compiled.partIndex.get('Y1')!]!)!;
    const others = [8.1, 8.2, 8.3, 8.2].map((ohms, n) =>
      past(ohms, { type, own: false, part: `Y${n + 20}` }),
    );
    expect(learntWindings(unsaid, others.slice(1))).toEqual({});
    expect(learntWindings(unsaid, others).Y1).toMatchObject({ from: 'fleet', count: 4, ohms: 8.2 });
  });
});

describe('a resistor by its past', () => {
  const pilot = proportionalPilot();
  const pilotModel = new CircuitModel(pilot);
  const at = pilotModel.compiled.partIndex.get('R1')!;
  const resistor = pilotModel.compiled.parts[at]!;
  const { '1': from, '2': to } = resistor.part.nodes as { '1': string; '2': string };
  const test: Test = { kind: 'ohms', from, to, setup: { isolated: ['G1'], controls: { thumb: 'rest' } } };

  it('is followed by its own ohms, which no weather moves, and solved with them nearer than a winding', () => {
    const write = entryWriter();
    const log = (value: number) =>
      reduceJob([
        write('retest', { tests: [test] }),
        write('reading', { reading: { ...test, value }, typed: String(value), phase: 'fixed' }),
        write('handOver', { note: '' }),
      ]);
    const [measure] = provedMeasures(pilotModel, log(4.9));
    expect(measure).toMatchObject({ kind: 'winding', part: 'R1', value: 4.9, corrected: true });
    const past: PastWinding[] = [4.88, 4.9, 4.91, 4.9].map((ohms, k) => ({
      part: 'R1',
      type: windingType(resistor)!,
      ohms,
      atReference: true,
      own: true,
      machine: 'G-2',
      jobNumber: 300 + k,
      at: '2026-01-01T00:00:00Z',
    }));
    const { R1, Y1 } = learntWindings(pilotModel, past);
    expect(R1).toMatchObject({ ohms: 4.9, from: 'own', count: 4 });
    expect(R1!.tolerance).toBeLessThan(0.04);
    expect(Y1).toBeUndefined();
  });
});

describe('the places of a function over the years', () => {
  const measure = (day: number, value: number, more: Partial<PlaceMeasure> = {}): PlaceMeasure => ({
    kind: 'winding',
    place: 'winding|Y1',
    part: 'Y1',
    value,
    sigma: 0.01 * value,
    corrected: true,
    over: false,
    at: new Date(Date.UTC(2025, 0, 1) + day * 86_400_000).toISOString(),
    test: null,
    job: 300 + day,
    ...more,
  });
  const drawn = model.compiled.parts[model.compiled.partIndex.get('Y1')!]!.branches[0]!;
  const falling = [0, 60, 120, 180, 240].map((day, k) => measure(day, drawn.ohms * (1 - 0.02 * k)));

  it('say how each moves, against what its drawing allows, and from when it may be at its limit', () => {
    const [own] = functionTrends(model, falling, [], marks);
    expect(own).toMatchObject({
      trend: { state: 'falling' },
      limits: { source: { code: 'drawn' } },
      lastOn: '2025-08-29',
    });
    expect(own!.mayReachOn! >= own!.lastOn).toBe(true);
    expect(own!.dots.map(({ job }) => job)).toEqual([300, 360, 420, 480, 540]);
  });

  it('begin anew where the part was changed, not where another was', () => {
    const at = falling[2]!.at;
    const seen = (part: string) => functionTrends(model, falling, [{ part, at }], marks)[0]!;
    expect(seen('Y1').trend.used).toBe(3);
    expect(seen('Y2').trend.used).toBe(5);
  });

  it('leave out what the drawing no longer has', () => {
    const gone = measure(0, 9, { part: 'Y77', place: 'winding|Y77' });
    const moved = measure(0, 12, {
      place: 'volts|old',
      part: null,
      kind: 'volts',
      test: { kind: 'volts', from: 'old', to: 'GND', setup: {} },
    });
    expect(functionTrends(model, [gone, moved], [], marks)).toEqual([]);
  });
});

describe('what a place is held against', () => {
  const on = { controls: { lever: 'forward' } };
  it('a winding its drawing, insulation its class, and a running reading what the sound circuit may show', () => {
    expect(measureLimits(model, { kind: 'winding', part: 'Y1', test: null }, marks)).toMatchObject({
      source: { code: 'drawn' },
    });
    const insulation = { kind: 'insulation', from: 'X1:1', to: 'GND', testVolts: 250, setup: {} } as const;
    const from = model.compiled.nodeNames.find((name) => name !== 'GND')!;
    expect(
      measureLimits(model, { kind: 'insulation', part: null, test: { ...insulation, from } }, marks),
    ).toMatchObject({ most: null, source: { code: 'insulation' } });
    const amps = measureLimits(
      model,
      { kind: 'amps', part: 'Y1', test: { kind: 'amps', through: 'Y1', setup: on } },
      marks,
    )!;
    const due = new Diagnoser(circuit).evaluate([], { kind: 'amps', through: 'Y1', setup: on });
    expect(amps.source.code).toBe('sound');
    expect(Number(due.expected) > amps.least! && Number(due.expected) < amps.most!).toBe(true);
  });
});
