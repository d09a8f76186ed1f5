import { significant } from '../units/significant';
import { conductorOhms, gaugeArea } from '../circuit/wireGauge';

/** A column of a reference table; figures carry their unit. */
export interface TableColumn {
  key: string;
  label: string;
  unit?: string;
  /** Practice rather than a standard: a shop writes its own figure over it. */
  shopRule?: boolean;
  /** A standard's least: a shop may ask for more, never for less. */
  leastOfAll?: boolean;
  /** Only these rows, by their first column, may be written over: nothing is held against the others. */
  rows?: readonly string[];
  /** Nobody but the shop knows it: nothing stands there until it is written. */
  ownFigure?: boolean;
}

export type TableCell = string | number | null;

/** Figures to lean on where nothing better is known, with where they come from. A maker's value always goes before them. */
export interface ReferenceTable {
  id: string;
  title: string;
  source: string;
  note: string;
  columns: readonly TableColumn[];
  rows: readonly Readonly<Record<string, TableCell>>[];
}

const GAUGES = ['0000', '000', '00', '0', ...Array.from({ length: 24 }, (_one, k) => String(k + 1))];
const round = (value: number, digits = 4) => significant(value, digits);

const wireGauges: ReferenceTable = {
  id: 'wire-gauges',
  title: 'Wire gauges',
  source: 'AWG by its formula; copper of IEC 60028, 20 °C',
  note: 'Solid wire. Stranded wire of the same gauge runs a few percent higher.',
  columns: [
    { key: 'awg', label: 'AWG' },
    { key: 'mm2', label: 'Area', unit: 'mm²' },
    { key: 'ohmsPerKm', label: 'Resistance', unit: 'Ω/km' },
  ],
  rows: GAUGES.map((awg) => ({
    awg,
    mm2: round(gaugeArea(awg)),
    ohmsPerKm: round(conductorOhms(1000, gaugeArea(awg))),
  })),
};

const conductors: ReferenceTable = {
  id: 'conductors',
  title: 'Conductors by area',
  source:
    'IEC 60228 class 2 and class 5, plain copper, greatest values at 20 °C; vehicle cable after ISO 6722-1',
  note: 'Vehicle values are to be checked against the cable’s own sheet.',
  columns: [
    { key: 'mm2', label: 'Area', unit: 'mm²' },
    { key: 'class2', label: 'Class 2', unit: 'Ω/km' },
    { key: 'class5', label: 'Class 5', unit: 'Ω/km' },
    { key: 'vehicle', label: 'Vehicle', unit: 'Ω/km', shopRule: true },
  ],
  rows: [
    [0.5, 36, 39, 37.1],
    [0.75, 24.5, 26, 24.7],
    [1, 18.1, 19.5, 18.5],
    [1.5, 12.1, 13.3, 12.7],
    [2.5, 7.41, 7.98, 7.6],
    [4, 4.61, 4.95, 4.71],
    [6, 3.08, 3.3, 3.14],
    [10, 1.83, 1.91, 1.82],
    [16, 1.15, 1.21, 1.16],
    [25, 0.727, 0.78, 0.743],
    [35, 0.524, 0.554, 0.527],
    [50, 0.387, 0.386, 0.368],
    [70, 0.268, 0.272, 0.259],
    [95, 0.193, 0.206, 0.196],
    [120, 0.153, 0.161, 0.153],
  ].map(([mm2, class2, class5, vehicle]) => ({
    mm2: mm2!,
    class2: class2!,
    class5: class5!,
    vehicle: vehicle!,
  })),
};

const fuseTimes: ReferenceTable = {
  id: 'fuse-times',
  title: 'Blade fuses: time to open',
  source: 'ISO 8820-3 type C (medium) and F (miniature), about 23 °C',
  note: 'Between rows only the bounds of the neighbours are certain. Steady use stays under 70 to 80 % of the rating.',
  columns: [
    { key: 'percent', label: 'Current', unit: '% of rating' },
    { key: 'least', label: 'Least', unit: 's' },
    { key: 'most', label: 'Most', unit: 's' },
    { key: 'rule', label: 'Standing' },
  ],
  rows: [
    { percent: 110, least: 360_000, most: null, rule: 'standard' },
    { percent: 135, least: 0.75, most: 600, rule: 'standard' },
    { percent: 160, least: 0.25, most: 50, rule: 'check' },
    { percent: 200, least: 0.15, most: 5, rule: 'standard' },
    { percent: 350, least: 0.04, most: 0.5, rule: 'check' },
    { percent: 600, least: 0.02, most: 0.1, rule: 'check' },
  ],
};

