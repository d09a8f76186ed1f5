import {
  fluidSchemaKinds,
  GUARDS,
  LABEL_FIGURES,
  type LabelFigure,
  type OwnGauge,
} from '@/core/circuit/partSchema';
import { isAssumed } from '@/core/circuit/assumed';
import { readBits, writeBits, type DriverBits } from '@/core/draw/bitsText';
import { readCodes, writeCodes, type DriverCodes } from '@/core/draw/codesText';
import { readGauge, writeGauge } from '@/core/draw/gaugeText';
import type { Part } from '@/core/circuit/schema';

/** One figure or word of a part that its form asks for. */
export interface PartField {
  key: string;
  label: string;
  unit?: string;
  /** Choices; free text or a figure where there are none. */
  choices?: readonly string[];
  text?: boolean;
  /** Of a field that holds more than one word: how it is written in a line, and read from one. */
  line?: { write: (value: unknown) => string; read: (text: string) => unknown };
  /** Said beside the field. */
  hint?: string;
}

const figure = (key: string, label: string, unit = '', hint?: string): PartField => ({
  key,
  label,
  unit,
  ...(hint ? { hint } : {}),
});
const restriction = figure('restriction', 'Loss', 'kPa per L/min');
const tolerance = figure('tolerance', 'Spread', '', 'share: 0.08 is 8 %');

/** What limits a coil on alternating volts: its label says. */
const WINDING: readonly PartField[] = [
  figure('henries', 'Inductance', 'H'),
  figure('va', 'Label, sealed', 'VA', 'on alternating volts'),
  figure('sealedAmps', 'Current, closed', 'A', 'on alternating volts'),
  figure('inrushAmps', 'Current, open', 'A', 'on alternating volts'),
];

/** Unanswered stands as “not said”; what the name suggests is shown beside the question, not taken. */
const OWN_GAUGE: PartField = {
  key: 'ownGauge',
  label: 'The machine’s own gauge of it',
  line: { write: (gauge) => writeGauge(gauge as OwnGauge | undefined), read: readGauge },
  hint: 'Boost gauge: 50 % at rest, 100 % at work',
};
const GUARDS_FIELD: PartField = { key: 'guards', label: 'Whom it protects', choices: GUARDS };

const OWN: Readonly<Record<Part['kind'], readonly PartField[]>> = {
  source: [
    figure('volts', 'Volts', 'V'),
    figure('hz', 'Frequency', 'Hz', '0 is direct current'),
    figure('internalOhms', 'Inside', 'Ω'),
    { key: 'supplies', label: 'What it is', choices: ['battery', 'control', 'line'] },
    { key: 'how', label: 'How it is cut off', text: true },
  ],
  transformer: [
    figure('ratio', 'Primary over secondary'),
    figure('va', 'Rating', 'VA'),
    figure('internalOhms', 'Inside', 'Ω'),
  ],
  fuse: [figure('amps', 'Rating', 'A'), figure('ohms', 'Cold', 'Ω')],
  breaker: [figure('amps', 'Rating', 'A'), figure('ohms', 'Closed', 'Ω')],
  wire: [
    figure('ohms', 'Resistance', 'Ω', 'or length and gauge'),
    figure('lengthMetres', 'Length', 'm'),
    figure('mm2', 'Area', 'mm²'),
    { key: 'awg', label: 'AWG' },
    { key: 'colour', label: 'Colour', text: true },
    { key: 'mark', label: 'Mark', text: true },
    { key: 'bundle', label: 'Bundle', text: true, hint: 'wires of one bundle can short together' },
  ],
  pin: [{ key: 'connector', label: 'Plug', text: true }, figure('ohms', 'Contact', 'Ω')],
  switch: [figure('ohms', 'Closed', 'Ω'), GUARDS_FIELD],
  relay: [
    figure('ohms', 'Coil', 'Ω'),
    figure('pickUpVolts', 'Picks up at', 'V'),
    figure('dropOutVolts', 'Drops out at', 'V'),
    figure('contactOhms', 'Contact', 'Ω'),
    GUARDS_FIELD,
    ...WINDING,
    tolerance,
  ],
  coil: [
    figure('ohms', 'Resistance at 20 °C', 'Ω'),
    tolerance,
    figure('pullInAmps', 'Pulls in at', 'A'),
    figure('holdAmps', 'Holds down to', 'A'),
    ...WINDING,
    { key: 'holdsLoad', label: 'A load comes down without its current', choices: ['yes', 'no'] },
    { key: 'freesLoad', label: 'A load comes down with its current', choices: ['yes', 'no'] },
  ],
  diode: [figure('forwardVolts', 'Forward', 'V')],
  resistor: [figure('ohms', 'Resistance', 'Ω'), tolerance],
  lamp: [figure('ohms', 'Hot resistance', 'Ω'), tolerance, figure('restOhms', 'Cold, by a meter', 'Ω')],
  heater: [figure('ohms', 'Resistance', 'Ω'), tolerance],
  motor: [
    figure('ohms', 'Running resistance', 'Ω'),
    tolerance,
    figure('restOhms', 'Standing, by a meter', 'Ω'),
    OWN_GAUGE,
  ],
  sensor3: [
    figure('ohms', 'End to end', 'Ω'),
    tolerance,
    { key: 'control', label: 'Turned by the control', text: true },
    GUARDS_FIELD,
  ],
  driver: [
    { key: 'side', label: 'Switches', choices: ['high', 'low'] },
    figure('limitAmps', 'Limits at', 'A'),
    figure('ohms', 'On', 'Ω'),
    {
      key: 'codes',
      label: 'Sets codes, mode and A',
      line: { write: (codes) => writeCodes(codes as DriverCodes | undefined), read: readCodes },
      hint: '5 under 0.1, 6 over 2.2',
    },
    {
      key: 'bits',
      label: 'On the controller’s page',
      line: { write: (bits) => writeBits(bits as DriverBits | undefined), read: readBits },
      hint: 'command Clamp down, feedback Clamp is on',
    },
  ],
  timer: [figure('seconds', 'Closed for', 's'), figure('ohms', 'Closed', 'Ω'), GUARDS_FIELD],
  airSupply: [
    figure('kPa', 'Pressure', 'kPa'),
    restriction,
    { key: 'how', label: 'How it is cut off', text: true },
  ],
  pump: [
    figure('kPa', 'Pressure', 'kPa'),
    restriction,
    { key: 'how', label: 'How it is cut off', text: true },
  ],
  regulator: [figure('kPa', 'Set to', 'kPa'), restriction],
  filter: [restriction],
  check: [figure('crackingKPa', 'Opens at', 'kPa'), restriction],
  hose: [restriction],
  throttle: [restriction],
  silencer: [restriction],
  plug: [],
  relief: [figure('kPa', 'Opens at', 'kPa'), restriction],
  accumulator: [
    figure('kPa', 'Gas filled to', 'kPa'),
    { key: 'how', label: 'How it is let down', text: true },
  ],
  proportionalValve: [
    figure('ohms', 'Resistance at 20 °C', 'Ω'),
    tolerance,
    figure('fromAmps', 'Begins to open at', 'A'),
    figure('fullAmps', 'Fully open at', 'A'),
    restriction,
  ],
  valve: [
    { key: 'ways', label: 'Ways', choices: ['2/2', '3/2', '5/2', '5/3'] },
    { key: 'coil', label: 'Shifted by coil', text: true },
    { key: 'coil2', label: 'And the other way by', text: true },
    { key: 'atRest', label: 'Port 1 at rest', choices: ['closed', 'open'] },
    { key: 'centre', label: 'Middle of a 5/3', choices: ['closed', 'exhaust', 'pressure'] },
    figure('pilotKPa', 'Needs to shift', 'kPa'),
    restriction,
  ],
  cylinder: [
    figure('frictionKPa', 'Moves from', 'kPa'),
    figure('springKPa', 'Spring', 'kPa'),
    figure('areaRatio', 'Rod side share'),
    { key: 'holdsLoad', label: 'A load comes down without its pressure', choices: ['yes', 'no'] },
    OWN_GAUGE,
  ],
  vacuumActuator: [
    figure('pullKPa', 'Pulls at', 'kPa below'),
    { key: 'holdsLoad', label: 'A load comes down without its vacuum', choices: ['yes', 'no'] },
    OWN_GAUGE,
  ],
  pressureSwitch: [
    figure('makeKPa', 'Operates at', 'kPa'),
    figure('breakKPa', 'Goes back at', 'kPa'),
    { key: 'contact', label: 'Contact', choices: ['NO', 'NC'] },
    figure('ohms', 'Closed', 'Ω'),
    GUARDS_FIELD,
  ],
};

