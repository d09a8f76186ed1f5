import { closedBetween, constant, pulses, sine, step, type Element } from './elements';
import { runInTime, valueAt, type Course } from './run';

const ampsOf = (course: Course, element: number) => course.own[element]![0]!;

/** Worst distance from a closed form, as a share of its greatest size. */
function worst(seconds: Float64Array, values: Float64Array, form: (t: number) => number): number {
  let [off, most] = [0, 0];
  seconds.forEach((t, k) => {
    off = Math.max(off, Math.abs(values[k]! - form(t)));
    most = Math.max(most, Math.abs(form(t)));
  });
  return off / most;
}

describe('closed forms', () => {
  it('a coil on its supply (E34), and over a diode when it is let go', () => {
    const elements: Element[] = [
      { kind: 'source', a: 1, b: 0, volts: constant(24) },
      { kind: 'inductor', a: 1, b: 0, henries: 0.12, ohms: 24 },
    ];
    const course = runInTime(2, elements, 0.04);
    const form = (t: number) => 1 - Math.exp(-t / 0.005);
    expect(worst(course.seconds, ampsOf(course, 1), form)).toBeLessThan(2e-3);
    expect(valueAt(course.seconds, ampsOf(course, 1), 0.005)).toBeCloseTo(0.6321, 3);
    expect(valueAt(course.seconds, ampsOf(course, 1), 0.008047)).toBeCloseTo(0.8, 3);
  });

  it('a capacitor through a resistor', () => {
    const elements: Element[] = [
      { kind: 'source', a: 1, b: 0, volts: step(10, 1e-3) },
      { kind: 'resistor', a: 1, b: 2, ohms: 1000 },
      { kind: 'capacitor', a: 2, b: 0, farads: 1e-6 },
    ];
    const { seconds, volts } = runInTime(3, elements, 8e-3);
    const form = (t: number) => (t < 1e-3 ? 0 : 10 * (1 - Math.exp(-(t - 1e-3) / 1e-3)));
    expect(worst(seconds, volts[2]!, form)).toBeLessThan(2e-3);
  });

  it.each([
    ['swinging', 10],
    ['creeping', 2000],
  ])('a coil and a capacitor, %s', (_name, ohms) => {
    const [henries, farads] = [0.1, 1e-6];
    const elements: Element[] = [
      { kind: 'source', a: 1, b: 0, volts: constant(5) },
      { kind: 'inductor', a: 1, b: 2, henries, ohms },
      { kind: 'capacitor', a: 2, b: 0, farads },
    ];
    const { seconds, volts } = runInTime(3, elements, 0.02, { tolerance: 1e-5 });
    const decay = ohms / (2 * henries);
    const square = 1 / (henries * farads) - decay * decay;
    const w = Math.sqrt(Math.abs(square));
    const form = (t: number) =>
      square > 0
        ? 5 * (1 - Math.exp(-decay * t) * (Math.cos(w * t) + (decay / w) * Math.sin(w * t)))
        : 5 * (1 - Math.exp(-decay * t) * (Math.cosh(w * t) + (decay / w) * Math.sinh(w * t)));
    expect(worst(seconds, volts[2]!, form)).toBeLessThan(5e-3);
  });

  it('alternating volts on a coil settle to its impedance', () => {
    const elements: Element[] = [
      { kind: 'source', a: 1, b: 0, volts: sine(24 * Math.SQRT2, 50) },
      { kind: 'inductor', a: 1, b: 0, henries: 0.1, ohms: 10 },
    ];
    const course = runInTime(2, elements, 0.2);
    const amps = ampsOf(course, 1);
    const late = [...course.seconds].flatMap((t, k) => (t > 0.16 ? [Math.abs(amps[k]!)] : []));
    expect(Math.max(...late)).toBeCloseTo((24 * Math.SQRT2) / Math.hypot(10, 2 * Math.PI * 5), 2);
  });

  it('pulses on a coil with its diode: the mean is the duty’s, and it ripples', () => {
    const elements: Element[] = [
      { kind: 'source', a: 1, b: 0, volts: pulses(24, 200, 0.4) },
      { kind: 'inductor', a: 1, b: 0, henries: 0.05, ohms: 10 },
    ];
    const course = runInTime(2, elements, 0.1);
    const amps = ampsOf(course, 1);
    let [sum, time] = [0, 0];
    course.seconds.forEach((t, k) => {
      if (t < 0.05 || k === 0) return;
      const dt = t - course.seconds[k - 1]!;
      sum += (dt * (amps[k]! + amps[k - 1]!)) / 2;
      time += dt;
    });
    expect(sum / time).toBeCloseTo(0.96, 2);
  });

  it('a contact that opens on a coil: without a diode its volts jump, with one they stay at its own', () => {
    const make = (diode: boolean): Element[] => [
      { kind: 'source', a: 1, b: 0, volts: constant(24) },
      { kind: 'switch', a: 1, b: 2, schedule: closedBetween(0, 0.03), onOhms: 0.01, offOhms: 1e5 },
      { kind: 'inductor', a: 2, b: 0, henries: 0.12, ohms: 24 },
      ...(diode
        ? [{ kind: 'diode', anode: 0, cathode: 2, saturationAmps: 1e-9, emission: 1.8, ohms: 0.05 } as const]
        : []),
    ];
    const least = (diode: boolean) => Math.min(...runInTime(3, make(diode), 0.06).volts[2]!);
    expect(least(false)).toBeLessThan(-5000);
    expect(least(true)).toBeGreaterThan(-1.5);
  });
});
