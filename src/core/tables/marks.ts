import { ruleKey } from './ruleKey';
import { REFERENCE_TABLES, type ReferenceTable } from './tables';

/** Volts that may be lost across something at its working current. */
export interface DropMark {
  good: number;
  repair: number;
}

/** What readings are held against where nothing better is known: the shop's figures over the reference tables. */
export interface ShopMarks {
  /** The shop's own figures, by "table|row|column". */
  rules: Readonly<Record<string, number>>;
  drops: Readonly<Record<DropPlace, DropMark>>;
  /** Least insulation, ohms, and the standard it comes from: extra-low volts, and up to 500 V. */
  insulation: Readonly<Record<'extraLow' | 'line', { ohms: number; standard: string }>>;
  /** Volts between which a coil works, as shares of its rated volts. */
  coilVolts: Readonly<Record<CoilDevice, CoilVolts>>;
  /** How far a coil's ohms may be off, by what it is held against, as shares. */
  coilOhms: Readonly<Record<CoilOhmsAgainst, number>>;
}

export interface CoilVolts {
  /** It must have pulled in by this share. */
  pullIn: number;
  /** It must have let go by the lower of these, and not before the higher. Null where no rule says so. */
  releaseLeast: number | null;
  releaseMost: number | null;
}

export type CoilDevice = keyof typeof COIL_ROWS;
export type CoilOhmsAgainst = keyof typeof TOLERANCE_ROWS;

export type DropPlace = keyof typeof DROP_ROWS;

/** Rows of the tables that the program looks for, by what stands in their first column. */
export const DROP_ROWS = {
  joint: 'One crimp, lug or bolted joint',
  heavyContact: 'One closed heavy contact, DC',
  ground12: 'Ground path of a heavy load, 12 V',
  ground24: 'Ground path of a heavy load, 24 V',
  groundOfElectronics: 'Ground path of a controller or sensor',
  linePole: 'One closed pole of a line contactor, AC',
} as const;
export const INSULATION_ROWS = { extraLow: 'Extra-low voltage (SELV, PELV)', line: 'Up to 500 V' } as const;
export const COIL_ROWS = {
  contactorAC: 'Contactor, AC coil',
  contactorDC: 'Contactor, DC coil',
  valve: 'Solenoid valve',
  relay: 'Vehicle relay, 12 V',
} as const;
export const TOLERANCE_ROWS = {
  maker: 'Maker, no tolerance stated',
  twin: 'Identical neighbour',
  own: 'Its own past',
  fleet: 'The fleet',
} as const;
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
  const coils = tableOf('coil-ratings');
  const coilVolts = (device: CoilDevice): CoilVolts => {
    const at = rowOf(coils, 'kind', COIL_ROWS[device]);
    const share = (key: keyof CoilVolts): number | null => {
      const percent = rules[ruleKey(coils, at, key)] ?? (coils.rows[at]![key] as number | null);
      return percent === null ? null : percent / 100;
    };
    return {
      pullIn: share('pullIn')!,
      releaseLeast: share('releaseLeast'),
      releaseMost: share('releaseMost'),
    };
  };
  const tolerances = tableOf('coil-tolerances');
  const tolerance = (against: CoilOhmsAgainst): number => {
    const at = rowOf(tolerances, 'against', TOLERANCE_ROWS[against]);
    return (rules[ruleKey(tolerances, at, 'percent')] ?? (tolerances.rows[at]!['percent'] as number)) / 100;
  };
  const insulation = tableOf('insulation');
  const least = (row: keyof typeof INSULATION_ROWS) => {
    const { megohms, standard } = insulation.rows[rowOf(insulation, 'circuit', INSULATION_ROWS[row])]!;
    return { ohms: (megohms as number) * OHMS_IN_MEGOHM, standard: String(standard) };
  };
  return {
    rules,
    drops: byKey(DROP_ROWS, drop),
    coilVolts: byKey(COIL_ROWS, coilVolts),
    coilOhms: byKey(TOLERANCE_ROWS, tolerance),
    insulation: { extraLow: least('extraLow'), line: least('line') },
  };
}

function byKey<K extends string, V>(rows: Readonly<Record<K, string>>, of: (key: K) => V): Record<K, V> {
  return Object.fromEntries((Object.keys(rows) as K[]).map((key) => [key, of(key)])) as Record<K, V>;
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