const fuseRatings: ReferenceTable = {
  id: 'fuse-ratings',
  title: 'Fuse and breaker ratings',
  source: 'Ratings in common supply, ISO 8820-3 and IEC 60127-1 series',
  note: 'The next one up from the steady current divided by 0.75.',
  columns: [{ key: 'amps', label: 'Rating', unit: 'A' }],
  rows: [
    0.5, 1, 2, 3, 4, 5, 7.5, 10, 15, 20, 25, 30, 40, 50, 60, 80, 100, 125, 150, 200, 250, 300, 400, 500,
  ].map((amps) => ({ amps })),
};

const coilRatings: ReferenceTable = {
  id: 'coil-ratings',
  title: 'Coils: when they must pull in and let go',
  source: 'IEC 60947-4-1 for contactors; practice for the rest',
  note: 'Volts at the coil while it pulls in. A hot coil needs more: in the ratio (234.5 + hot) to (234.5 + cold).',
  columns: [
    { key: 'kind', label: 'Kind' },
    { key: 'pullIn', label: 'Pulls in from', unit: '% of rated', shopRule: true },
    { key: 'most', label: 'to', unit: '% of rated', shopRule: true },
    { key: 'releaseLeast', label: 'Lets go between', unit: '% of rated', shopRule: true },
    { key: 'releaseMost', label: 'and', unit: '% of rated', shopRule: true },
  ],
  rows: [
    { kind: 'Contactor, AC coil', pullIn: 85, most: 110, releaseLeast: 20, releaseMost: 75 },
    { kind: 'Contactor, DC coil', pullIn: 85, most: 110, releaseLeast: 10, releaseMost: 75 },
    { kind: 'Solenoid valve', pullIn: 85, most: 110, releaseLeast: null, releaseMost: null },
    { kind: 'Vehicle relay, 12 V', pullIn: 67, most: 130, releaseLeast: 8, releaseMost: null },
  ],
};

const coilTolerances: ReferenceTable = {
  id: 'coil-tolerances',
  title: 'Coils: how far their ohms may be off',
  source: 'Shop rules, where the maker states none',
  note: 'At 20 °C, leads off. A tolerance that the maker states goes before all of these.',
  columns: [
    { key: 'against', label: 'Held against' },
    { key: 'percent', label: 'May be off', unit: '%', shopRule: true },
  ],
  rows: [
    { against: 'Maker, no tolerance stated', percent: 10 },
    { against: 'Identical neighbour', percent: 8 },
    { against: 'Its own past', percent: 6 },
    { against: 'The fleet', percent: 10 },
  ],
};

const contactDrops: ReferenceTable = {
  id: 'contact-drops',
  title: 'Contacts and joints: greatest drop at working current',
  source: 'Shop rules; terminal temperature rise is limited by IEC 60947-1',
  note: 'An ohmmeter cannot judge these. The current is written down with the drop.',
  columns: [
    { key: 'place', label: 'Across' },
    { key: 'good', label: 'Good up to', unit: 'V', shopRule: true },
    { key: 'repair', label: 'Repair from', unit: 'V', shopRule: true },
  ],
  rows: [
    { place: 'One crimp, lug or bolted joint', good: 0.05, repair: 0.1 },
    { place: 'One closed heavy contact, DC', good: 0.1, repair: 0.2 },
    { place: 'Ground path of a heavy load, 12 V', good: 0.2, repair: 0.4 },
    { place: 'Ground path of a heavy load, 24 V', good: 0.3, repair: 0.6 },
    { place: 'Ground path of a controller or sensor', good: 0.05, repair: 0.1 },
    { place: 'Supply side of a starter, winch or pump motor, 12 V', good: 0.5, repair: 1 },
    { place: 'Supply side of a starter, winch or pump motor, 24 V', good: 1, repair: 2 },
    { place: 'One closed pole of a line contactor, AC', good: 0.2, repair: 0.5 },
  ],
};

/** Classes of circuit that insulation is judged by. */
const INSULATION_CLASSES = ['Extra-low voltage (SELV, PELV)', 'Up to 500 V', 'Above 500 V'];

