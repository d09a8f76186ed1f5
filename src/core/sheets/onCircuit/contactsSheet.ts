import type { CircuitModel } from '../../circuit/model';
import type { Reading } from '../../circuit/schema';
import type { ShopMarks } from '../../tables/marks';
import { heldAgainst } from '../heldAgainst';
import { judgeContacts, type ContactsSheet } from '../contacts/contacts';
import { BANK_COLUMNS, bankRows, type BankColumn, type BankRow } from './bankRows';
import { bankVerdict, silenceOf, type BankVerdict } from './bankVerdict';
import { figure, HEAD, volts, withoutColumns, type JobSheet, type SheetRow } from './jobSheet';

/** Relays and contactors beside each other: click, what feeds the coil, the coil, the contact both ways, and its drop under load. */
export function contactsSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
  marks: ShopMarks,
): JobSheet<'contacts'> | null {
  const lineVolts = Math.max(...model.compiled.branches.map((branch) => branch.volts), 0) || undefined;
  const found = bankRows(model, readings, marks);
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
    const said = bankVerdict(answer.verdicts[row.name] ?? null, row);
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

/** Said of contactors that nothing is wrong with, as far as was read. */
const NOTHING_WRONG: readonly string[] = ['good', 'worn', 'carries'] satisfies BankVerdict[];

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
