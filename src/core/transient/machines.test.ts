import { readTrace } from '../sheets/trace/trace';
import { closedBetween, constant, type Element, type Solenoid } from './elements';
import { runInTime, valueAt, type Course } from './run';
import { MOTOR, VALVE as VALVE_FIGURES } from './testing/figures';

const VALVE: Solenoid = { ...VALVE_FIGURES, a: 1, b: 0 };
const feed = (volts: number): Element => ({ kind: 'source', a: 1, b: 0, volts: constant(volts) });

function pull(more: Partial<Solenoid> = {}, volts = 24): Course {
  return runInTime(2, [feed(volts), { ...VALVE, ...more }], 0.08);
}

/** What the sheet for traces says of a solenoid's current, as a clamp would show it. */
function seen(course: Course) {
  const seconds = Array.from({ length: 800 }, (_one, k) => k * 1e-4);
  const values = seconds.map((t) => valueAt(course.seconds, course.own[1]![0]!, t));
  return readTrace({
    format: 'spiraxis-sheet',
    version: 1,
    sheet: 'trace',
    kind: 'dip',
    quantity: 'amps',
    seconds,
    values,
  });
}

describe('a solenoid with a plunger', () => {
  it('pulls in, and its current dips while the plunger moves; jammed it rises without a dip', () => {
    const moved = seen(pull());
    expect(moved.moved).toBe(true);
    const course = pull();
    expect(course.own[1]![0]!.at(-1)!).toBeCloseTo(1.2, 2);
    expect(seen(pull({ jammed: true })).moved).toBe(false);
    const place = pull().own[1]![1]!;
    expect(place.at(-1)!).toBeCloseTo(3e-3, 4);
    expect(Math.max(...pull({ jammed: true }).own[1]![1]!)).toBe(0);
  });

  it('comes later with a stronger spring, more mass or less volts, and not at all with too little', () => {
    const dip = (more: Partial<Solenoid>, volts?: number) => seen(pull(more, volts)).dipSeconds;
    const usual = dip({})!;
    expect(dip({ preloadNewtons: 8 })!).toBeGreaterThan(usual);
    expect(dip({ kilograms: 0.12 })!).toBeGreaterThan(usual);
    expect(dip({}, 17)!).toBeGreaterThan(usual);
    const weak = pull({ preloadNewtons: 40 });
    expect(Math.max(...weak.own[1]![1]!)).toBeLessThan(0.5e-3);
  });

  it('takes from its supply what it stores, warms and moves: no energy is made', () => {
    const course = pull({ damping: 0 });
    const [amps, place, speed] = course.own[1]! as [Float64Array, Float64Array, Float64Array];
    let [given, warmed] = [0, 0];
    course.seconds.forEach((t, k) => {
      if (k === 0 || place[k]! > 2.9e-3) return;
      const dt = t - course.seconds[k - 1]!;
      const mean = (amps[k]! + amps[k - 1]!) / 2;
      given += 24 * mean * dt;
      warmed += 20 * mean * mean * dt;
    });
    const last = place.findIndex((one) => one > 2.9e-3) - 1;
    const gap = VALVE.strokeMetres / (VALVE.closedHenries / VALVE.openHenries - 1);
    const henries = VALVE.closedHenries / (1 + (VALVE.strokeMetres - place[last]!) / gap);
    const stored = 0.5 * henries * amps[last]! ** 2;
    const moved = 0.5 * VALVE.kilograms * speed[last]! ** 2;
    const spring =
      VALVE.preloadNewtons * place[last]! + 0.5 * VALVE.springNewtonsPerMetre * place[last]! ** 2;
    expect((stored + moved + spring + warmed) / given).toBeCloseTo(1, 2);
  });
});

