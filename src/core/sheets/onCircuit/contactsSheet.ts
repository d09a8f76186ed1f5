import type { Branch } from '../../circuit/compile';
import type { CircuitModel } from '../../circuit/model';
import { workingPatterns } from '../../diagnosis/patterns';
import type { Reading, Setup, Test } from '../../circuit/schema';
import { testKey } from '../../diagnosis/observations';
import { seenWork } from '../../job/seenWork';
import type { ShopMarks } from '../../tables/marks';
import { heldAgainst } from '../heldAgainst';
import { judgeContacts, type ContactsSheet, type ContactVerdict } from '../contacts/contacts';
import { aloneCell } from './coilSheet';
import { loadedPattern } from './loadedPattern';
import { openContactOf, type OpenContact } from './openContact';
import { isFedAtRest, restCell, rivalsOf, type ClickTest } from './rivals';
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
  soundValue,
  testsOf,
  underCommand,
  volts,
  withoutColumns,
  type JobSheet,
  type SheetCell,
  type SheetRow,
} from './jobSheet';
import type { SheetVerdicts } from './verdicts';

/** A drop across a closed contact is no more than this share of its circuit, on the sound machine. */
const CLOSED_SHARE = 0.1;

/** Relays and contactors beside each other: click, what feeds the coil, the coil, the contact both ways, and its drop under load. */
export function contactsSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
  marks: ShopMarks,
): JobSheet<'contacts'> | null {
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
            amps: loaded ? cellOf(model, ampsTest(model, contact, loaded), readings) : null,
            rivalAtRest: null,
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
  // Somebody's silence may be the doing of one that is in and should not be: that is read before anybody is called stuck.
  const mayHold = new Set<string>();
  const rows = found.map((row): SheetRow<'contacts'> => {
    const said = verdictOf(answer.verdicts[row.name] ?? null, row, found);
    const silence = said === 'mechanical' ? silenceOf(model, row, found, readings) : null;
    silence?.unread.forEach((name) => mayHold.add(name));
    return {
      name: row.name,
      between: row.between,
      cells: BANK_COLUMNS.map((column) =>
        column === 'rivalAtRest' ? (silence?.rivalAtRest ?? null) : row.cells[column],
      ),
      verdict: silence ? silence.verdict : said,
    };
  });
  const whole: JobSheet<'contacts'> = {
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
const ASKED_FOR: readonly BankColumn[] = [
  'coilVolts',
  'coilOhms',
  'rivalAtRest',
  'openAlone',
  'closedOhms',
  'amps',
];

const BANK_COLUMNS = [
  'click',
  'load',
  'coilVolts',
  'coilOhms',
  'rivalAtRest',
  'openOhms',
  'openAlone',
  'closedOhms',
  'dropVolts',
  'amps',
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
  const clamped = volts(cells.amps);
  return {
    name,
    clicks: clicks === false && fed !== true ? undefined : clicks,
    coilOhms: figure(cells.coilOhms),
    closedOhms: figure(cells.closedOhms),
    openOhms: open.own,
    dropVolts,
    drops: undefined,
    // While its load runs it carries what the sound machine does, as far as nobody clamped it; of a dead one nobody knows that anything flows.
    atAmps:
      dropVolts === undefined
        ? undefined
        : (clamped ?? (load === 'works' || load === 'weak' ? amps : undefined)),
    ratedAmps: amps,
  };
}

/** Whether what stands at a coil is what it must pull in with; null while nothing was read. */
function isFed(cell: SheetCell | null, { reactance }: Branch, { coilVolts }: ShopMarks): boolean | null {
  const read = volts(cell);
  if (cell === null || read === undefined) return null;
  return read >= coilVolts[reactance > 0 ? 'contactorAC' : 'contactorDC'].pullIn * sizeOf(cell.expected);
}

type BankVerdict = SheetVerdicts['contacts'];
/** Of the drop that the drawing gives: a load draws a little more today, and a meter shows a little more. */
const AS_DRAWN = 1.1;
/** Said of contactors that nothing is wrong with, as far as was read. */
const NOTHING_WRONG: readonly string[] = ['good', 'worn', 'carries'] satisfies BankVerdict[];

/** What the sheet says of a row, as far as the row has what that takes. */
function verdictOf(
  verdict: ContactVerdict | null,
  row: BankRow,
  found: readonly BankRow[],
): BankVerdict | null {
  const { cells, open, fed } = row;
  const { click, load, openAlone } = cells;
  if (verdict === null && click?.value === false && fed === false) return 'notFed';
  if ((verdict === 'bad' || verdict === 'worn') && mayDrawMore(row, found)) return 'mayDrawMore';
  if (verdict !== 'good' && verdict !== 'worn') return verdict;
  if (currentShare(row) > MORE_SHARE) return 'moreDrawn';
  // Read closed as it stands, and no end of it can be bared to see whether that came round about.
  if (open.own === undefined && figure(open.quick) !== undefined && openAlone === null) return 'elsewhere';
  // A weak load draws less, and little is lost at little.
  if (load?.value === 'weak' && volts(cells.amps) === undefined) return null;
  // One that has welded carries its load, too.
  if (open.quick !== null && open.own === undefined) return 'carries';
  // What the drawn contact loses by itself is no wear, whatever stands in the table.
  if (verdict === 'worn' && !losesAsDrawn(row)) return 'worn';
  return 'good';
}

/** From this share of what the drawing sends through a contact on more flows than its load draws. */
const MORE_SHARE = 1.25;
/** Up to this many times the drawn current flow without opening what protects the way; what loses more is bad itself. */
const MOST_MORE = 5;

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

/** What loses too much may lose it for what flows: nobody clamped it, and no other contact of the same load shows that no more flows than should. */
function mayDrawMore(row: BankRow, found: readonly BankRow[]): boolean {
  const { load, amps } = row.cells;
  const loss = lossShare(row);
  if (volts(amps) !== undefined || loss === undefined || loss > MOST_MORE) return false;
  const sameLoad = (other: BankRow) =>
    other !== row &&
    load !== null &&
    other.cells.load !== null &&
    testKey(other.cells.load.test) === testKey(load.test);
  return !found.some((other) => sameLoad(other) && losesAsDrawn(other));
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

function silenceOf(
  model: CircuitModel,
  { cells: { click } }: BankRow,
  found: readonly BankRow[],
  readings: readonly Reading[],
): Silence {
  const test = click?.test;
  const rivals = (test?.kind === 'click' ? rivalsOf(model, test) : []).map((part) => {
    const cell = restCell(model, part, test as ClickTest, readings);
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

/** Verdicts that say what is still to be read. */
const WANTS_MORE: readonly string[] = ['needsLoad', 'carries', 'mayDrawMore'] satisfies BankVerdict[];

/** Every free look first. Of what clicks the drop under load and the open contact, of what does not what feeds it, and its coil. */
function nextContact(
  rows: readonly SheetRow<'contacts'>[],
  mayHold: ReadonlySet<string>,
  wantsAlone: ReadonlySet<string>,
): JobSheet['next'] {
  const asked = ({ name, cells, verdict }: SheetRow<'contacts'>, column: BankColumn): boolean => {
    const cell = cells[BANK_COLUMNS.indexOf(column)];
    if (cell === null || cell?.value !== null) return false;
    // Of one that carries only its letting go is open.
    const isOpening = column === 'openOhms' || column === 'openAlone';
    if (isOpening && mayHold.has(name)) return true;
    if (verdict === 'carries') return isOpening;
    if (verdict === 'mayDrawMore') return column === 'amps' || column === 'dropVolts';
    return verdict === null || verdict === 'needsLoad';
  };
  const found = rows.some(
    ({ verdict }) => verdict !== null && !WANTS_MORE.includes(verdict) && !NOTHING_WRONG.includes(verdict),
  );
  const silent = ({ cells }: SheetRow<'contacts'>) => cells[0]?.value === false;
  const turns: readonly [BankColumn, (row: SheetRow<'contacts'>) => boolean][] = [
    ['click', () => true],
    ['coilVolts', silent],
    ['coilOhms', silent],
    ['rivalAtRest', silent],
    ['load', (row) => !silent(row)],
    ['dropVolts', (row) => !silent(row)],
    ['amps', ({ verdict }) => verdict === 'mayDrawMore'],
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

/** Currents that differ by less are one, as a share: what feeds a coil beside its contact goes through the same fuse. */
const SAME_CURRENT = 0.1;

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

/** A clamp on what flows through a contact, and through nothing else besides. */
function ampsTest(
  model: CircuitModel,
  { index }: Branch,
  { setup, amps }: { setup: Setup; amps: number },
): Test | null {
  const commanded = underCommand(setup);
  const found = testsOf(model)
    .filter(({ bound: { test } }) => test.kind === 'amps' && commanded(test) && isBare(test))
    .filter(
      ({ bound: { test } }) =>
        Math.abs(sizeOf(soundValue(model, test)) / amps - 1) < SAME_CURRENT && hangsOn(model, test, index),
    )
    .sort((one, two) => one.minutes - two.minutes)[0];
  return found?.bound.test ?? null;
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
