import type { CircuitModel } from '../../circuit/model';
import type { Reading, Setup, Test } from '../../circuit/schema';
import { nodesOfTest } from '../../circuit/testPlace';
import { workingPatterns } from '../../diagnosis/patterns';
import { isGroundStud } from '../../diagnosis/setApart';
import { loadedPattern } from './loadedPattern';
import {
  cellOf,
  MOST_ROWS,
  nameOf,
  ohmsSize,
  pickBetween,
  underCommand,
  type JobSheet,
  type SheetCell,
  type SheetRow,
} from './jobSheet';
import type { SheetVerdicts } from './verdicts';

/** Volts further from the drawn ones than this share of the supply are others; ohms further than this share, and more than that many. */
const VOLTS_SHARE = 0.15;
const OHMS_SHARE = 0.3;
const OHMS_LEAST = 1;
/** From here on two figures of ohms both say that nothing leads there. */
const NOTHING_LEADS = 1e6;

/** Every pin of every plug to the frame: commanded with the plug on, the same with it off, and its ohms on the dead machine. */
export function surveySheetOf(model: CircuitModel, readings: readonly Reading[]): JobSheet<'survey'> | null {
  const { compiled } = model;
  const frame = nameOf(model, compiled.frame);
  const pins = compiled.parts
    .filter(
      ({ part }) =>
        part.kind === 'pin' && part.connector !== undefined && !isGroundStud(model, part.connector),
    )
    .slice(0, MOST_ROWS);
  if (pins.length === 0) return null;
  const patterns = workingPatterns(model);
  const rows = pins.map((pin): SheetRow<'survey'> => {
    const { connector, ref } = pin.part as { connector: string; ref: string };
    const own = pin.branches[0]!;
    const sides = [own.a, own.b].map((node) => nameOf(model, node));
    const loaded = loadedPattern(model, patterns, own.index);
    const inPlace = underCommand(loaded?.setup ?? {});
    const commanded = (test: Test) => loaded !== null && inPlace(test) && isPlain(test.setup);
    const off = ({ setup }: Test) => setup.unplugged?.includes(connector) ?? false;
    const cell = (kind: 'volts' | 'ohms', side: string, fits: Fits) =>
      cellOf(model, pickBetween(model, kind, [side, frame], fits), readings);
    const on = (side: string) =>
      cell('volts', side, (test) => commanded(test) && !test.setup.unplugged?.length);
    const fed = (side: string) =>
      cell('volts', side, (test, sound) => commanded(test) && off(test) && isFed(sound));
    const dead = (side: string) => cell('ohms', side, off);
    // With the plug off the side of the loom is read: the one that is fed, or that leads home.
    const feed = sides.find((side) => fed(side) !== null);
    const loom = feed ?? sides.find((side) => leadsHome(dead(side)));
    return {
      name: ref,
      cells: [
        on(sides[0]!) ?? on(sides[1]!),
        feed === undefined ? null : fed(feed),
        loom === undefined ? null : dead(loom),
      ],
      verdict: null,
    };
  });
  for (const row of rows) row.verdict = verdictOf(model, row);
  return {
    name: 'survey',
    columns: ['plugOn', 'plugOff', 'ohmsPlugOff'],
    rows,
    next: nextPin(rows),
    answers: [],
  };
}

type Fits = (test: Test, expected: Reading['value']) => boolean;
const isFed = (expected: Reading['value']) => typeof expected === 'number' && Math.abs(expected) > 1;

function isPlain({ jumpers, lifted, removed }: Setup): boolean {
  return !jumpers?.length && !lifted?.length && !removed?.length;
}

function leadsHome(cell: SheetCell | null): boolean {
  return typeof cell?.expected === 'number' && cell.expected < NOTHING_LEADS;
}

/** Whether what was read is what the drawing says; null while nothing was read. */
function verdictOf(model: CircuitModel, { cells }: SheetRow<'survey'>): SheetVerdicts['survey'] | null {
  const read = cells.filter((cell): cell is SheetCell => cell !== null && cell.value !== null);
  if (read.length === 0) return null;
  return read.every((cell) => isAsDrawn(model, cell)) ? 'good' : 'bad';
}

function isAsDrawn({ compiled }: CircuitModel, { test, expected, value }: SheetCell): boolean {
  const [drawn, shown] = [ohmsSize(expected), ohmsSize(value!)];
  if (test.kind === 'volts') {
    // A pin of twenty-four volts is held against those, whatever else the drawing has.
    const own = nodesOfTest(test).map((node) => compiled.volts[compiled.nodeIndex.get(node)!]!);
    return Math.abs(drawn - shown) <= VOLTS_SHARE * Math.max(...own, drawn, 1);
  }
  if (drawn >= NOTHING_LEADS || shown >= NOTHING_LEADS)
    return drawn >= NOTHING_LEADS && shown >= NOTHING_LEADS;
  return Math.abs(drawn - shown) <= Math.max(OHMS_SHARE * drawn, OHMS_LEAST);
}

/** Every pin with its plug on first, from the middle of what is open; then, of one that is not as drawn, what tells why. */
function nextPin(rows: readonly SheetRow<'survey'>[]): JobSheet['next'] {
  const bad = rows.findIndex(({ verdict }) => verdict === 'bad');
  if (bad >= 0) {
    const column = rows[bad]!.cells.findIndex((cell) => cell !== null && cell.value === null);
    return column < 0 ? null : [bad, column];
  }
  const open = rows.flatMap(({ cells: [cell] }, at) => (cell && cell.value === null ? [at] : []));
  return open.length > 0 ? [open[Math.floor(open.length / 2)]!, 0] : null;
}
