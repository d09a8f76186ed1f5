import { isAssumed } from '../../circuit/assumed';
import { InputError } from '../../circuit/inputError';
import type { Edit } from '../../circuit/edits';
import { gaugeMistake, gaugeSigma } from './pressure';
import { signedStep } from './meters';
import { defineReading } from './module';
import { partOf, refusePowered } from './places';

/** A contact that reads more than this is taken for open by who listens to the beep, ohms. */
const BEEPS_OHMS = 100;
/** Points of a sound switch lie this share off what is written on it, one standard deviation (verify; the maker's figure goes before). */
const SCATTER_SHARE = 0.06;
/** The same where nobody has said what is written on it. */
const NOT_SAID_SHARE = 1;
/** More than any hand pump gives, kPa: over it the contact counts as one that does not change at all. */
const PUMP_KPA = 1e5;

/**
 * A pressure switch with its line off, a hand pump and a gauge on its port and the meter on its contact: where it changes over as the
 * pressure (or the vacuum) grows, or as it is let go again.
 */
export const changes = defineReading<'changes'>()({
  dead: true,
  mechanical: false,
  school: null,
  minutes: 2,
  mistakeRate: 0.02,
  shows: {
    is: 'figure',
    quantity: 'pressure',
    over: PUMP_KPA,
    unsigned: false,
    leastSigma: 0,
    withSupply: false,
    meterSigma: gaugeSigma,
    mistakeDensity: (value) => (value === 'OL' ? 0.1 : gaugeMistake(Number(value))),
    step: signedStep(30, 0.06),
  },
  bind: (model, solver, { part: ref, edge }, field) => {
    const mend = 'only a pressure switch changes over with pressure';
    const { part, branches, index } = partOf(model, solver, ref, field, ['pressureSwitch'], mend);
    const contact = branches[0]!;
    const { a, b } = solver.situation;
    refusePowered(model, solver, [a[contact.index]!, b[contact.index]!], 'changes', field);
    // On its line the pump would fill all that hangs there, and its gauge would show the supply's.
    if (!solver.situation.setup.lifted?.some((one) => one.part === ref && one.node === part.nodes.port))
      throw new InputError(
        field,
        `"${ref}" is read with its line off "${part.nodes.port}" and a pump on its port`,
      );
    const points = [part.makeKPa, part.breakKPa].sort((one, other) => Math.abs(one) - Math.abs(other));
    const kPa = points[edge === 'rising' ? 1 : 0]!;
    const scatter = isAssumed(part, 'makeKPa') ? NOT_SAID_SHARE : SCATTER_SHARE;
    const follows = (edit: Edit) =>
      !(edit.type === 'force' && edit.branch === contact.index) &&
      !(edit.type === 'ohms' && edit.branch === contact.index && edit.ohms > BEEPS_OHMS);
    return [
      { mode: 'live' },
      (_world, edits) => {
        if (!edits.every(follows)) return { type: 'number', mean: Infinity, sigma: 0, loose: false };
        const moved = edits.find((edit) => edit.type === 'threshold' && edit.part === index);
        const mean = kPa * (moved?.type === 'threshold' ? moved.factor : 1);
        return { type: 'number', mean, sigma: scatter * Math.abs(mean), loose: false };
      },
    ];
  },
});
