import { mediumOf } from '@/core/circuit/medium';
import type { CircuitModel } from '@/core/circuit/model';
import type { Part } from '@/core/circuit/partSchema';
import type { Circuit, Edge, GaugeStand, MotionSeen, Reading, Setup, Test } from '@/core/circuit/schema';
import { isDeadKind, nodesOfTest, partOfTest } from '@/core/circuit/testPlace';
import { readingKind } from '@/core/kinds/reading/index';
import type { Lanes } from '@/core/path/lanes';
import type { CoilCondition } from '@/core/trace/conditions';
import { formatQuantity } from '@/core/units/formatQuantity';
import { CONDITION_WORDS } from './conditions';
import { pressureIn, type GaugeMark, type Quantity } from '@/core/units/quantities';

/** How a test and a reading are named. The core gives data; what a person reads is made here and beside. */
export interface Speaker {
  model: CircuitModel;
  lanes: Lanes;
  /** What the site's gauges are marked in. */
  gaugeUnit: GaugeMark;
}

/** What kind of part a reference stands for. */
export function kindOfPart({ model }: Speaker, ref: string): Part['kind'] {
  return model.compiled.circuit.parts.find((one) => one.ref === ref)!.kind;
}

/** Unit in which a quantity is read, by quantity; one without is a type error. A pressure's is the gauge's. */
const UNIT: Readonly<Record<Exclude<Quantity, 'pressure'>, string>> = {
  volts: 'V',
  amps: 'A',
  ohms: 'Ω',
  hertz: 'Hz',
};

export function modeName({ model, gaugeUnit }: Speaker, test: Test): string {
  switch (test.kind) {
    case 'volts':
      return [test.from, test.to].some(
        (name) => model.compiled.alternating[model.compiled.nodeIndex.get(name) ?? -1],
      )
        ? 'AC volts'
        : 'DC volts';
    case 'ohms':
      return 'ohms';
    case 'diode':
      return 'diode range';
    case 'insulation':
      return `insulation, ${test.testVolts} V`;
    case 'amps':
      return 'amps, clamp';
    case 'fuse':
      return 'watch the fuse';
    case 'click':
      return 'listen for the click';
    case 'trace':
      return 'clamp, a trace of it';
    case 'bit':
      return 'the controller’s own page';
    case 'function':
      return 'watch it work';
    case 'code':
      return 'read the codes';
    case 'hertz':
      return 'frequency';
    case 'pressure':
      // A bare figure is typed in it.
      return `gauge in ${gaugeUnit}`;
    case 'changes':
      return `pump on its port, meter on its contact, ${gaugeUnit}`;
    case 'hold':
      return mediumOf(model) === 'vacuum'
        ? 'hand pump, watched for a minute'
        : 'shut in, watched for a minute';
    case 'flow':
      return mediumOf(model) === 'vacuum' ? 'see what it draws' : 'feel what blows';
    case 'moves':
      return 'watch which way it goes';
    case 'gauge':
      return 'watch the machine’s own gauge';
  }
}

/** Number of a node's point, or its name when it has none. */
export function pointName({ model, lanes }: Speaker, node: string): string {
  const at = model.compiled.nodeIndex.get(node);
  const label = at === undefined ? undefined : lanes.labelOf.get(at);
  if (label === undefined) return node;
  return lanes.pointOf.has(at!) ? label : `${node} (${label})`;
}

/** Where a test is taken: "7 to 10", "through F7", "Y8". */
export function testPlace(speaker: Speaker, test: Test): string {
  if (test.kind === 'amps') return `through ${test.through}`;
  if (test.kind === 'bit') return bitWords(speaker, test);
  if (test.kind === 'gauge') return gaugeName(speaker, test.part);
  if (test.kind === 'changes') return `${test.part} ${EDGE_WORDS[test.edge]}`;
  return (
    partOfTest(test) ??
    nodesOfTest(test)
      .map((name) => pointName(speaker, name))
      .join(' to ')
  );
}

/** What was just written down: "Pinned 0.6 A, through Y1." */
export function pinnedWords(speaker: Speaker, test: Test, value: Reading['value']): string {
  return `Pinned ${valueWords(test.kind, value, speaker.gaugeUnit)}, ${testPlace(speaker, test)}.`;
}

