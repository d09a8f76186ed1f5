import { CircuitModel } from '../circuit/model';
import { faultByName, listFaults } from '../diagnosis/faults';
import { driverHighSide, singleCoil, twoWayPair } from '../templates/electrical';
import { hoistLimits } from '../templates/line';
import { runInTime } from '../transient/run';
import { constant } from '../transient/elements';
import { USUAL_IRON } from '../transient/irons';
import { demoCircuit } from '../../testing/demoCircuits';
import { coilCourse } from './coilCourse';
import { coilFeatures, thinned } from './coilFeatures';
import { coilFeed } from './coilFeed';
import { partInCircuit } from './partInCircuit';
import { keepTrace, keptTrace, MOST_KEPT, traceOfKept } from './keptTrace';
import { restOf, tracedParts, workedIn } from './restOf';
import { seenPoints } from './seenPoints';
import { sampled, traceAt, type Trace } from './trace';

const TILLER = new CircuitModel(demoCircuit('groomer-tiller-float'));
const TIMES = { on: 0.02, off: 0.27, end: 0.47 };
const over = (value: (t: number) => number, end = 0.5, step = 1e-4): Trace => {
  const seconds = Array.from({ length: Math.round(end / step) }, (_one, k) => k * step);
  return { seconds, values: seconds.map(value) };
};

describe('what stands before a coil', () => {
  it('is the supply less its wires, and what takes its current over', () => {
    const feed = coilFeed(TILLER, 'Y14', { controls: { key: 'on', float: 'on' } });
    expect(feed.volts).toBeCloseTo(13.1, 1);
    expect(feed.suppression.by).toBe('diode');
    // The current that it gives is the circuit's own.
    const amps = feed.volts / (feed.sheet.ohms + feed.sourceOhms);
    expect(amps).toBeCloseTo(workedIn(TILLER, 'Y14')!.amps, 3);
  });
  it('has no diode where that is open, and more ohms where volts are lost', () => {
    const edits = (part: string, fault: string, ohms?: number) => {
      const found = faultByName(listFaults(TILLER), part, fault, ohms);
      return found.fault.variants[0]!.edits(found.severity);
    };
    const on = { controls: { key: 'on', float: 'on' } };
    expect(coilFeed(TILLER, 'Y14', on, edits('V14', 'open')).suppression.by).toBe('nothing');
    expect(coilFeed(TILLER, 'Y14', on, edits('W114', 'highResistance', 5)).sourceOhms).toBeGreaterThan(5);
  });
  it('is refused of what is no coil, and of alternating volts', () => {
    expect(() => coilFeed(TILLER, 'F12', { controls: { key: 'on', float: 'on' } })).toThrow(
      /"F12" is a fuse/,
    );
    const line = new CircuitModel(hoistLimits());
    const coil = line.compiled.parts.find(({ part }) => part.kind === 'relay' || part.kind === 'coil')!;
    expect(() => coilFeed(line, coil.part.ref, {})).toThrow(/alternating volts/);
    expect(tracedParts(line)).toEqual([]);
  });
});

describe('where a coil is worked and where it rests', () => {
  it('is with as few controls turned as can be, the last one first', () => {
    const on = workedIn(TILLER, 'Y14')!.setup;
    expect(on.controls).toEqual({ key: 'on', float: 'on' });
    expect(restOf(TILLER, 'Y14', on)!.controls).toEqual({ key: 'on', float: 'off' });
    const pair = new CircuitModel(twoWayPair());
    expect(restOf(pair, 'Y1', workedIn(pair, 'Y1')!.setup)!.controls).toEqual({ lever: 'rest' });
  });
  it('is none of a coil that nothing asks for', () => {
    const model = new CircuitModel(singleCoil());
    expect(restOf(model, 'Y1', { controls: { key: 'off' } })).toBeNull();
  });
});

describe('a coil behind its feed alone', () => {
  it.each([
    [demoCircuit('groomer-tiller-float'), 'Y14'],
    [demoCircuit('compressor-gate'), 'Y14'],
    [driverHighSide(), 'Y1'],
  ])('goes as it does in its whole circuit (%#)', (circuit, ref) => {
    const model = new CircuitModel(circuit);
    const on = workedIn(model, ref)!.setup;
    const rest = restOf(model, ref, on)!;
    const whole = partInCircuit(model, ref, { rest, on }, TIMES);
    const alone = coilCourse(coilFeed(model, ref, on), { iron: USUAL_IRON }, TIMES);
    const most = Math.max(...whole.values);
    // But for the moments at which it is switched off and its plunger goes back: those are told by a hair.
    const off = (t: number) => Math.abs(traceAt(whole, t) - traceAt(alone, t)) / most;
    for (let t = 0.02; t < 0.27; t += 0.002) expect(off(t)).toBeLessThan(0.05);
    expect(off(0.46)).toBeLessThan(0.01);
  });
  it('of which nothing is there draws nothing', () => {
    const model = new CircuitModel(singleCoil());
    const on = workedIn(model, 'Y1')!.setup;
    const own = model.compiled.parts.find(({ part }) => part.ref === 'Y1')!.branches[0]!;
    const gone = partInCircuit(model, 'Y1', { rest: {}, on }, TIMES, [
      { type: 'ohms', branch: own.index, ohms: Infinity },
    ]);
    expect(Math.max(...gone.values)).toBe(0);
  });
});

