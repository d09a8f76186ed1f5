import { seededRandom } from '../random';
import { constant, type Element } from '../transient/elements';
import { USUAL_IRON } from '../transient/irons';
import { runInTime, runSystem, valueAt } from '../transient/run';
import { coilBehind } from './coilCourse';
import type { CoilFeed } from './coilFeed';
import { CoilSystem, type CoilBehindFeed } from './coilSystem';

const FEED: CoilFeed = {
  sheet: { ohms: 7.4, watts: 23, pull: 0.9, hold: 0.3 },
  volts: 13.1,
  sourceOhms: 0.22,
  suppression: { by: 'diode', ohms: 0.05 },
};
const SUPPRESSED: readonly CoilFeed['suppression'][] = [
  { by: 'diode', ohms: 0.05 },
  { by: 'resistor', ohms: 180 },
  { by: 'nothing' },
];
const MOMENTS = [0.02, 0.27];
const ACCURATE = { tolerance: 1e-5 };

/** The same as a circuit by its nodes. */
function byNodes({
  coil,
  volts,
  sourceOhms,
  switched,
  onOhms,
  offOhms,
  acrossOhms,
  freewheel,
}: CoilBehindFeed) {
  const [supply, terminal] = [1, 2];
  const elements: Element[] = [
    { ...coil, a: terminal, b: 0 },
    { kind: 'source', a: supply, b: 0, volts: constant(volts), ohms: sourceOhms },
    { kind: 'switch', a: supply, b: terminal, schedule: switched, onOhms, offOhms },
  ];
  if (Number.isFinite(acrossOhms)) elements.push({ kind: 'resistor', a: terminal, b: 0, ohms: acrossOhms });
  if (freewheel) {
    const ends =
      freewheel.over === 'coil' ? { anode: 0, cathode: terminal } : { anode: terminal, cathode: supply };
    elements.push({ kind: 'diode', ...freewheel.diode, ...ends });
  }
  return elements;
}

describe('a coil behind its feed as one small system', () => {
  it.each(SUPPRESSED)(
    'has the course of the same circuit by its nodes, switched off into %j',
    (suppression) => {
      for (const state of [
        { iron: USUAL_IRON },
        { iron: { ...USUAL_IRON, jammed: 'out' as const }, ohms: 5 },
        { iron: { ...USUAL_IRON, damping: 30 * USUAL_IRON.damping }, lost: 3 },
      ]) {
        const of = coilBehind({ ...FEED, suppression }, state, MOMENTS);
        const whole = runInTime(3, byNodes(of), 0.5, ACCURATE);
        const small = runSystem(new CoilSystem(of), 0.5, ACCURATE);
        const amps = small.states.map((y) => y[0]!);
        const most = Math.max(...amps);
        expect(most).toBeGreaterThan(0.5);
        // Where an arc goes out the two end a step apart.
        for (let t = 0; t < 0.5; t += 0.0025) {
          const off = valueAt(small.times, amps, t) - valueAt(whole.seconds, whole.own[0]![0]!, t);
          expect([t, Math.abs(off) / most < 0.004]).toEqual([t, true]);
        }
      }
    },
  );

  it('knows how all that flows and is stored changes with every unknown', () => {
    for (const suppression of SUPPRESSED) {
      const system = new CoilSystem(coilBehind({ ...FEED, suppression }, { iron: USUAL_IRON }, [0]));
      const { size } = system;
      const at = (y: Float64Array) => {
        system.rest(y);
        system.evaluate(y, 0.1);
        return { q: system.q.slice(), f: system.f.slice() };
      };
      for (let seed = 1; seed <= 20; seed++) {
        const random = seededRandom(seed);
        const y = Float64Array.from([1.5, 1e-3, 0.4, 0.5].slice(0, size), (most) => most * random.next());
        at(y);
        const [jq, jf] = [system.jq.slice(), system.jf.slice()];
        for (let column = 0; column < size; column++) {
          const hair = 1e-6 * Math.max(Math.abs(y[column]!), 1e-3);
          const [low, high] = [y.slice(), y.slice()];
          low[column] = low[column]! - hair;
          high[column] = high[column]! + hair;
          const [below, above] = [at(low), at(high)];
          for (let row = 0; row < size; row++)
            for (const [slopes, name] of [
              [jq, 'q'],
              [jf, 'f'],
            ] as const) {
              const seen = (above[name][row]! - below[name][row]!) / (2 * hair);
              const said = slopes[row * size + column]!;
              expect([name, row, column, Math.abs(seen - said) <= 1e-3 * Math.abs(said) + 1e-4]).toEqual([
                name,
                row,
                column,
                true,
              ]);
            }
        }
      }
    }
  });
});
