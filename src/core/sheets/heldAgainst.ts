import { insulationClass } from '../tables/insulationPass';
import { ruleKey } from '../tables/ruleKey';
import { REFERENCE_TABLES } from '../tables/tables';
import {
  COIL_ROWS,
  DROP_ROWS,
  HOLD_ROWS,
  INSULATION_ROWS,
  MENDING_ROWS,
  TOLERANCE_ROWS,
  type ShopMarks,
} from '../tables/marks';
import type { CoilAnswer } from './coil/coil';
import { coilDevice } from './coil/service';
import type { OutputsAnswer } from './outputs/outputs';
import type { SheetAnswer } from './sheet';
import type { Sheet } from './sheets';

/** Whose figure it is: the table's, the shop's for all, or the shop's for this class of equipment. */
export type OwnFigure = 'table' | 'shop' | 'equipment';

/** A row of a reference table that a sheet was held against: its figures as they stand in this shop, and where they come from. */
export interface HeldRow {
  table: string;
  row: string;
  figures: { label: string; value: number; unit: string; own: OwnFigure }[];
  source: string;
  /** Class of equipment that the marks were taken for. */
  equipment: string | null;
}

/** The rows that a sheet's verdicts lean on; none where the maker's value alone decides. */
export function heldAgainst(sheet: Sheet, answer: SheetAnswer, marks: ShopMarks): HeldRow[] {
  switch (sheet.sheet) {
    case 'insulation':
      return sheet.circuitVolts === undefined ||
        sheet.passOhms !== undefined ||
        sheet.policy !== undefined ||
        marks.insulationPass !== 'table'
        ? []
        : [rowOf('insulation', INSULATION_ROWS[insulationClass(sheet.circuitVolts)], marks)];
    case 'contacts':
      if (sheet.contactors.every(({ dropVolts }) => dropVolts === undefined)) return [];
      if (sheet.school === 'percent') return [];
      return [
        rowOf('contact-drops', DROP_ROWS[sheet.school === 'volts' ? 'linePole' : 'heavyContact'], marks),
      ];
    case 'coil': {
      const { heldAgainst: by } = answer as unknown as CoilAnswer;
      const tolerance =
        by === null || by === 'range' || (by === 'maker' && sheet.maker?.tolerance !== undefined)
          ? []
          : [rowOf('coil-tolerances', TOLERANCE_ROWS[by], marks)];
      const works =
        sheet.device === undefined ||
        sheet.ratedVolts === undefined ||
        (sheet.pullInVolts === undefined && sheet.dropOutVolts === undefined)
          ? []
          : [rowOf('coil-ratings', COIL_ROWS[coilDevice(sheet.device, (sheet.hz ?? 0) > 0)], marks)];
      return [...tolerance, ...works];
    }
    case 'drop':
      return [rowOf('contact-drops', DROP_ROWS.joint, marks)];
    case 'outputs':
      return (answer as unknown as OutputsAnswer).mend.map(({ way }) =>
        rowOf('controller-parts', MENDING_ROWS[way], marks),
      );
    case 'needs':
      return [
        ...(sheet.restKpa !== undefined && sheet.supplyKpa !== undefined
          ? [rowOf('holds', HOLD_ROWS.supplyFalls, marks)]
          : []),
        ...(sheet.ratedVolts === undefined ? [] : [rowOf('coil-ratings', COIL_ROWS.valve, marks)]),
      ];
    case 'hold':
      return sheet.of === 'vacuum' ? [rowOf('holds', HOLD_ROWS.vacuumActuator, marks)] : [];
    case 'evacuation':
      return [
        ...(sheet.passPa === undefined ? [rowOf('holds', HOLD_ROWS.evacuationPa, marks)] : []),
        ...(sheet.forSeconds === undefined ? [rowOf('holds', HOLD_ROWS.evacuationSeconds, marks)] : []),
      ];
    // By formula, by the drawing, or by what was typed beside them: no row of a table.
    case 'windings':
    case 'terminals':
    case 'survey':
    case 'diode':
    case 'interlocks':
    case 'spareContact':
    case 'bubbles':
    case 'stroke':
    case 'connector':
    case 'actuation':
    case 'saturation':
    case 'cutIn':
    case 'planner':
    case 'functions':
    case 'trace':
    case 'wire':
      return [];
  }
}

/** A row of a table by its name, with the shop's own figures in their places. */
export function rowOf(id: string, name: string, { rules, equipment, forEquipment }: ShopMarks): HeldRow {
  const table = REFERENCE_TABLES.find((one) => one.id === id)!;
  const [first, ...columns] = table.columns;
  const at = table.rows.findIndex((row) => row[first!.key] === name);
  const row = table.rows[at]!;
  const standard = row['standard'];
  return {
    table: id,
    row: name,
    figures: columns.flatMap(({ key, label, unit }) => {
      const rule = ruleKey(table, at, key);
      const value = rules[rule] ?? row[key];
      const own = rules[rule] === undefined ? 'table' : forEquipment.has(rule) ? 'equipment' : 'shop';
      return typeof value === 'number'
        ? [{ label, value, unit: unit ?? String(row['unit'] ?? ''), own }]
        : [];
    }),
    equipment,
    source: typeof standard === 'string' ? standard : table.source,
  };
}

/** Each row once. */
export function uniqueRows(rows: readonly HeldRow[]): HeldRow[] {
  return [...new Map(rows.map((one) => [`${one.table}|${one.row}`, one])).values()];
}
