import { digitalSigma, resistanceShown } from './meters';
import { defineReading } from './module';
import { electricalPair, measuredOhms, refusePowered } from './places';

/** Above this a tester shows over-range (contract). */
export const INSULATION_OVER = 2e9;
/** Share of mistaken readings that show over-range. Shop rule. */
const MISTAKE_OVER = 0.3;
const RANGES = [6e5, 6e6, 6e7, 6e8, 6e9];
const SCATTER_SHARE = 0.03;

export const insulation = defineReading<'insulation'>()({
  dead: true,
  mechanical: false,
  school: null,
  minutes: 2,
  mistakeRate: 0.02,
  shows: resistanceShown(INSULATION_OVER, MISTAKE_OVER, (size, meter) => digitalSigma(RANGES, size, meter)),
  bind: (model, solver, test, field) => {
    const pair = electricalPair(model, test, field);
    refusePowered(model, solver, pair, test.kind, field);
    const [i, j] = pair;
    return [
      { mode: 'insulation', from: i, to: j, testVolts: test.testVolts },
      (world) => {
        // The tester is part of the network: divide its volts by the current it delivers.
        const volts = world.changed.pairVolts(i, j);
        const { siemens, emf } = world.meter!;
        const amps = siemens * (emf - volts);
        const own = amps > 0 && Number.isFinite(volts) ? volts / amps : Infinity;
        return measuredOhms(own, { sigma: SCATTER_SHARE * own }, INSULATION_OVER);
      },
    ];
  },
});