describe('a relay', () => {
  it('feeds its load a while after its coil is fed, and lets it go a while after it is not; a buzzer swings', () => {
    const relay = { ...VALVE, a: 2 };
    const elements: Element[] = [
      feed(24),
      { kind: 'switch', a: 1, b: 2, schedule: closedBetween(0.01, 0.1), onOhms: 0.01, offOhms: 1e6 },
      relay,
      { kind: 'resistor', a: 2, b: 0, ohms: 400 },
      { kind: 'contact', a: 1, b: 3, of: 2, at: 0.8, restsClosed: false, onOhms: 0.02, offOhms: 1e8 },
      { kind: 'resistor', a: 3, b: 0, ohms: 12 },
      { kind: 'contact', a: 1, b: 4, of: 2, at: 0.2, restsClosed: true, onOhms: 0.02, offOhms: 1e8 },
      { kind: 'resistor', a: 4, b: 0, ohms: 12 },
    ];
    const course = runInTime(5, elements, 0.2);
    const at = (node: number, t: number) => valueAt(course.seconds, course.volts[node]!, t);
    expect([at(3, 0.009), at(4, 0.009)]).toEqual([expect.closeTo(0, 2), expect.closeTo(23.96, 1)]);
    expect([at(3, 0.011), at(4, 0.011)]).toEqual([expect.closeTo(0, 2), expect.closeTo(23.96, 1)]);
    expect([at(3, 0.09), at(4, 0.09)]).toEqual([expect.closeTo(23.96, 1), expect.closeTo(0, 2)]);
    expect([at(3, 0.1005), at(4, 0.1005)]).toEqual([expect.closeTo(23.96, 1), expect.closeTo(0, 2)]);
    expect([at(3, 0.19), at(4, 0.19)]).toEqual([expect.closeTo(0, 2), expect.closeTo(23.96, 1)]);
    // It rests closed first, then makes: never both.
    expect(course.seconds.every((_t, k) => course.volts[3]![k]! < 12 || course.volts[4]![k]! < 12)).toBe(
      true,
    );

    // Its own resting contact feeds it: it opens what holds it, over and over.
    const buzzer = runInTime(
      3,
      [
        feed(24),
        { kind: 'contact', a: 1, b: 2, of: 2, at: 0.3, restsClosed: true, onOhms: 0.02, offOhms: 1e6 },
        relay,
        { kind: 'resistor', a: 2, b: 0, ohms: 100 },
      ],
      0.3,
    );
    const made = Array.from(buzzer.volts[2]!, (v) => v > 12);
    const changes = made.filter((one, k) => k > 0 && one !== made[k - 1]).length;
    expect(changes).toBeGreaterThan(6);
  });
});

describe('what a coil does when it is let go (E35)', () => {
  const release = (...clamp: Element[]) => {
    const course = runInTime(
      4,
      [
        { kind: 'source', a: 1, b: 0, volts: constant(24) },
        { kind: 'switch', a: 1, b: 2, schedule: closedBetween(0, 0.05), onOhms: 1e-3, offOhms: 1e7 },
        { kind: 'inductor', a: 2, b: 0, henries: 0.1, ohms: 20 },
        ...clamp,
      ],
      0.08,
    );
    const amps = course.own[2]![0]!;
    expect(valueAt(course.seconds, amps, 0.0499)).toBeCloseTo(1.2, 3);
    const at = amps.findIndex((value, k) => course.seconds[k]! > 0.05 && value < 0.2);
    return course.seconds[at]! - 0.05;
  };
  it('a silicon diode lets go slowly, a Zener of 33 V fast', () => {
    // 0.7 V at half an ampere.
    const silicon = {
      kind: 'diode',
      anode: 0,
      cathode: 2,
      saturationAmps: 1.5e-7,
      emission: 1.8,
      ohms: 1e-3,
    } as const;
    expect(release(silicon) / 8.296e-3).toBeCloseTo(1, 1);
    // 33 V in all: the Zener turned against the coil, and its own diode.
    const zener = {
      kind: 'diode',
      anode: 2,
      cathode: 3,
      saturationAmps: 1e-12,
      emission: 1,
      ohms: 1e-3,
      breakdownVolts: 31.6,
    } as const;
    const inLine = { ...silicon, cathode: 3 };
    expect(release(zener, inLine) / 2.161e-3).toBeCloseTo(1, 1);
    expect(release({ kind: 'resistor', a: 2, b: 0, ohms: 60 })).toBeLessThan(release(silicon));
  });
});

describe('what draws more at first', () => {
  it('a motor begins locked and runs up against its own volts; locked it stays there', () => {
    const motor = (locked: boolean) => runInTime(2, [feed(12), { ...MOTOR, a: 1, b: 0, locked }], 1.5);
    const running = motor(false);
    const amps = running.own[1]![0]!;
    expect(Math.max(...amps)).toBeGreaterThan(50);
    // Load and friction over the constant.
    const speed = running.own[1]![1]!.at(-1)!;
    expect(amps.at(-1)!).toBeCloseTo((0.5 + 1e-4 * speed) / 0.05, 1);
    expect(speed).toBeCloseTo((12 - 0.2 * amps.at(-1)!) / 0.05, 0);
    expect(motor(true).own[1]![0]!.at(-1)!).toBeCloseTo(60, 1);
  });

  it('a lamp begins cold at a tenth of its ohms, and settles at its own', () => {
    const course = runInTime(
      2,
      [feed(12), { kind: 'filament', a: 1, b: 0, coldOhms: 0.3, hotOhms: 3, ratedVolts: 12, seconds: 0.05 }],
      2,
    );
    const amps = course.own[0]![0]!;
    expect(amps[0]!).toBeCloseTo(40, 0);
    expect(amps.at(-1)!).toBeCloseTo(4, 2);
  });
});