describe('features of a coil’s current', () => {
  it('of a winding without iron are those of its time constant (closed form)', () => {
    const tau = 0.012;
    const on = 0.05;
    const trace = over((t) => (t < on ? 0 : 2 * (1 - Math.exp(-(t - on) / tau))));
    const seen = coilFeatures(trace);
    expect(seen.settledAmps).toBeCloseTo(2, 3);
    expect(seen.moved).toBe(false);
    expect(seen.halfSeconds!).toBeCloseTo(tau * Math.LN2, 3);
    expect(seen.lateSeconds!).toBeCloseTo(tau * Math.log(10), 2);
    expect(seen.off).toBeNull();
    expect(seen.fallSeconds).toBeNull();
  });
  it('of a plunger that moves: a dip, and a crest on its way back', () => {
    const feed = coilFeed(TILLER, 'Y14', { controls: { key: 'on', float: 'on' } });
    const seen = coilFeatures(sampled(coilCourse(feed, { iron: USUAL_IRON }, TIMES), 1e-4));
    expect(seen.moved).toBe(true);
    expect(seen.onset).toBeCloseTo(0.02, 2);
    expect(seen.off).toBeCloseTo(0.27, 2);
    expect(seen.dipSeconds!).toBeGreaterThan(seen.crestSeconds!);
    expect(seen.releaseSeconds!).toBeGreaterThan(seen.fallSeconds!);
    const bare = coilFeatures(sampled(coilCourse(feed, { iron: USUAL_IRON, bare: true }, TIMES), 1e-4));
    expect(bare.fallSeconds!).toBeLessThan(0.15 * seen.fallSeconds!);
  });
  it('say nothing that was not watched: too short, too coarse, nothing there', () => {
    const rise = (t: number) => 2 * (1 - Math.exp(-t / 0.05));
    expect(coilFeatures(over((t) => rise(Math.max(t - 0.005, 0)), 0.03)).settledAmps).toBeNull();
    const coarse = coilFeatures(over((t) => (t < 0.05 ? 0 : rise(t - 0.05)), 0.6, 0.02));
    expect(coarse.moved).toBeNull();
    expect(coilFeatures(over(() => 0.001)).settledAmps).toBe(0);
    expect(coilFeatures({ seconds: [0, 1], values: [0, 1] }).settledAmps).toBeNull();
  });
});

describe('a trace that is kept', () => {
  it('comes back with its shape, in no more points than are kept, whatever its length', () => {
    const long = over((t) => 3 * (1 - Math.exp(-t / 0.1)), 1, 1e-5);
    const kept = keepTrace(long);
    expect(kept.values.length).toBeLessThanOrEqual(MOST_KEPT);
    const back = traceOfKept(kept);
    for (const at of [0.05, 0.3, 0.9]) expect(traceAt(back, at)).toBeCloseTo(traceAt(long, at), 2);
    expect(back.seconds.at(-1)!).toBeCloseTo(1, 2);
    const short = over((t) => t, 0.01, 1e-3);
    expect(traceOfKept(keepTrace(short)).values).toHaveLength(10);
  });
  it('of uneven steps is kept with its own times: no peak is lost, and nothing is drawn between that nobody saw', () => {
    const seconds = [5, 5.01, 5.02, 5.05, 5.1, 5.2, 5.3, 5.5, 5.9, 6.6];
    const values = [0, 60, 72, 55, 40, 28, 22, 18.5, 17, 16.8];
    const kept = keptTrace.parse(keepTrace({ seconds, values }));
    expect(traceOfKept(kept).values).toEqual(values);
    traceOfKept(kept).seconds.forEach((at, k) => expect(at).toBeCloseTo(seconds[k]!, 9));
    const times = kept.seconds!;
    expect(keptTrace.safeParse({ ...kept, seconds: times.slice(1) }).success).toBe(false);
    expect(keptTrace.safeParse({ ...kept, seconds: [...times].reverse() }).success).toBe(false);
  });
  it('is thinned by taking points together, and drawn by the lowest and the highest of each stretch', () => {
    const long = over((t) => (Math.abs(t - 0.25) < 2e-5 ? 9 : 1), 0.5, 1e-5);
    expect(thinned(long).seconds.length).toBeLessThanOrEqual(2400);
    const drawn = seenPoints(long.seconds.map((at, k) => [at, long.values[k]!] as const));
    expect(drawn.length).toBeLessThan(1400);
    expect(Math.max(...drawn.map(([, y]) => y))).toBe(9);
  });
});

it('a steady supply over a resistor gives a trace without a beginning', () => {
  const { seconds } = runInTime(
    2,
    [
      { kind: 'source', a: 1, b: 0, volts: constant(12) },
      { kind: 'resistor', a: 1, b: 0, ohms: 6 },
    ],
    0.1,
  );
  const flat = coilFeatures({ seconds: [...seconds], values: [...seconds].map(() => 2) });
  expect(flat.onset).toBeNull();
  expect(flat.moved).toBeNull();
});
