import type { CircuitModel } from '../../circuit/model';
import type { World } from '../../circuit/world';
import { ohmsScatter } from '../../diagnosis/scatter';
import { DEFAULT_METER, digitalSigma, resistanceShown } from './meters';
import { defineReading, type Meter } from './module';
import { electricalPair, measuredOhms, refusePowered } from './places';

/** Above this a meter shows over-range (contract). */
export const OHMS_OVER = 6e7;
/** Share of mistaken readings that show over-range: mostly a probe does not touch. Shop rule. */
const MISTAKE_OVER = 0.5;
const RANGES = [600, 6e3, 6e4, 6e5, 6e6, 6e7];

function sigma(size: number, meter: Meter): number {
  const own = digitalSigma(RANGES, size, meter);
  // Leads that are still in the reading are known to a tenth.
  const leads = 0.1 * (meter?.leadOhms ?? DEFAULT_METER.leadOhms);
  return leads === 0 ? own : Math.hypot(own, leads);
}

export const ohms = defineReading<'ohms'>()({
  dead: true,
  mechanical: false,
  school: 'resistanceFirst',
  minutes: 0.5,
  mistakeRate: 0.03,
  shows: resistanceShown(OHMS_OVER, MISTAKE_OVER, sigma),
  bind: (model, solver, test, field) => {
    const pair = electricalPair(model, test, field);
    refusePowered(model, solver, pair, test.kind, field);
    const [i, j] = pair;
    return [
      { mode: 'ohms' },
      (world, edits) => {
        const due = shownOhms(model, world, i, j);
        if (!model.compiled.restUnsaid) return due;
        const rested = shownOhms(model, solver.solve({ mode: 'resting' }, edits), i, j);
        // What lies between is all the same: a filament that is warm still, a rotor that turns on.
        return due.mean === Infinity || rested.mean > SAME_SHARE * due.mean
          ? due
          : { ...due, instead: rested };
      },
    ];
  },
});

/** Above this share of what it has at work, a pair reads the same at rest. */
const SAME_SHARE = 0.97;

const NONE = { sigma: 0 };

function shownOhms(model: CircuitModel, world: World, i: number, j: number) {
  const own = world.changed.pairOhms(i, j);
  return measuredOhms(own, own > OHMS_OVER ? NONE : ohmsScatter(model, world, i, j), OHMS_OVER);
}