const insulation: ReferenceTable = {
  id: 'insulation',
  title: 'Insulation resistance',
  source: 'IEC 60364-6, IEC 60204-1, IEEE 43',
  note: 'Never on electronics: unplug controllers, sensors and suppressors. Discharge after the test. A shop may ask for more than the standard, never for less.',
  columns: [
    { key: 'circuit', label: 'Circuit' },
    { key: 'testVolts', label: 'Test', unit: 'V DC' },
    {
      key: 'megohms',
      label: 'Least',
      unit: 'MΩ',
      shopRule: true,
      leastOfAll: true,
      rows: INSULATION_CLASSES,
    },
    { key: 'standard', label: 'Standard' },
  ],
  rows: [
    { circuit: 'Extra-low voltage (SELV, PELV)', testVolts: 250, megohms: 0.5, standard: 'IEC 60364-6' },
    { circuit: 'Up to 500 V', testVolts: 500, megohms: 1, standard: 'IEC 60364-6' },
    { circuit: 'Above 500 V', testVolts: 1000, megohms: 1, standard: 'IEC 60364-6' },
    { circuit: 'Machine power circuit to earth', testVolts: 500, megohms: 1, standard: 'IEC 60204-1' },
    { circuit: 'Winding under 1 kV, 1 minute, at 40 °C', testVolts: 500, megohms: 5, standard: 'IEEE 43' },
    { circuit: 'Old or field winding: kV + 1', testVolts: 500, megohms: null, standard: 'IEEE 43' },
  ],
};

const holds: ReferenceTable = {
  id: 'holds',
  title: 'Air, vacuum and evacuated systems: what has to hold',
  source: 'Shop rules; the maker’s figure goes before them',
  note: 'An evacuated system is judged by licensed people, with the maker’s mark and time.',
  columns: [
    { key: 'what', label: 'What' },
    { key: 'figure', label: 'Figure', shopRule: true },
    { key: 'unit', label: 'Unit' },
  ],
  rows: [
    { what: 'Vacuum actuator on a hand pump, may lose in a minute', figure: 10, unit: '%' },
    { what: 'Supply of a valve, may fall while it works', figure: 10, unit: '%' },
    { what: 'Evacuated system, pump shut off, stays below', figure: 67, unit: 'Pa' },
    { what: 'Evacuated system, for at least', figure: 600, unit: 's' },
  ],
};

const controllerParts: ReferenceTable = {
  id: 'controller-parts',
  title: 'Controllers: what each way of mending takes',
  source: 'Shop rules; the costs are the shop’s own',
  note: 'Minutes at the machine, with locking and proving. A cost that is not written is not counted.',
  columns: [
    { key: 'way', label: 'Way' },
    { key: 'minutes', label: 'Takes', unit: 'min', shopRule: true },
    { key: 'cost', label: 'Parts cost', shopRule: true, ownFigure: true },
  ],
  rows: [
    { way: 'Mend the wire or its terminal in the field', minutes: 30, cost: null },
    { way: 'Mend the supply or its fuse', minutes: 20, cost: null },
    { way: 'Replace the sensor of the loop', minutes: 30, cost: null },
    { way: 'Move the wire to a free output', minutes: 25, cost: null },
    { way: 'Replace the selector', minutes: 40, cost: null },
    { way: 'Replace the output module', minutes: 25, cost: null },
    { way: 'Replace the master relay', minutes: 30, cost: null },
    { way: 'Replace the whole controller', minutes: 90, cost: null },
  ],
};

/** Whether a shop may write its own figure into a cell. */
export function isOpen({ columns, rows }: ReferenceTable, row: number, column: string): boolean {
  const found = columns.find(({ key }) => key === column);
  const own = rows[row];
  if (!found?.shopRule || !own) return false;
  if (found.rows && !found.rows.includes(String(own[columns[0]!.key]))) return false;
  return found.ownFigure === true || typeof own[column] === 'number';
}

/** Every table, in the order they are shown. */
export const REFERENCE_TABLES: readonly ReferenceTable[] = [
  wireGauges,
  conductors,
  fuseRatings,
  fuseTimes,
  coilRatings,
  coilTolerances,
  contactDrops,
  insulation,
  holds,
  controllerParts,
];

/** Lists that the builder takes its choices from. */
export const CIRCUIT_TABLES = {
  fuseRatings: fuseRatings.rows.map(({ amps }) => amps as number),
};

/** Usual sections, mm², with the most that a kilometre of flexible copper of each may have at 20 °C, ohms (IEC 60228 class 5). */
export const CLASS_5: readonly (readonly [mm2: number, ohmsPerKm: number])[] = conductors.rows.map(
  ({ mm2, class5 }) => [mm2 as number, class5 as number],
);
