import type { Branch } from '../circuit/compile';
import type { CircuitModel } from '../circuit/model';
import type { Setup } from '../circuit/schema';
import { findPart } from '../circuit/situation';
import { branchAmps } from '../circuit/world';
import { InputError } from '../circuit/inputError';
import type { Edit } from '../circuit/edits';
import { holdAmps, pullInAmps } from '../kinds/part/coil';
import type { CoilSheet } from '../transient/irons';
import { pickUpOf } from '../transient/ofCircuit';
import { suppressorsOf, takesOut } from './suppressors';

/** What a coil stands behind in its circuit, once it is switched on. */
export interface CoilFeed {
  sheet: CoilSheet;
  /** At its terminals with the coil away, and what lies before it. */
  volts: number;
  sourceOhms: number;
  /** What its current may run on through when it is switched off. */
  suppression: Suppression;
}

export type Suppression =
  { by: 'diode'; ohms: number } | { by: 'resistor'; ohms: number } | { by: 'nothing' };

/** Coils whose current has a course in time here: on direct volts, and switched on by the set-up. */
export function coilFeed(
  model: CircuitModel,
  ref: string,
  setup: Setup,
  edits: readonly Edit[] = [],
): CoilFeed {
  const { compiled } = model;
  const index = findPart(compiled, ref, 'part');
  const { part, branches } = compiled.parts[index]!;
  const own = branches.find(({ role }) => role === 'body');
  if ((part.kind !== 'coil' && part.kind !== 'relay') || !own)
    throw new InputError('part', `"${ref}" is a ${part.kind}; a coil or relay draws such a trace`);
  if (own.reactance > 0 || compiled.alternating[own.a] === 1)
    throw new InputError(
      'part',
      `"${ref}" is on alternating volts; its current has no course in time here yet`,
    );
  const situation = model.situation(setup);
  const world = situation.solve({ mode: 'live' }, edits);
  const amps = Math.abs(branchAmps(world, own.index));
  const away: Edit = { type: 'ohms', branch: own.index, ohms: Infinity };
  // What feeds it may be held by it (a relay's own contact): then it is solved as it stands.
  const volts = Math.abs(situation.solve({ mode: 'live' }, [...edits, away]).changed.pairVolts(own.a, own.b));
  const loaded = Math.abs(world.changed.pairVolts(own.a, own.b));
  const sheet: CoilSheet = {
    ohms: own.ohms,
    watts: (own.volts * own.volts) / own.ohms,
    pull:
      part.kind === 'coil'
        ? pullInAmps(own, part)
        : pickUpOf(situation.situation, own.index).pickUp / own.ohms,
    hold:
      part.kind === 'coil'
        ? holdAmps(own, part)
        : pickUpOf(situation.situation, own.index).dropOut / own.ohms,
    henries: part.henries,
  };
  return {
    sheet,
    volts: Number.isNaN(volts) ? loaded : volts,
    sourceOhms: amps > 0 ? Math.max((volts - loaded) / amps, 0) : 0,
    suppression: suppressionOf(model, own, edits),
  };
}

function suppressionOf({ compiled }: CircuitModel, own: Branch, edits: readonly Edit[]): Suppression {
  for (const { index, part, ohms } of suppressorsOf(compiled, own)) {
    if (edits.some((edit) => takesOut(edit, index))) continue;
    return { by: compiled.parts[part]!.part.kind === 'diode' ? 'diode' : 'resistor', ohms };
  }
  return { by: 'nothing' };
}
