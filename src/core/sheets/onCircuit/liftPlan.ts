import type { CircuitModel } from '../../circuit/model';
import { countsAsElectronic } from '../../safety/electronics';
import { offPlug, putIn, type PutIn } from '../../safety/putIn';
import type { JobSheet } from './jobSheet';

/** Something that is taken off so that a tester harms nothing and reads one conductor alone. */
export interface OffLine {
  /** As the ledger keeps it: what goes back on afterwards. */
  body: PutIn;
  /** Places of the sheet that are read with it off. */
  places: number;
}

export interface LiftPlan {
  /** What comes off for most places first. */
  off: OffLine[];
  /** Parts that no test voltage may reach; none of the sheet's set-ups leaves one in reach. */
  electronic: string[];
  /** Places that can be read with what is off already, of all that are open. */
  ready: number;
  open: number;
}

/**
 * What comes off before a sheet's open places are read, each thing once. `isOff` are items of the ledger that are in. Null where
 * nothing has to come off.
 */
export function liftPlan(model: CircuitModel, sheet: JobSheet, isOff: ReadonlySet<string>): LiftPlan | null {
  const open = sheet.rows.flatMap(({ cells }) =>
    cells.filter((cell) => cell !== null && cell.value === null),
  );
  const needs = open.map((cell) => {
    const { setup } = cell!.test;
    return [...(setup.unplugged ?? []).map((connector) => offPlug(model, connector)), ...putIn(setup)];
  });
  const lines = new Map<string, OffLine>();
  for (const bodies of needs)
    for (const body of bodies) {
      const known = lines.get(body.item);
      if (known) known.places++;
      else lines.set(body.item, { body, places: 1 });
    }
  if (lines.size === 0) return null;
  return {
    off: [...lines.values()].sort((a, b) => b.places - a.places),
    electronic: model.compiled.parts
      .filter(({ part }) => countsAsElectronic(part))
      .map(({ part }) => part.ref),
    ready: needs.filter((bodies) => bodies.every(({ item }) => isOff.has(item))).length,
    open: open.length,
  };
}