/** Which way a pump's pressure goes. */
export const EDGE_WORDS: Readonly<Record<Edge, string>> = {
  rising: 'as it is pumped up',
  falling: 'as it is let go',
};

/** The machine's own gauge that follows a part, as the drawing calls it. */
export function gaugeName({ model }: Speaker, ref: string): string {
  const { part } = model.compiled.parts[model.compiled.partIndex.get(ref)!]!;
  return ('ownGauge' in part ? part.ownGauge?.name : undefined) ?? ref;
}

/** A bit as the controller's page calls it: "command “Clamp down” of A1". */
function bitWords({ model }: Speaker, { part, which }: Extract<Test, { kind: 'bit' }>): string {
  const found = model.compiled.circuit.parts.find(({ ref }) => ref === part);
  const called = found?.kind === 'driver' ? found.bits?.[which] : undefined;
  return `${which}${called === undefined ? '' : ` “${called}”`} of ${part}`;
}

/** Ohms as a meter shows them, over range as that. */
export function ohmsWords(ohms: number | 'OL'): string {
  return ohms === 'OL' ? 'OL' : quantity('ohms', ohms);
}

/** A figure that no gauge shows, with its unit. */
export function quantity(kind: Exclude<Quantity, 'pressure'>, value: number): string {
  return formatQuantity(value, UNIT[kind]);
}

/** Above this a vacuum gauge lies on its stop, kPa. */
const ON_VACUUM_GAUGE = 2;

/** A pressure kept in kPa, as the site's gauges show it. */
export function pressureWords(kPa: number, unit: GaugeMark): string {
  // A vacuum gauge does not show what is above the atmosphere.
  const shown = unit === 'inHg' && kPa > ON_VACUUM_GAUGE ? 'kPa' : unit;
  return formatQuantity(pressureIn(shown, kPa) + 0, shown);
}

/** The same where a switch turns on it: its points lie nearer to each other than a gauge of the line shows. */
export function switchPointWords(kPa: number, unit: GaugeMark): string {
  const shown = pressureIn(unit, kPa);
  return Math.abs(shown) < 1 ? `${Number(shown.toFixed(3))} ${unit}` : pressureWords(kPa, unit);
}

/** A figure of a reading, with the unit its kind is read in; the bare figure where it shows none. */
export function figureWords(kind: Test['kind'], value: number, unit: GaugeMark): string {
  const { shows } = readingKind(kind);
  if (shows.is !== 'figure') return formatQuantity(value, '');
  if (kind === 'changes') return switchPointWords(value, unit);
  return shows.quantity === 'pressure' ? pressureWords(value, unit) : quantity(shows.quantity, value);
}

export function valueWords(kind: Test['kind'], value: Reading['value'], unit: GaugeMark): string {
  if (value === 'OL') return kind === 'changes' ? 'does not change over' : 'OL';
  if (typeof value === 'number') return figureWords(kind, value, unit);
  if (typeof value === 'boolean') return value ? 'clicks' : 'no click';
  if (Array.isArray(value)) return value.length === 0 ? 'no code' : `code ${value.join(', ')}`;
  if (kind === 'moves') return MOTION_WORDS[value as MotionSeen];
  if (kind === 'gauge') return GAUGE_WORDS[value as GaugeStand];
  if (kind === 'trace') return CONDITION_WORDS[value as CoilCondition];
  return value;
}

const GAUGE_WORDS: Readonly<Record<GaugeStand, string>> = {
  zero: 'at zero',
  underHalf: 'under half',
  half: 'about half',
  overHalf: 'past half',
  full: 'full',
};

const MOTION_WORDS: Readonly<Record<MotionSeen, string>> = {
  extends: 'extends',
  retracts: 'retracts',
  little: 'moves a little',
  still: 'stays where it rests',
};

/** What is cut off for a reading: "F7 pulled". */
export function cutWords({ pulled, isolated }: Setup): string[] {
  return [...inWords(pulled, 'pulled'), ...inWords(isolated, 'isolated')];
}

