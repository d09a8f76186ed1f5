import { pressurePrediction } from '../../diagnosis/predictFluid';
import { signedStep, SPECIFICATION_SIGMA } from './meters';
import { defineReading, type Meter } from './module';

/** Full scales of pressure gauges, kPa. A gauge is good to a share of its scale (EN 837 class 1.6). */
const GAUGE_SCALES = [100, 400, 1000, 4000, 10_000, 25_000, 40_000];
const GAUGE_CLASS = 0.016;

/** Standard deviation of a gauge at a pressure, kPa. */
export function gaugeSigma(size: number, meter: Meter): number {
  const own = meter?.accuracyPercent;
  const scale = GAUGE_SCALES.find((most) => size <= most) ?? size;
  return SPECIFICATION_SIGMA * (own === undefined ? GAUGE_CLASS * scale : (own / 100) * size);
}

/** Density of a gauge that was misread. */
export function gaugeMistake(kPa: number): number {
  return 0.12 / (Math.abs(kPa) + 20);
}

export const pressure = defineReading<'pressure'>()({
  dead: false,
  mechanical: true,
  school: null,
  minutes: 0.4,
  mistakeRate: 0.02,
  shows: {
    is: 'figure',
    quantity: 'pressure',
    over: Infinity,
    unsigned: false,
    leastSigma: 0,
    withSupply: false,
    meterSigma: gaugeSigma,
    mistakeDensity: (value) => gaugeMistake(Number(value)),
    step: signedStep(30, 0.06),
  },
  bind: (model, _solver, { at }, field) => [{ mode: 'live' }, pressurePrediction(model, at, `${field}.at`)],
});
