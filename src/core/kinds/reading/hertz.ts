import { digitalSigma, sizeStep } from './meters';
import { defineReading } from './module';
import { electricalPair } from './places';

/** A meter counts no cycles of less than this, volts. */
const LEAST_VOLTS = 0.3;
const RANGES = [60, 600, 6e3, 6e4, 6e5];
/** A supply's frequency is its own to this share. */
const SOURCE_SHARE = 0.005;

/** Frequency between two points: that of the supply they stand on, or nothing. */
export const hertz = defineReading<'hertz'>()({
  dead: false,
  mechanical: false,
  school: 'loadedVoltsFirst',
  minutes: 0.6,
  mistakeRate: 0.02,
  shows: {
    is: 'figure',
    quantity: 'hertz',
    over: Infinity,
    unsigned: true,
    leastSigma: 0.05,
    withSupply: false,
    meterSigma: (size, meter) => digitalSigma(RANGES, size, meter),
    mistakeDensity: (value) => 0.15 / (Math.abs(Number(value)) + 5),
    step: sizeStep(5, 0.06),
  },
  bind: (model, _solver, test, field) => {
    const [i, j] = electricalPair(model, test, field);
    const { hertz: of } = model.compiled;
    const own = Math.max(of[i]!, of[j]!);
    return [
      { mode: 'live' },
      (world) => {
        const volts = world.changed.pairVolts(i, j);
        const counts = Math.abs(volts) >= LEAST_VOLTS;
        const mean = counts ? own : 0;
        return { type: 'number', mean, sigma: SOURCE_SHARE * mean, loose: world.chatters };
      },
    ];
  },
});
