import { significant } from '@/core/units/significant';
import type { Finding } from '@/core/draw/checkCircuit';
import type { Difference } from '@/core/draw/compareCircuits';
import type { Guard, LabelFigure } from '@/core/circuit/partSchema';
import type { Circuit, Part, Setup } from '@/core/circuit/schema';
import { formatQuantity } from '@/core/units/formatQuantity';
import { positionWords, quantity } from './readings';

const amps = (value: number) => `${significant(value, 3)} A`;
const pressure = (value: number) => formatQuantity(value / 100, 'bar');
/** A figure of a label in words. */
const FIGURE_WORDS: Readonly<Record<LabelFigure, (value: number) => string>> = {
  volts: (value) => quantity('volts', value),
  ratio: (value) => `${significant(value, 3)} to 1`,
  va: (value) => `${significant(value, 3)} VA`,
  amps,
  limitAmps: amps,
  ohms: (value) => quantity('ohms', value),
  pullInAmps: amps,
  holdAmps: amps,
  fromAmps: amps,
  fullAmps: amps,
  seconds: (value) => formatQuantity(value, 's'),
  kPa: pressure,
  pullKPa: pressure,
  makeKPa: pressure,
  breakKPa: pressure,
};

/** Names of kinds as a person says them. */
export const KIND_NAMES: Readonly<Record<Part['kind'], string>> = {
  source: 'supply',
  transformer: 'transformer',
  fuse: 'fuse',
  breaker: 'breaker',
  wire: 'wire',
  pin: 'plug pin',
  switch: 'contact',
  relay: 'relay',
  coil: 'coil',
  diode: 'diode',
  resistor: 'resistor',
  lamp: 'lamp',
  heater: 'heater',
  motor: 'motor',
  sensor3: 'three-wire sensor',
  driver: 'controller output',
  timer: 'timed contact',
  airSupply: 'air supply',
  pump: 'pump',
  regulator: 'regulator',
  filter: 'filter',
  check: 'check valve',
  hose: 'hose',
  throttle: 'throttle',
  silencer: 'silencer',
  plug: 'stopped port',
  accumulator: 'accumulator',
  relief: 'relief valve',
  valve: 'valve',
  proportionalValve: 'proportional valve',
  cylinder: 'cylinder',
  vacuumActuator: 'vacuum actuator',
  pressureSwitch: 'pressure switch',
};

/** What a finding says, and what the press beside it does; no press where only a person can tell what is meant. */
export function findingWords(
  controls: Circuit['controls'],
  finding: Finding,
): { text: string; mend: string | null } {
  const at = (setup: Setup) => {
    const words = positionWords(controls, setup);
    return words ? ` with ${words}` : '';
  };
  switch (finding.code) {
    case 'broken':
      return { text: `${finding.field.replace(/^circuit\./, '')}: ${finding.problem}.`, mend: null };
    case 'noSource':
      return { text: 'Nothing feeds this circuit.', mend: 'Put a battery at its start' };
    case 'floating':
      return {
        text: `${finding.part} ends at “${finding.node}”, and nothing else does.`,
        mend: finding.fluid ? 'Stop it with a plug' : 'Take it to ground',
      };
    case 'noFeed':
      return { text: `No supply reaches ${finding.part}.`, mend: null };
    case 'noReturn':
      return { text: `${finding.part} has no way home to its supply.`, mend: 'Take its open end to ground' };
    case 'neverFed':
      return {
        text: `In no position of the controls does current flow through ${finding.part}.`,
        mend: null,
      };
    case 'cannotBeAlone':
      return {
        text: `No test point lets ${finding.part} be measured alone: neither end has a plug.`,
        mend: 'Put a plug before it',
      };
    case 'noIsolation':
      return {
        text: `${finding.part} has no isolation point: nobody has said how it is cut off.`,
        mend: 'Take the usual words',
      };
    case 'sourceShort':
      return {
        text: `${finding.part} is shorted${at(finding.setup)}: ${amps(finding.amps)} would flow.`,
        mend: null,
      };
    case 'fuseSmall':
      return {
        text: `${finding.part} (${finding.rating} A) is under the sound current of ${amps(finding.amps)}${at(finding.setup)}.`,
        mend: 'Take the next rating that holds',
      };
    case 'cannotPullIn':
      return {
        text: `${finding.part} gets ${significant(finding.has, 3)} ${finding.unit} at best and needs ${finding.needs} ${finding.unit} to pull in.`,
        mend: 'Let it pull in at 0.7 of what it gets',
      };
    case 'chatters':
      return { text: `It finds no rest${at(finding.setup)}: a relay opens its own feed.`, mend: null };
    case 'guardUnanswered':
      return {
        text: `Who does ${finding.part} protect? Until somebody says, no test bridges it.`,
        mend: `It guards ${GUARD_WORDS[finding.proposed]}`,
      };
    case 'noValue':
      return {
        text: `No value known for ${finding.part}: its twin or its label would help.`,
        mend: null,
      };
    case 'usualFigure': {
      const usual = Object.entries(finding.figures).map(([figure, value]) =>
        FIGURE_WORDS[figure as LabelFigure](value),
      );
      return {
        text: `${finding.part}: its label is not said, the usual ${usual.join(' and ')} stands in. Nothing is held against it; type it on its form.`,
        mend: null,
      };
    }
    case 'noImpedance':
      return {
        text: `${finding.part} works on alternating volts: its label’s VA or amperes would help, its ohms do not say what it draws.`,
        mend: null,
      };
    case 'electronicUnanswered':
      return {
        text: `Is ${finding.part} a plain contact, or an output of electronics? Until somebody says, no test voltage goes onto it.`,
        mend: 'It is a plain contact',
      };
    case 'unusedControl':
      return { text: `Nothing depends on the control “${finding.control}”.`, mend: 'Take it off' };
  }
}

