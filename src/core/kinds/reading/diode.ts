import { digitalSigma, VOLT_RANGES } from './meters';
import { defineReading } from './module';
import { electricalPair, refusePowered } from './places';

/** Above this the diode range shows over-range (contract), volts. */
export const DIODE_OVER_VOLTS = 2.5;
const SCATTER_VOLTS = 0.06;
const STEP_VOLTS = 0.1;

export const diode = defineReading<'diode'>()({
  dead: true,
  mechanical: false,
  school: 'resistanceFirst',
  minutes: 0.7,
  mistakeRate: 0.02,
  shows: {
    is: 'figure',
    quantity: 'volts',
    over: DIODE_OVER_VOLTS,
    unsigned: false,
    leastSigma: 0,
    withSupply: false,
    meterSigma: (size, meter) => digitalSigma(VOLT_RANGES, size, meter),
    mistakeDensity: (value) => (value === 'OL' ? 0.5 : 0.5 / DIODE_OVER_VOLTS),
    step: (value) => Math.abs(value) / STEP_VOLTS,
  },
  bind: (model, solver, test, field) => {
    const pair = electricalPair(model, test, field);
    refusePowered(model, solver, pair, test.kind, field);
    const [i, j] = pair;
    return [
      { mode: 'diode', from: i, to: j },
      (world) => {
        const volts = world.changed.pairVolts(i, j);
        const mean = Number.isNaN(volts) || volts > DIODE_OVER_VOLTS ? Infinity : volts;
        return { type: 'number', mean, sigma: mean === Infinity ? 0 : SCATTER_VOLTS, loose: false };
      },
    ];
  },
});