/** What is done to the machine for a reading, besides cutting it off: "X8 unplugged", "W15 off Y8:1". */
export function changedWords(setup: Setup): string[] {
  return [
    ...inWords(setup.unplugged, 'unplugged'),
    ...inWords(setup.removed, 'out'),
    ...(setup.lifted ?? []).map(({ part, node }) => `${part} off ${node}`),
    ...inWords(setup.plugged, 'stopped'),
    ...inWords(setup.open, 'set free'),
    ...inWords(setup.override, 'pushed over'),
    ...inWords(setup.energised, 'on a bench supply'),
    ...(setup.jumpers ?? []).map(([from, to]) => `${from} bridged to ${to}`),
    ...(setup.swapped ?? []).map(([one, other]) => `${one} and ${other} swapped`),
  ];
}

function inWords(refs: readonly string[] | undefined, words: string): string[] {
  return refs?.length ? [`${refs.join(', ')} ${words}`] : [];
}

const STANDS_AT_REST: ReadonlySet<Reading['kind']> = new Set(['function', 'pressure', 'flow', 'gauge']);

/** A reading in one breath: "OL, 6 to 12, dead" or "Tilt left coil works, tilt left". */
export function readingWords(speaker: Speaker, reading: Reading): string {
  const { kind, value, setup } = reading;
  const part = partOfTest(reading);
  const { controls } = speaker.model.compiled.circuit;
  // At rest a valve lets through as well, to the other port: what is seen there or moves is told with it.
  const toldAtRest = STANDS_AT_REST.has(kind) && Object.keys(controls).length > 0;
  const positions = toldAtRest ? standWords(controls, setup) : positionWords(controls, setup);
  const changed = changedWords(kind === 'hold' ? { ...setup, plugged: [] } : setup);
  if (reading.kind === 'bit')
    return `${bitWords(speaker, reading)} ${reading.value}${positions ? `, ${positions}` : ''}`;
  if (reading.kind === 'trace')
    return `Trace of ${partWords(speaker, reading.part)}: ${valueWords(kind, value, speaker.gaugeUnit)}${positions ? `, ${positions}` : ''}`;
  if (reading.kind === 'changes') {
    const over =
      value === 'OL'
        ? 'does not change over'
        : `changes over at ${valueWords(kind, value, speaker.gaugeUnit)}`;
    return `${partWords(speaker, reading.part)} ${over}, ${EDGE_WORDS[reading.edge]}`;
  }
  if (part !== null && kind !== 'amps') {
    const where = [positions, ...changed].filter(Boolean).join(', ');
    return `${kind === 'gauge' ? gaugeName(speaker, part) : partWords(speaker, part)} ${valueWords(kind, value, speaker.gaugeUnit)}${where ? `, ${where}` : ''}`;
  }
  const condition = [
    kind === 'insulation'
      ? `insulation at ${reading.testVolts} V${reading.seconds === undefined ? '' : ` after ${reading.seconds} s`}${reading.celsius === undefined ? '' : `, at ${reading.celsius} °C`}`
      : '',
    reading.kind === 'ohms' && reading.celsius !== undefined ? `winding at ${reading.celsius} °C` : '',
    positions,
    ...changed,
    isDeadKind(kind) && kind !== 'insulation' && changed.length === 0 ? 'dead' : '',
  ]
    .filter(Boolean)
    .join(', ');
  return `${valueWords(kind, value, speaker.gaugeUnit)}, ${testPlace(speaker, reading)}${condition ? `, ${condition}` : ''}`;
}

export function partWords({ model }: Speaker, ref: string): string {
  const part = model.compiled.circuit.parts.find((one) => one.ref === ref);
  return part?.label ? `${ref} ${part.label.toLowerCase()}` : ref;
}

/** Where the controls stand, also where all of them rest. */
export function standWords(controls: Circuit['controls'], setup: Setup): string {
  return positionWords(controls, setup) || 'at rest';
}

/**
 * Controls that stand away from rest, which is the first position of each, whatever it is called, and whether it is seen
 * at once, before a timer has let go: "key on, tilt right", "key on, at once".
 */
export function positionWords(controls: Circuit['controls'], setup: Setup): string {
  const away = Object.entries(setup.controls ?? {})
    .filter(([control, position]) => position !== controls[control]?.[0])
    .map(([control, position]) => `${control} ${position}`);
  return [...away, ...(setup.afterSeconds === undefined ? [] : ['at once'])].join(', ');
}
