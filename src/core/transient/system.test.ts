import { seededRandom } from '../random';
import { constant, closedBetween, OWN_UNKNOWNS, type Element } from './elements';
import { TimeSystem } from './system';
import { DIODE, MOTOR, VALVE } from './testing/figures';

/** One of everything, all between nodes that are not the frame as well as to it. */
const ALL: readonly Element[] = [
  { kind: 'source', a: 1, b: 0, volts: constant(12), ohms: 0.02 },
  { kind: 'resistor', a: 1, b: 2, ohms: 5 },
  { kind: 'capacitor', a: 2, b: 3, farads: 1e-4 },
  { kind: 'inductor', a: 3, b: 0, henries: 0.02, ohms: 1 },
  { kind: 'switch', a: 1, b: 3, schedule: closedBetween(0), onOhms: 0.5, offOhms: 1e6 },
  { ...DIODE, anode: 2, cathode: 3 },
  { ...DIODE, anode: 3, cathode: 4, breakdownVolts: 3.9 },
  { ...VALVE, a: 2, b: 4 },
  { ...VALVE, a: 3, b: 0, jammed: true },
  { kind: 'contact', a: 2, b: 4, of: 7, at: 0.5, restsClosed: true, onOhms: 0.1, offOhms: 1e3 },
  { ...MOTOR, a: 4, b: 2 },
  { kind: 'filament', a: 4, b: 1, coldOhms: 0.3, hotOhms: 3, ratedVolts: 12, seconds: 0.05 },
  { kind: 'fuse', a: 1, b: 4, ohms: 0.02, ratedAmps: 10, seconds: 2.2 },
  { ...VALVE, kind: 'acSolenoid', a: 4, b: 1, ringSeconds: 5e-3 },
  { ...VALVE, kind: 'acSolenoid', a: 4, b: 0, ringSeconds: 5e-3, jammed: true },
  { kind: 'transformer', primary: [1, 3], secondary: [4, 0], ratio: 5, ohms: 0.4 },
  { kind: 'limiter', a: 2, b: 0, ohms: 0.05, limitAmps: 4 },
  { kind: 'limiter', a: 1, b: 3, ohms: 0.2, limitAmps: 1.5 },
];

describe('a circuit as one system', () => {
  it('has something of every kind in this test', () => {
    expect(new Set(ALL.map(({ kind }) => kind))).toEqual(new Set(Object.keys(OWN_UNKNOWNS)));
  });

  it('knows how all that flows and is stored changes with every unknown, wherever it stands', () => {
    const system = new TimeSystem(5, ALL);
    const { size, starts, columns } = system.pattern;
    const at = (y: Float64Array) => {
      system.rest(y);
      system.evaluate(y, 0);
      return { q: system.q.slice(), f: system.f.slice() };
    };
    const coil = system.own[7]!;
    const free = system.own[8]!;
    const even = system.own[13]!;
    for (let seed = 1; seed <= 20; seed++) {
      const random = seededRandom(seed);
      const y = Float64Array.from({ length: size }, () => random.next() - 0.5);
      // A plunger in its first stop, on its way, over its contact's hair, in its last stop.
      y[coil + 1] = [-2e-6, 1e-3, 1.5e-3, 3.002e-3][seed % 4]!;
      y[free + 1] = 1e-3;
      y[even + 1] = [2e-3, -2e-6, 3.002e-3, 1e-3][seed % 4]!;
      // Beyond cold a filament is held where it is, so that a pass finds its way back.
      y[system.own[11]!] = random.next();
      // A fuse that is whole, that parts, that has parted.
      y[system.own[12]!] = [0.4, 1.007, 1.6, 0.9][seed % 4]!;
      system.rest(y);
      system.evaluate(y, 0);
      const [jq, jf] = [system.jq.slice(), system.jf.slice()];
      for (let column = 0; column < size; column++) {
        const place = [coil, free, even].includes(column - 1);
        const h = place ? 1e-9 : 1e-6;
        const [up, down] = [y.slice(), y.slice()];
        up[column]! += h;
        down[column]! -= h;
        const [more, less] = [at(up), at(down)];
        for (let row = 0; row < size; row++) {
          const places = Array.from(
            { length: starts[row + 1]! - starts[row]! },
            (_one, k) => starts[row]! + k,
          );
          const known = places.find((one) => columns[one] === column);
          for (const [found, rise] of [
            [known === undefined ? 0 : jq[known]!, (more.q[row]! - less.q[row]!) / (2 * h)],
            [known === undefined ? 0 : jf[known]!, (more.f[row]! - less.f[row]!) / (2 * h)],
          ] as const) {
            const off = Math.abs(found - rise) / Math.max(1, Math.abs(found), Math.abs(rise));
            expect([seed, row, column, off < 2e-3]).toEqual([seed, row, column, true]);
          }
        }
      }
    }
  });
});
