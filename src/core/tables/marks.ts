import { OHMS_IN_MEGOHM, type InsulationMarks, type InsulationPass } from './insulationPass';
import { equipmentKey, ruleKey, splitRule, type Rules } from './ruleKey';
import { REFERENCE_TABLES, type ReferenceTable } from './tables';

/** Volts that may be lost across something at its working current. */
export interface DropMark {
  good: number;
  repair: number;
}

/** What readings are held against where nothing better is known: the shop's figures over the reference tables. */
export interface ShopMarks extends InsulationMarks {
  /** The shop's own figures, by "table|row|column", as they hold for this class of equipment. */
  rules: Rules;
  /** Class of equipment that they were taken for; null for none. */
  equipment: string | null;
  /** Of these rules those that are for this class alone. */
  forEquipment: ReadonlySet<string>;
  drops: Readonly<Record<DropPlace, DropMark>>;
  /** Volts between which a coil works, as shares of its rated volts. */
  coilVolts: Readonly<Record<CoilDevice, CoilVolts>>;
  /** What air, vacuum and an evacuated system have to hold: shares, Pa and seconds. */
  holds: Readonly<{
    vacuumActuator: number;
    supplyFalls: number;
    evacuationPa: number;
    evacuationSeconds: number;
  }>;
  /** What each way of mending a controller takes: minutes, and what the parts cost; null where the shop has not written it. */
  mending: Readonly<Record<MendingWay, { minutes: number; cost: number | null }>>;
  /** How far a coil's ohms may be off, by what it is held against, as shares. */
  coilOhms: Readonly<Record<CoilOhmsAgainst, number>>;
}

/** For which class of equipment the marks are, and what a site's policy says of them. */
export interface MarksFor {
  equipment?: string | null;
  insulationPass?: InsulationPass;
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

export type MendingWay = keyof typeof MENDING_ROWS;
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
export const INSULATION_ROWS = {
  extraLow: 'Extra-low voltage (SELV, PELV)',
  line: 'Up to 500 V',
  high: 'Above 500 V',
} as const;
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
export const MENDING_ROWS = {
  wire: 'Mend the wire or its terminal in the field',
  supply: 'Mend the supply or its fuse',
  sensor: 'Replace the sensor of the loop',
  freeOutput: 'Move the wire to a free output',
  selector: 'Replace the selector',
  module: 'Replace the output module',
  master: 'Replace the master relay',
  controller: 'Replace the whole controller',
} as const;
export const HOLD_ROWS = {
  vacuumActuator: 'Vacuum actuator on a hand pump, may lose in a minute',
  supplyFalls: 'Supply of a valve, may fall while it works',
  evacuationPa: 'Evacuated system, pump shut off, stays below',
  evacuationSeconds: 'Evacuated system, for at least',
} as const;

/**
 * The marks with a shop's own figures over those of the tables, and those for one class of equipment over both. `all` is by
 * "table|row|column", with a class by "table|row|column|class".
 */
export function shopMarks(
  all: Rules,
  { equipment = null, insulationPass = 'table' }: MarksFor = {},
): ShopMarks {
  const { rules, forEquipment } = rulesFor(all, equipment);
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
  const parts = tableOf('controller-parts');
  const mending = (way: MendingWay) => {
    const at = rowOf(parts, 'way', MENDING_ROWS[way]);
    return {
      minutes: rules[ruleKey(parts, at, 'minutes')] ?? (parts.rows[at]!['minutes'] as number),
      cost: rules[ruleKey(parts, at, 'cost')] ?? null,
    };
  };
  const holdsTable = tableOf('holds');
  const hold = (row: keyof typeof HOLD_ROWS): number => {
    const at = rowOf(holdsTable, 'what', HOLD_ROWS[row]);
    return rules[ruleKey(holdsTable, at, 'figure')] ?? (holdsTable.rows[at]!['figure'] as number);
  };
  const insulation = tableOf('insulation');
  const least = (row: keyof typeof INSULATION_ROWS) => {
    const at = rowOf(insulation, 'circuit', INSULATION_ROWS[row]);
    const { megohms, standard } = insulation.rows[at]!;
    // A standard's least holds whatever was kept.
    const own = Math.max(rules[ruleKey(insulation, at, 'megohms')] ?? 0, megohms as number);
    return { ohms: own * OHMS_IN_MEGOHM, standard: String(standard) };
  };
  return {
    rules,
    equipment,
    forEquipment,
    insulationPass,
    drops: byKey(DROP_ROWS, drop),
    coilVolts: byKey(COIL_ROWS, coilVolts),
    coilOhms: byKey(TOLERANCE_ROWS, tolerance),
    mending: byKey(MENDING_ROWS, mending),
    holds: {
      vacuumActuator: hold('vacuumActuator') / 100,
      supplyFalls: hold('supplyFalls') / 100,
      evacuationPa: hold('evacuationPa'),
      evacuationSeconds: hold('evacuationSeconds'),
    },
    insulation: { extraLow: least('extraLow'), line: least('line'), high: least('high') },
  };
}

/** Rules as they hold for a class of equipment: its own go before the shop's for all. */
function rulesFor(all: Rules, equipment: string | null): { rules: Rules; forEquipment: ReadonlySet<string> } {
  const shop = Object.entries(all).filter(([key]) => splitRule(key).equipment === null);
  const own = Object.entries(all).flatMap(([key, value]) => {
    const split = splitRule(key);
    return equipment !== null && key === equipmentKey(split.key, equipment)
      ? [[split.key, value] as const]
      : [];
  });
  return {
    rules: Object.fromEntries([...shop, ...own]),
    forEquipment: new Set(own.map(([key]) => key)),
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
