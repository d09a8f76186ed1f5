import type { Branch } from '../../circuit/compile';
import type { CircuitModel } from '../../circuit/model';
import { workingPatterns } from '../../diagnosis/patterns';
import type { Reading, Setup, Test } from '../../circuit/schema';
import { seenWork } from '../../job/seenWork';
import type { ShopMarks } from '../../tables/marks';
import { heldAgainst } from '../heldAgainst';
import { judgeContacts, type ContactsSheet, type ContactVerdict } from '../contacts/contacts';
import { aloneCell } from './coilSheet';
import { loadedPattern } from './loadedPattern';
import { openContactOf, type OpenContact } from './openContact';
import {
  cellOf,
  figure,
  hangsOn,
  HEAD,
  isBare,
  nameOf,
  pickBetween,
  pickOf,
  sizeOf,
  underCommand,
  volts,
  withoutColumns,
  type JobSheet,
  type SheetCell,
  type SheetRow,
} from './jobSheet';

/** A drop across a closed contact is no more than this share of its circuit, on the sound machine. */
const CLOSED_SHARE = 0.1;

/** Relays and contactors beside each other: click, what feeds the coil, the coil, the contact both ways, and its drop under load. */
export function contactsSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
  marks: ShopMarks,
): JobSheet | null {
  const { compiled } = model;
  const patterns = workingPatterns(model);
  const lineVolts = Math.max(...compiled.branches.map((branch) => branch.volts), 0) || undefined;
  const found = compiled.parts.flatMap((own) => {
    const { part, branches } = own;
    if (part.kind !== 'relay') return [];
    const coil = branches[0]!;
    const clicks = pickOf(model, 'click', part.ref, (_test, expected) => expected === true);
    const commanded = clicks?.setup ?? loadedPattern(model, patterns, coil.index)?.setup;
    const click = cellOf(model, clicks, readings);
    const coilVolts = commanded ? cellOf(model, coilVoltsTest(model, coil, commanded), readings) : null;
    const coilOhms = aloneCell(model, own, readings);
    return branches
      .filter(({ role }) => role === 'made')
      .map((contact): BankRow => {
        const place = [nameOf(model, contact.a), nameOf(model, contact.b)] as const;
        const held = (test: Test) => test.setup.energised?.includes(part.ref) ?? false;
        const closed = cellOf(
          model,
          pickBetween(model, 'ohms', place, (test) => held(test)),
          readings,
        );
        const open = openContactOf(
          model,
          own,
          contact,
          cellOf(
            model,
            pickBetween(model, 'ohms', place, (test, expected) => !held(test) && expected === 'OL'),
            readings,
          ),
          readings,
        );
        const loaded = loadedPattern(model, patterns, contact.index);
        const drop = loaded
          ? cellOf(model, dropTest(model, place, loaded.setup, contact.volts), readings)
          : null;
        return {
          name: `${part.ref} ${place[0]}–${place[1]}`,
          between: place,
          cells: {
            click,
            load: loaded ? cellOf(model, loadTest(model, contact, loaded.setup), readings) : null,
            coilVolts,
            coilOhms,
            openOhms: open.quick,
            openAlone: open.alone,
            closedOhms: closed,
            dropVolts: drop,
          },
          open,
          fed: isFed(coilVolts, coil, marks),
          amps: loaded?.amps,
        };
      });
  });
  if (found.length === 0) return null;
  const sheet: ContactsSheet = {
    ...HEAD,
    sheet: 'contacts',
    contactors: found.map((row) => contactorOf(row, lineVolts)),
    leadOhms: 0,
    school: undefined,
    lineVolts,
    directions: undefined,
    poles: undefined,
    needs: undefined,
    spares: undefined,
    onSeconds: undefined,
    cycleSeconds: undefined,
    dutyShare: undefined,
  };
  const answer = judgeContacts(sheet, marks);
  const said = found.map((row) => verdictOf(answer.verdicts[row.name] ?? null, row));
  const rows = found.map((row, at): SheetRow => ({
    name: row.name,
    between: row.between,
    cells: BANK_COLUMNS.map((column) => row.cells[column]),
    verdict: said[at] === 'mechanical' && isHeldOff(row, found) ? null : said[at]!,
  }));
  // Somebody's silence may be another's weld: those are read before anybody is called stuck.
  const silenced = found.flatMap(({ name }, at) => (said[at] === 'mechanical' ? [relayOf(name)] : []));
  const mayHold = new Set(
    found.flatMap((row) =>
      silenced.some((ref) => ref !== relayOf(row.name)) &&
      row.open.quick !== null &&
      row.open.own === undefined
        ? [row.name]
        : [],
    ),
  );
  const whole: JobSheet = {
    name: 'contacts',
    columns: [...BANK_COLUMNS],
    rows,
    next: nextContact(
      rows,
      mayHold,
      new Set(found.flatMap(({ name, open }) => (open.wantsAlone ? [name] : []))),
    ),
    answers: [answer],
    held: heldAgainst(sheet, answer, marks),
  };
  return withoutColumns(whole, ASKED_FOR);
}