const REFRIGERANT: PartField = {
  key: 'refrigerant',
  label: 'Holds refrigerant: opened for no test',
  choices: ['yes', 'no'],
};

const COMMON: readonly PartField[] = [
  { key: 'label', label: 'What it is called', text: true },
  { key: 'place', label: 'Where it sits', text: true },
  { key: 'sheet', label: 'Sheet', text: true },
  { key: 'square', label: 'Square', text: true },
  figure('accessMinutes', 'To reach it', 'min'),
  figure('wear', 'Fails, against others of its kind', 'times', '1 is usual'),
  {
    key: 'electronic',
    label: 'Electronic: no test voltage on it',
    choices: ['yes', 'no'],
    // Unanswered is neither: of a switch it counts as yes.
    line: {
      write: (value) => (value === undefined ? '' : value ? 'yes' : 'no'),
      read: (text) => text === 'yes',
    },
  },
  {
    key: 'bypassDanger',
    label: 'What harm its bypass does',
    text: true,
    hint: 'where the machine works without it',
  },
];

/** Fields of a part's form: what its kind is made of first, then where to find it. */
export function partFields(kind: Part['kind']): readonly PartField[] {
  const cold = fluidSchemaKinds.includes(kind) ? [REFRIGERANT] : [];
  return [...OWN[kind], ...cold, ...COMMON];
}

function isUnsaid(part: Part, key: string): boolean {
  return LABEL_FIGURES.includes(key as LabelFigure) && isAssumed(part, key as LabelFigure);
}

/** What a field that nobody has filled in says of itself: the usual figure that stands there meanwhile, or what to type. */
export function fieldHint(part: Part, { key, hint }: PartField): string | undefined {
  const value = (part as unknown as Record<string, unknown>)[key];
  return isUnsaid(part, key) && typeof value === 'number' ? `not said; usual: ${value}` : hint;
}

/** A field's value as it stands in the form; a figure that nobody has said stands in none. */
export function fieldText(part: Part, { key, choices, line }: PartField): string {
  if (isUnsaid(part, key)) return '';
  const value = (part as unknown as Record<string, unknown>)[key];
  if (line) return line.write(value);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (value === undefined && choices?.includes('no')) return 'no';
  return typeof value === 'string' || typeof value === 'number' ? String(value) : '';
}

/** What a typed field means for the part; an empty one is taken off. Throws `InputError` for a line that says nothing. */
export function fieldValue(field: PartField, typed: string): unknown {
  const text = typed.trim();
  if (text === '') return undefined;
  if (field.line) return field.line.read(text);
  if (field.choices?.includes('no')) return text === 'yes' ? true : undefined;
  if (field.choices || field.text) return text;
  const value = Number(text.replace(',', '.'));
  return Number.isFinite(value) ? value : text;
}
