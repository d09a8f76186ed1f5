import type { CircuitModel } from '../../circuit/model';
import type { Reading } from '../../circuit/schema';
import { kindOf } from '../../kinds/part';
import { contactVerdict } from '../terminals/terminals';
import {
  cellOf,
  figure,
  firstOpen,
  nameOf,
  pickBetween,
  type JobSheet,
  type SheetCell,
  type SheetRow,
} from './jobSheet';

/** A closed contact of the sound circuit shows no more than this, ohms. */
const CLOSED_OHMS = 2;
/** Branches of a part that are contacts. */
const CONTACTS = ['body', 'made', 'resting'] as const;
/** And an open one at least so much through whatever lies across it. */
const OPEN_OHMS = 10;
/** From this share of what lies across it a contact is open. */
const ACROSS_SHARE = 0.7;
/** What says most of a contact, of its two readings. */
const WORST = ['welded', 'open', 'weak', 'elsewhere'] as const;

/** The truth table: every contact of relays and switches in the state in which it should be open, and in the one in which it should be closed. */
export function terminalsSheetOf(model: CircuitModel, readings: readonly Reading[]): JobSheet | null {
  const contacts = model.compiled.parts.flatMap((own) => {
    const { part, branches } = own;
    if (part.kind !== 'relay' && !kindOf(part).traits.contact) return [];
    return branches
      .filter(({ role }) => (CONTACTS as readonly string[]).includes(role))
      .filter(({ role }) => part.kind !== 'relay' || role !== 'body')
      .map(({ a, b }) => ({ part, between: [nameOf(model, a), nameOf(model, b)] as const }));
  });
  const rows = contacts.flatMap(({ part, between }): SheetRow[] => {
    const open = cellOf(
      model,
      pickBetween(model, 'ohms', between, (_test, one) => sizeOf(one) > OPEN_OHMS),
      readings,
    );
    const closed = cellOf(
      model,
      pickBetween(model, 'ohms', between, (_test, one) => sizeOf(one) <= CLOSED_OHMS),
      readings,
    );
    const cells = [open, closed];
    if (cells.every((cell) => cell === null)) return [];
    // What lies across an open contact shows instead of it.
    const across = open ? sizeOf(open.expected) : Infinity;
    const verdicts = [verdictOf(open, false, across), verdictOf(closed, true, across)];
    const worst = WORST.find((verdict) => verdicts.includes(verdict));
    const all = verdicts.every((verdict, at) => verdict === 'good' || cells[at] === null);
    return [
      { name: `${part.ref} ${between.join('–')}`, between, cells, verdict: worst ?? (all ? 'good' : null) },
    ];
  });
  if (rows.length === 0) return null;
  return {
    name: 'terminals',
    columns: ['shouldBeOpen', 'shouldBeClosed'],
    rows,
    // A contact that is found bad needs no second reading.
    next: firstOpen(
      rows.map((row) => (row.verdict === null ? row : { ...row, cells: row.cells.map(() => null) })),
    ),
    answers: [],
  };
}

function sizeOf(value: Reading['value']): number {
  return value === 'OL' ? Infinity : typeof value === 'number' ? Math.abs(value) : NaN;
}

/** A contact by what was read over it, where `across` shows while it is open. */
function verdictOf(
  cell: SheetCell | null,
  shouldClose: boolean,
  across: number,
): ReturnType<typeof contactVerdict> | 'elsewhere' | null {
  const value = figure(cell);
  if (value === undefined) return null;
  const isOpen = sizeOf(value) >= ACROSS_SHARE * across;
  const verdict = contactVerdict(isOpen ? 'OL' : value, shouldClose);
  // Over one that should be open some ohms come as well round about, through another contact that is closed and its load.
  return verdict === 'weak' && !shouldClose ? 'elsewhere' : verdict;
}