/** Columns that stand only where one of their cells is asked for, or was read. */
const ASKED_FOR: readonly BankColumn[] = ['coilVolts', 'coilOhms', 'openAlone', 'closedOhms'];

const BANK_COLUMNS = [
  'click',
  'load',
  'coilVolts',
  'coilOhms',
  'openOhms',
  'openAlone',
  'closedOhms',
  'dropVolts',
] as const;
type BankColumn = (typeof BANK_COLUMNS)[number];
interface BankRow {
  name: string;
  between: readonly [string, string];
  cells: Record<BankColumn, SheetCell | null>;
  open: OpenContact;
  /** Whether its coil gets what it pulls in with; null while that is not known. */
  fed: boolean | null;
  /** What the sound machine sends through the contact. */
  amps: number | undefined;
}

/** An open contact takes at least this share of its circuit's volts, a closed one less. */
const TAKES_SHARE = 0.5;

/** A row as the sheet's document has it. What stays in for want of a feed says nothing of the contactor. */
function contactorOf(
  { name, cells, open, fed, amps }: BankRow,
  lineVolts = 0,
): ContactsSheet['contactors'][number] {
  const clicks = typeof cells.click?.value === 'boolean' ? cells.click.value : undefined;
  const drop = volts(cells.dropVolts);
  const pulls = clicks ?? fed ?? false;
  const dropVolts = drop !== undefined && (pulls || drop < TAKES_SHARE * lineVolts) ? drop : undefined;
  const load = cells.load?.value;
  return {
    name,
    clicks: clicks === false && fed !== true ? undefined : clicks,
    coilOhms: figure(cells.coilOhms),
    closedOhms: figure(cells.closedOhms),
    openOhms: open.own,
    dropVolts,
    drops: undefined,
    // While its load runs it carries what the sound machine does; of a dead one nobody knows that anything flows.
    atAmps: dropVolts !== undefined && (load === 'works' || load === 'weak') ? amps : undefined,
    ratedAmps: amps,
  };
}

/** Whether what stands at a coil is what it must pull in with; null while nothing was read. */
function isFed(cell: SheetCell | null, { reactance }: Branch, { coilVolts }: ShopMarks): boolean | null {
  const read = volts(cell);
  if (cell === null || read === undefined) return null;
  return read >= coilVolts[reactance > 0 ? 'contactorAC' : 'contactorDC'].pullIn * sizeOf(cell.expected);
}

export type BankVerdict = ContactVerdict | 'carries' | 'notFed' | 'elsewhere';
/** Of the drop that the drawing gives: a load draws a little more today, and a meter shows a little more. */
const AS_DRAWN = 1.1;
/** Said of contactors that nothing is wrong with, as far as was read. */
const NOTHING_WRONG: readonly string[] = ['good', 'worn', 'carries'] satisfies BankVerdict[];

/** What the sheet says of a row, as far as the row has what that takes. */
function verdictOf(
  verdict: ContactVerdict | null,
  { cells: { click, load, openAlone, dropVolts }, open, fed }: BankRow,
): BankVerdict | null {
  if (verdict === null && click?.value === false && fed === false) return 'notFed';
  if (verdict !== 'good' && verdict !== 'worn') return verdict;
  // Read closed as it stands, and no end of it can be bared to see whether that came round about.
  if (open.own === undefined && figure(open.quick) !== undefined && openAlone === null) return 'elsewhere';
  // A weak load draws less, and little is lost at little.
  if (load?.value === 'weak') return null;
  // One that has welded carries its load, too.
  if (open.quick !== null && open.own === undefined) return 'carries';
  const drop = volts(dropVolts);
  // What the drawn contact loses by itself is no wear, whatever stands in the table.
  const asDrawn = dropVolts && drop !== undefined && drop <= AS_DRAWN * sizeOf(dropVolts.expected);
  return asDrawn ? 'good' : verdict;
}

