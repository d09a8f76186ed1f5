import type { CircuitModel } from '../circuit/model';
import type { Setup, Test } from '../circuit/schema';
import { isGroundStud } from '../diagnosis/setApart';
import type { EntryOf } from '../job/entries';

/** What a set-up puts into a machine that must come out of it again, as lines of the ledger. */
export type PutIn = Pick<EntryOf<'ledger'>['body'], 'item' | 'kind' | 'minutes' | 'puts'>;

/** A bridge is for one reading: after this it is over its time, minutes. */
const BRIDGE_MINUTES = 10;

/** Bridges, lifted ends, lines that are off, stopped openings and bench supplies of a set-up. A plug that is off shows by itself. */
export function putIn({
  jumpers = [],
  lifted = [],
  open = [],
  plugged = [],
  energised = [],
}: Setup): PutIn[] {
  return [
    ...jumpers.map(([from, to]): PutIn => ({
      item: `Bridge ${from} to ${to}`,
      kind: 'jumper',
      minutes: BRIDGE_MINUTES,
      puts: { jumpers: [[from, to]] },
    })),
    ...lifted.map(({ part, node }): PutIn => ({
      item: `${part} off ${node}`,
      kind: 'lifted',
      puts: { lifted: [{ part, node }] },
    })),
    ...open.map((node): PutIn => ({
      item: `Line off ${node}`,
      kind: 'lifted',
      puts: { open: [node] },
    })),
    ...plugged.map((node): PutIn => ({
      item: `Plug in ${node}`,
      kind: 'plug',
      puts: { plugged: [node] },
    })),
    ...energised.map((part): PutIn => ({
      item: `Bench supply on ${part}`,
      kind: 'other',
      minutes: BRIDGE_MINUTES,
      puts: { energised: [part] },
    })),
  ];
}

/** The same of a reading that was taken: a hand pump closes the end that it sits on, and goes with whoever holds it. */
export function putInBy({ kind, setup }: Pick<Test, 'kind' | 'setup'>): PutIn[] {
  return putIn(kind === 'hold' ? { ...setup, plugged: [] } : setup);
}

/** A plug, or the lead of a ground stud, that is off for a whole run of tests: it stands in the ledger until it is back on. */
export function offPlug(model: CircuitModel, connector: string): PutIn {
  return {
    item: isGroundStud(model, connector) ? `Lead off ${connector}` : `Plug ${connector} off`,
    kind: 'lifted',
    puts: { unplugged: [connector] },
  };
}
