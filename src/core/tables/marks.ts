import { ruleKey } from './ruleKey';
import { REFERENCE_TABLES, type ReferenceTable } from './tables';

/** Volts that may be lost across something at its working current. */
export interface DropMark {
  good: number;
  repair: number;
}

/** What readings are held against where nothing better is known: the shop's figures over the reference tables. */
export interface ShopMarks {
  drops: Readonly<Record<DropPlace, DropMark>>;
  /** Least insulation, ohms, and the standard it comes from: extra-low volts, and up to 500 V. */
  insulation: Readonly<Record<'extraLow' | 'line', { ohms: number; standard: string }>>;
}

export type DropPlace = keyof typeof DROP_ROWS;

/** Rows of the tables that the program looks for, by what stands in their first column. */
const DROP_ROWS = {
  joint: 'One crimp, lug or bolted joint',
  heavyContact: 'One closed heavy contact, DC',
  ground12: 'Ground path of a heavy load, 12 V',
  ground24: 'Ground path of a heavy load, 24 V',
  groundOfElectronics: 'Ground path of a controller or sensor',
  linePole: 'One closed pole of a line contactor, AC',
} as const;
const INSULATION_ROWS = { extraLow: 'Extra-low voltage (SELV, PELV)', line: 'Up to 500 V' } as const;
const OHMS_IN_MEGOHM = 1e6;

/** The marks with a shop's own figures, by "table|row|column", over those of the tables. */
export function shopMarks(rules: Readonly<Record<string, number>>): ShopMarks {
  const drops = tableOf('contact-drops');
  const drop = (place: DropPlace): DropMark => {
    const at = rowOf(drops, 'place', DROP_ROWS[place]);
    const value = (key: 'good' | 'repair') =>
      rules[ruleKey(drops, at, key)] ?? (drops.rows[at]![key] as number);
    return { good: value('good'), repair: value('repair') };
  };
  const insulation = tableOf('insulation');
  const least = (row: keyof typeof INSULATION_ROWS) => {
    const { megohms, standard } = insulation.rows[rowOf(insulation, 'circuit', INSULATION_ROWS[row])]!;
    return { ohms: (megohms as number) * OHMS_IN_MEGOHM, standard: String(standard) };
  };
  return {
    drops: Object.fromEntries(
      (Object.keys(DROP_ROWS) as DropPlace[]).map((place) => [place, drop(place)]),
    ) as Record<DropPlace, DropMark>,
    insulation: { extraLow: least('extraLow'), line: least('line') },
  };
}

function tableOf(id: string): ReferenceTable {
  const table = REFERENCE_TABLES.find((one) => one.id === id);
  if (!table) throw new Error(`there is no reference table "${id}"`);
  return table;
}

function rowOf({ id, rows }: ReferenceTable, column: string, name: string): number {
  const at = rows.findIndex((row) => row[column] === name);
  if (at < 0) throw new Error(`table "${id}" has no row "${name}"`);
  return at;
}