const relayOf = (name: string) => name.split(' ')[0]!;

/**
 * Whether a contactor may be silent for another's sake: with that one welded it would close a short, its supply falls away and it drops out again
 * before anybody hears it. So it may while any other of the bank was not read open.
 */
function isHeldOff({ name }: BankRow, found: readonly BankRow[]): boolean {
  return found.some(
    (other) =>
      relayOf(other.name) !== relayOf(name) &&
      other.open.quick !== null &&
      (other.open.own === undefined || isClosed(other.open.own)),
  );
}

/** An open contact that reads less leads somewhere, ohms. */
const LEADS_OHMS = 1e5;

function isClosed(ohms: number | 'OL'): boolean {
  return ohms !== 'OL' && ohms < LEADS_OHMS;
}

/** Verdicts that say what is still to be read. */
const WANTS_MORE: readonly string[] = ['needsLoad', 'carries'] satisfies BankVerdict[];

/** Every free look first. Of what clicks the drop under load and the open contact, of what does not what feeds it, and its coil. */
function nextContact(
  rows: readonly SheetRow[],
  mayHold: ReadonlySet<string>,
  wantsAlone: ReadonlySet<string>,
): JobSheet['next'] {
  const asked = ({ name, cells, verdict }: SheetRow, column: BankColumn): boolean => {
    const cell = cells[BANK_COLUMNS.indexOf(column)];
    if (cell === null || cell?.value !== null) return false;
    // Of one that carries only its letting go is open.
    const isOpening = column === 'openOhms' || column === 'openAlone';
    if (isOpening && mayHold.has(name)) return true;
    if (verdict === 'carries') return isOpening;
    return verdict === null || verdict === 'needsLoad';
  };
  const found = rows.some(
    ({ verdict }) => verdict !== null && !WANTS_MORE.includes(verdict) && !NOTHING_WRONG.includes(verdict),
  );
  const silent = ({ cells }: SheetRow) => cells[0]?.value === false;
  const turns: readonly [BankColumn, (row: SheetRow) => boolean][] = [
    ['click', () => true],
    ['coilVolts', silent],
    ['coilOhms', silent],
    ['load', (row) => !silent(row)],
    ['dropVolts', (row) => !silent(row)],
    // Once one is found, that another lets go is not worth making the machine dead for.
    ['openOhms', (row) => mayHold.has(row.name) || (!silent(row) && !found)],
    ['openAlone', ({ name }) => wantsAlone.has(name)],
    ['closedOhms', (row) => !silent(row)],
    ['coilVolts', ({ cells }) => cells[0] === null],
    ['coilOhms', ({ cells }) => cells[0] === null],
  ];
  for (const [column, fits] of turns) {
    const row = rows.findIndex((one) => fits(one) && asked(one, column));
    if (row >= 0) return [row, BANK_COLUMNS.indexOf(column)];
  }
  return null;
}

/** Volts across a coil under a command that feeds it. */
function coilVoltsTest(model: CircuitModel, { a, b }: Branch, setup: Setup): Test | null {
  const commanded = underCommand(setup);
  return pickBetween(
    model,
    'volts',
    [nameOf(model, a), nameOf(model, b)],
    (test, expected) => commanded(test) && isBare(test) && sizeOf(expected) > 1,
  );
}

/** A look at the load that a contact carries, in the command that sends most through it. */
function loadTest(model: CircuitModel, { index }: Branch, setup: Setup): Test | null {
  const commanded = underCommand(setup);
  const found = seenWork(model)
    .map(({ ref, setup: seen }): Test => ({ kind: 'function', part: ref, setup: seen }))
    .find((test) => commanded(test) && test.setup.afterSeconds === undefined && hangsOn(model, test, index));
  return found ?? null;
}

function dropTest(
  model: CircuitModel,
  place: readonly [string, string],
  setup: Setup,
  circuitVolts: number,
): Test | null {
  const commanded = underCommand(setup);
  return pickBetween(
    model,
    'volts',
    place,
    (test, expected) =>
      commanded(test) &&
      typeof expected === 'number' &&
      Math.abs(expected) <= CLOSED_SHARE * Math.max(circuitVolts, 1),
  );
}
