import { limitedBranches, limitedVolts, type World } from '../../circuit/world';
import type { Prediction } from '../../diagnosis/prediction';
import { voltsCommon, voltsScatter } from '../../diagnosis/scatter';
import { digitalSigma, signedStep, VOLT_RANGES } from './meters';
import { defineReading } from './module';
import { electricalPair } from './places';

const METER_OHMS = 1e7;
/** Spread of a floating pair's reading around zero, volts. */
const FLOATING_VOLTS = 0.03;
/** A point behind this share of the meter's own resistance is a ghost. */
const GHOST_SHARE = 0.02;

export const volts = defineReading<'volts'>()({
  dead: false,
  mechanical: false,
  school: 'loadedVoltsFirst',
  minutes: 0.5,
  mistakeRate: 0.03,
  shows: {
    is: 'figure',
    quantity: 'volts',
    over: Infinity,
    unsigned: false,
    leastSigma: 0.015,
    withSupply: true,
    meterSigma: (size, meter) => digitalSigma(VOLT_RANGES, size, meter),
    mistakeDensity: (_value, supplyVolts) => 1 / (2.4 * Math.max(supplyVolts, 1)),
    step: signedStep(0.6, 0.05),
  },
  bind: (model, _solver, test, field) => {
    const { alternating } = model.compiled;
    const [i, j] = electricalPair(model, test, field);
    const loadOhms = test.meter?.loadOhms ?? METER_OHMS;
    const size = alternating[i] === 1 || alternating[j] === 1;
    return [{ mode: 'live' }, (world) => predicted(world, i, j, loadOhms, size)];
  },
});

function predicted(world: World, i: number, j: number, loadOhms: number, size: boolean): Prediction {
  const open = world.changed.pairVolts(i, j);
  // Nothing ties the pair together: the meter itself pulls it to about zero.
  if (Number.isNaN(open)) return { type: 'number', mean: 0, sigma: FLOATING_VOLTS, loose: true };
  const source = world.changed.pairOhms(i, j);
  const mean = ((size ? Math.abs(open) : open) * loadOhms) / (loadOhms + source);
  // A point behind megohms: real meters read it, but every damp plug moves it.
  const ghost = source > GHOST_SHARE * loadOhms;
  const scatter = voltsScatter(world, i, j);
  const sigma = ghost ? Math.hypot(scatter, 0.25 * Math.abs(mean)) : scatter;
  const common = voltsCommon(world, i, j);
  const due: Prediction = { type: 'number', mean, sigma, loose: world.chatters };
  if (common) due.common = common;
  if (limitedBranches(world).length === 0) return due;
  const off = open - limitedVolts(world, i, j);
  const shut = ((size ? Math.abs(off) : off) * loadOhms) / (loadOhms + source);
  return { ...due, instead: { mean: shut, sigma: 0 } };
}
