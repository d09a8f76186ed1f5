import { InputError } from '../../circuit/inputError';
import { mediumOf } from '../../circuit/medium';
import { fluidNode } from '../../circuit/situation';
import type { World } from '../../circuit/world';
import { soft } from '../../diagnosis/prediction';
import { defineReading } from './module';

/**
 * Way out through which about a tenth of what is shut in is lost in a minute, kPa per L/min: an actuator and its line hold some three
 * tenths of a litre, and their pressure falls as `exp(−t / RC)` with C that volume over the atmosphere's pressure. Nobody has measured
 * the volume, so it is no sharp line.
 */
const LOSES_A_TENTH = 3000;
const ABOUT = 0.8;

/** Vacuum by a hand pump, or air over a cock, into what is left on a place; shut in and watched for a minute. */
export const hold = defineReading<'hold'>()({
  dead: false,
  mechanical: true,
  school: null,
  minutes: 1.5,
  mistakeRate: 0.02,
  shows: { is: 'choice', choices: 2, valueOf: (key) => key as 'holds' },
  bind: (model, solver, { at }, field) => {
    const { compiled } = model;
    const node = fluidNode(compiled, at, `${field}.at`);
    if (mediumOf(model) === 'oil')
      throw new InputError(`${field}.at`, `oil at "${at}" gives at once whatever leaks; read a gauge`);
    const wayOut = (world: World) => world.changed.pairOhms(node, compiled.atmosphere);
    if (wayOut(solver.solve({ mode: 'live' })) < LOSES_A_TENTH)
      throw new InputError(
        `${field}.at`,
        `"${at}" is open in this set-up; take the line off behind which nothing is meant to get out`,
      );
    return [
      { mode: 'live' },
      (world) => {
        const out = wayOut(world);
        const holds = Number.isFinite(out) ? soft(Math.log(Math.max(out, 1e-6) / LOSES_A_TENTH), ABOUT) : 1;
        return { type: 'choice', odds: { holds, falls: 1 - holds } };
      },
    ];
  },
});