/** What a contact guards, as it is said. */
export const GUARD_WORDS: Readonly<Record<Guard, string>> = {
  person: 'a person',
  limit: 'a limit of the machine',
  load: 'a load',
  none: 'nobody and nothing',
};

/** What a field of a part is called, and its unit where it holds a bare number. */
const FIELDS: Readonly<Record<string, readonly [name: string, unit?: string]>> = {
  nodes: ['terminals'],
  closedWhen: ['closed when'],
  onWhen: ['on when'],
  guards: ['protects'],
  lengthMetres: ['length', 'm'],
  mm2: ['area', 'mm²'],
  ohms: ['resistance', 'Ω'],
  internalOhms: ['resistance inside', 'Ω'],
  contactOhms: ['contact', 'Ω'],
  amps: ['rating', 'A'],
  volts: ['volts', 'V'],
  accessMinutes: ['time to reach', 'min'],
  pullInAmps: ['pull-in', 'A'],
  holdAmps: ['hold-in', 'A'],
  limitAmps: ['limit', 'A'],
  pickUpVolts: ['pick-up', 'V'],
  dropOutVolts: ['drop-out', 'V'],
  seconds: ['time', 's'],
  henries: ['inductance', 'H'],
  kPa: ['pressure', 'kPa'],
};

/**
 * A difference between two drawings in a line: "W3 length: 2.6 m (was 1.4 m)".
 *
 * @param beside the one that is compared with is an earlier version, or what most others have
 */
export function differenceWords(difference: Difference, beside: 'was' | 'others' = 'was'): string {
  const others = beside === 'others';
  const change = (before: string, after: string) =>
    before === ''
      ? `${after} (${others ? 'others do not say it' : 'was not given'})`
      : after === ''
        ? `not given (${others ? 'others' : 'was'} ${before})`
        : `${after} (${others ? 'others' : 'was'} ${before})`;
  const [name, unit] = difference.is === 'changed' ? (FIELDS[difference.key] ?? [difference.key]) : [];
  const figure = (text: string) => (unit && text !== '' ? `${text} ${unit}` : text);
  switch (difference.is) {
    case 'added':
      return `${difference.part}, ${KIND_NAMES[difference.kind]}: ${others ? 'only here' : 'added'}`;
    case 'removed':
      return `${difference.part}, ${KIND_NAMES[difference.kind]}: ${others ? 'not here' : 'taken out'}`;
    case 'changed':
      return `${difference.part} ${name}: ${change(figure(difference.before), figure(difference.after))}`;
    case 'control':
      return `Control ${difference.control}: ${change(difference.before, difference.after)}`;
    case 'frame':
    case 'name':
      return `The ${difference.is}: ${change(difference.before, difference.after)}`;
  }
}
