import type { CircuitModel } from '../../circuit/model';
import type { Reading } from '../../circuit/schema';
import type { ContactVerdict } from '../contacts/contacts';
import type { BankRow } from './bankRows';
import { figure, sizeOf, volts, type SheetCell } from './jobSheet';
import { isFedAtRest, restCell, rivalsOf } from './rivals';
import type { SheetVerdicts } from './verdicts';

export type BankVerdict = SheetVerdicts['contacts'];

/** Of the drop that the drawing gives: a load draws a little more today, and a meter shows a little more. */
const AS_DRAWN = 1.1;

/** What the sheet says of a row, as far as the row has what that takes. */
export function bankVerdict(verdict: ContactVerdict | null, row: BankRow): BankVerdict | null {
  const { cells, open, fed } = row;
  const { click, load, openAlone } = cells;
  if (verdict === null && click?.value === false && fed === false) return 'notFed';
  if ((verdict === 'bad' || verdict === 'worn') && mayDrawMore(row)) return 'mayDrawMore';
  if (verdict !== 'good' && verdict !== 'worn') return verdict;
  // What the drawn contact loses by itself is no wear, whatever stands in the table.
  const isWorn = verdict === 'worn' && !losesAsDrawn(row);
  if (!isWorn && currentShare(row) > MORE_SHARE) return 'moreDrawn';
  // Read closed as it stands, and no end of it can be bared to see whether that came round about.
  if (open.own === undefined && figure(open.quick) !== undefined && openAlone === null) return 'elsewhere';
  // A weak load draws less, and little is lost at little.
  if (load?.value === 'weak' && volts(cells.amps) === undefined) return null;
  // One that has welded carries its load, too.
  if (open.quick !== null && open.own === undefined) return 'carries';
  return isWorn ? 'worn' : 'good';
}

/** From this share of what the drawing sends through a contact on more flows than its load draws. */
const MORE_SHARE = 1.25;

/** What flows of what the drawing says, by a clamp; once that where none was put on. */
function currentShare({ cells: { amps } }: BankRow): number {
  const read = volts(amps);
  return amps === null || read === undefined ? 1 : read / sizeOf(amps.expected);
}

/** Of what it loses by the drawing, what it was read to lose, at the current that the drawing has. */
function lossShare(row: BankRow): number | undefined {
  const { dropVolts } = row.cells;
  const read = volts(dropVolts);
  return dropVolts === null || read === undefined
    ? undefined
    : read / sizeOf(dropVolts.expected) / currentShare(row);
}

function losesAsDrawn(row: BankRow): boolean {
  const share = lossShare(row);
  return share !== undefined && share <= AS_DRAWN;
}

/** What loses too much may lose it for what flows, as long as nobody clamped it; not where a fuse would not have let so much through. */
function mayDrawMore(row: BankRow): boolean {
  const loss = lossShare(row);
  return (
    volts(row.cells.amps) === undefined && loss !== undefined && loss > AS_DRAWN && loss <= row.mostDrawn
  );
}

const relayOf = (name: string) => name.split(' ')[0]!;

/** Why one that is fed stays silent, as far as its rivals were read. */
interface Silence {
  verdict: 'mechanical' | 'heldOff' | null;
  /** What stands across a rival's coil at rest: of the first that was not read, or that is fed. */
  rivalAtRest: SheetCell | null;
  /** Rows of rivals whose open contacts were not read. */
  unread: readonly string[];
}

export function silenceOf(
  model: CircuitModel,
  { cells: { click } }: BankRow,
  found: readonly BankRow[],
  readings: readonly Reading[],
): Silence {
  const test = click?.test;
  if (test?.kind !== 'click') return { verdict: 'mechanical', rivalAtRest: null, unread: [] };
  const rivals = rivalsOf(model, test).map((part) => {
    const cell = restCell(model, part, test, readings);
    return { ref: part.part.ref, cell, fed: isFedAtRest(part, cell) };
  });
  const fed = rivals.find((one) => one.fed);
  if (fed) return { verdict: 'heldOff', rivalAtRest: fed.cell, unread: [] };
  const ofRivals = found.filter(
    ({ name, open }) => open.quick !== null && rivals.some(({ ref }) => ref === relayOf(name)),
  );
  const unread = ofRivals.filter(({ open }) => open.own === undefined).map(({ name }) => name);
  const open = rivals.find(({ cell, fed: known }) => cell !== null && known === null);
  const isWelded = ofRivals.some(({ open: { own } }) => own !== undefined && isClosed(own));
  return {
    verdict: open || isWelded || unread.length > 0 ? null : 'mechanical',
    rivalAtRest: (open ?? rivals.find(({ cell }) => cell !== null))?.cell ?? null,
    unread: open ? [] : unread,
  };
}

/** An open contact that reads less leads somewhere, ohms. */
const LEADS_OHMS = 1e5;

function isClosed(ohms: number | 'OL'): boolean {
  return ohms !== 'OL' && ohms < LEADS_OHMS;
}
