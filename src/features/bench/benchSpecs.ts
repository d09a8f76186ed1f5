import { CLASS_MOST_C } from '@/core/sheets/coil/service';
import type { SheetName } from '@/core/sheets/sheets';
import type { Quantity } from '@/core/units/quantities';

type What = { quantity?: Quantity; unit?: string };
export type Column =
  | ({ kind: 'figure'; key: string; label: string } & What)
  | { kind: 'choice'; key: string; label: string; options: readonly (readonly [string, string])[] }
  | { kind: 'yesNo'; key: string; label: string }
  | ({ kind: 'figures'; key: string; label: string } & What)
  | { kind: 'names'; key: string; label: string }
  | { kind: 'text'; key: string; label: string };

/** One field of a sheet's form. Paths with a point lie within an object. */
export type FieldSpec =
  | ({ kind: 'figure' | 'figures'; field: string; label: string } & What)
  | {
      kind: 'choice';
      field: string;
      label: string;
      options: readonly (readonly [string, string])[];
      /** What it means to leave it: the class decides, the usual school. */
      unset?: string;
    }
  | { kind: 'yesNo'; field: string; label: string }
  | { kind: 'names'; field: string; label: string; hint: string }
  | { kind: 'text'; field: string; label: string }
  | { kind: 'table'; field: string; label: string; columns: readonly Column[]; columnArrays?: true }
  /** By the names of one field, in one column each. */
  | {
      kind: 'byName';
      names: string;
      label: string;
      columns: readonly ({ key: string; label: string } & What)[];
    }
  /** The names of one field by themselves. */
  | ({ kind: 'grid'; field: string; names: string; label: string } & What);

const OHMS: What = { quantity: 'ohms', unit: 'Ω' };
const VOLTS: What = { quantity: 'volts', unit: 'V' };
const AMPS: What = { quantity: 'amps', unit: 'A' };
const PLACES = [
  ['pressed', 'pressed'],
  ['free', 'free'],
] as const;
const STATES = [
  ['rest', 'at rest'],
  ['operated', 'operated'],
] as const;
const figure = (field: string, label: string, what: What = {}): FieldSpec => ({
  kind: 'figure',
  field,
  label,
  ...what,
});
const choice = (
  field: string,
  label: string,
  ...options: (readonly [string, string])[]
): Extract<FieldSpec, { kind: 'choice' }> => ({
  kind: 'choice',
  field,
  label,
  options,
});
const col = (key: string, label: string, what: What = {}): Column => ({
  kind: 'figure',
  key,
  label,
  ...what,
});
const text = (key: string, label: string): Column => ({ kind: 'text', key, label });

const KPA = { unit: 'kPa' } as const;
const MOTIONS = [
  ['moves', 'moves'],
  ['still', 'stays still'],
] as const;
const BLOWS = [
  ['full', 'full and crisp'],
  ['weak', 'weak'],
  ['none', 'nothing'],
] as const;

/** A reading of insulation, today's or the last proved one: both are runs over time. */
const INSULATION_RUN: readonly Column[] = [
  text('from', 'From'),
  text('to', 'To'),
  col('ohms', 'Ohms', OHMS),
  col('seconds', 'After s'),
  col('temperatureC', '°C'),
];

/** What each sheet's form asks for, in the order of the work. */
export const BENCH_FORMS: Readonly<Record<SheetName, readonly FieldSpec[]>> = {
  coil: [
    { kind: 'figures', field: 'ohms', label: 'Ohms, in the order read', ...OHMS },
    figure('leadOhms', 'Leads held together', OHMS),
    figure('temperatureC', 'Its temperature', { unit: '°C' }),
    figure('maker.ohms', 'Maker, at 20 °C', OHMS),
    figure('maker.tolerance', 'Tolerance, as a share (0.08)'),
    { kind: 'figures', field: 'twins', label: 'Identical neighbours', ...OHMS },
    { kind: 'figures', field: 'own', label: 'Its own past', ...OHMS },
    { kind: 'figures', field: 'fleet', label: 'The fleet', ...OHMS },
    figure('supplyVolts', 'Volts at it', VOLTS),
    figure('hz', 'Hertz, 0 for direct current', { unit: 'Hz' }),
    figure('va', 'VA on its label', { unit: 'VA' }),
    figure('sealedAmps', 'Sealed amps', AMPS),
    figure('inrushAmps', 'Inrush amps', AMPS),
    figure('henries', 'Inductance', { unit: 'H' }),
    figure('measuredAmps', 'Amps it draws', AMPS),
    figure('driverLimitAmps', 'Limit of its driver', AMPS),
    figure('fuseAmps', 'Its fuse', AMPS),
    figure('pulseShare', 'Pulsed: on for this share (0.4)'),
    figure('flybackVolts', 'Pulsed: volts of its diode', VOLTS),
    figure('switchVolts', 'Pulsed: volts its switch keeps', VOLTS),
    figure('meterVolts', 'Pulsed: DC meter across it shows', VOLTS),
    figure('pinVolts', 'Pulsed: low-side pin to ground shows', VOLTS),
    figure('ratedVolts', 'Volts on its label', VOLTS),
    choice('device', 'It is', ['contactor', 'a contactor'], ['relay', 'a relay'], ['valve', 'a valve']),
    figure('pullInVolts', 'Pulled in at, supply raised', VOLTS),
    figure('dropOutVolts', 'Let go at, supply lowered', VOLTS),
    figure('hotOhms', 'Ohms again, hot', OHMS),
    choice(
      'insulationClass',
      'Class of its insulation',
      ...(Object.entries(CLASS_MOST_C).map(([one, most]) => [one, `${one}, ${most} °C`]) as [
        string,
        string,
      ][]),
    ),
    figure('onSeconds', 'On for', { unit: 's' }),
    figure('cycleSeconds', 'of a cycle of', { unit: 's' }),
    figure('dutyShare', 'Duty on its label, as a share (0.25)'),
  ],
  windings: [
    { kind: 'names', field: 'wires', label: 'The three wires', hint: 'red, white, black' },
    {
      kind: 'table',
      field: 'ohms',
      label: 'Ohms between them',
      columns: [text('from', 'From'), text('to', 'To'), col('value', 'Ohms', OHMS)],
    },
    figure('leadOhms', 'Leads held together', OHMS),
  ],
  insulation: [
    { kind: 'names', field: 'conductors', label: 'Conductors', hint: '1, 2, 3' },
    { kind: 'text', field: 'frame', label: 'Frame' },
    figure('circuitVolts', 'Volts of the circuit', VOLTS),
    figure('testVolts', 'Test volts', VOLTS),
    { kind: 'names', field: 'electronic', label: 'Electronics still connected', hint: 'none' },
    {
      ...choice(
        'policy',
        'Passes',
        ['megohm', 'one megohm'],
        ['kvPlusOne', 'kV + 1 MΩ'],
        ['overRange', 'over range only'],
      ),
      unset: 'by its class',
    },
    {
      ...choice(
        'material',
        'With heat it',
        ['usual', 'halves every 10 °C'],
        ['thermosetting', 'is thermosetting'],
      ),
      unset: 'halves every 10 °C, the usual',
    },
    {
      kind: 'table',
      field: 'readings',
      label: 'Today',
      columns: INSULATION_RUN,
    },
    {
      kind: 'table',
      field: 'before',
      label: 'Last proved',
      columns: INSULATION_RUN,
    },
  ],
  contacts: [
    figure('leadOhms', 'Leads held together', OHMS),
    {
      ...choice(
        'school',
        'Judged in',
        ['millivolts', 'millivolts, heavy contacts'],
        ['volts', 'volts, line poles'],
        ['percent', 'percent of line'],
      ),
      unset: 'millivolts, the usual',
    },
    figure('lineVolts', 'Line volts', VOLTS),
    {
      kind: 'table',
      field: 'contactors',
      label: 'Contactors',
      columns: [
        text('name', 'Name'),
        { kind: 'yesNo', key: 'clicks', label: 'Clicks' },
        col('coilOhms', 'Coil', OHMS),
        col('openOhms', 'Open', OHMS),
        col('closedOhms', 'Closed', OHMS),
        col('dropVolts', 'Drop', VOLTS),
        { kind: 'figures', key: 'drops', label: 'Further makes', ...VOLTS },
        col('atAmps', 'At', AMPS),
        col('ratedAmps', 'Rated', AMPS),
      ],
    },
    {
      kind: 'table',
      field: 'directions',
      label: 'Directions',
      columns: [
        text('name', 'Direction'),
        { kind: 'yesNo', key: 'works', label: 'Works' },
        { kind: 'names', key: 'pair', label: 'Its two, if known' },
      ],
    },
    {
      kind: 'table',
      field: 'poles',
      label: 'Poles: switched or straight through, and which end is fed',
      columns: [
        text('contactor', 'Of'),
        text('from', 'From'),
        text('to', 'To'),
        col('restOhms', 'Ohms at rest', OHMS),
        col('operatedOhms', 'Held in', OHMS),
        col('fromVolts', 'Volts at the first', VOLTS),
        col('toVolts', 'at the second', VOLTS),
      ],
    },
    figure('onSeconds', 'On for', { unit: 's' }),
    figure('cycleSeconds', 'of a cycle of', { unit: 's' }),
    figure('dutyShare', 'Duty on its label, as a share (0.25)'),
    figure('needs.amps', 'A spare must carry', AMPS),
    figure('needs.dutyShare', 'for a share of the time (0.25)'),
    figure('needs.poles', 'with so many poles'),
    figure('needs.coilVolts', 'and a coil for', VOLTS),
    choice('needs.coil', 'of', ['DC', 'direct current'], ['AC', 'alternating current']),
    {
      kind: 'table',
      field: 'spares',
      label: 'Spares, by their labels',
      columns: [
        text('name', 'Name'),
        col('amps', 'Amps', AMPS),
        col('dutyShare', 'Duty share'),
        col('poles', 'Poles'),
        col('coilVolts', 'Coil volts', VOLTS),
        text('coil', 'AC or DC'),
      ],
    },
  ],
  terminals: [
    { kind: 'names', field: 'terminals', label: 'Terminals', hint: '85, 86, 30, 87, 87a' },
    {
      kind: 'table',
      field: 'readings',
      label: 'Readings',
      columns: [
        text('from', 'From'),
        text('to', 'To'),
        { kind: 'choice', key: 'state', label: 'State', options: STATES },
        col('value', 'Ohms', OHMS),
      ],
    },
    { kind: 'names', field: 'claim.coil', label: 'Coil by its symbol', hint: '85, 86' },
    {
      kind: 'table',
      field: 'claim.poles',
      label: 'Poles by its symbol',
      columns: [text('com', 'Common'), text('no', 'Closes'), text('nc', 'Opens')],
    },
  ],
  outputs: [
    { kind: 'names', field: 'outputs', label: 'Outputs', hint: '1, 2, 3, 4' },
    { kind: 'text', field: 'master', label: 'Master output' },
    figure('supplyVolts', 'Volts at the controller’s supply', VOLTS),
    choice('loads', 'Loads', ['on', 'connected'], ['off', 'off']),
    choice(
      'against',
      'The volts stand against',
      ['load', 'the other side of the load'],
      ['frame', 'the frame'],
      ['supply', 'the supply'],
    ),
    choice('sensorLoop', 'Sensor loop', ['closed', 'closed'], ['open', 'open'], ['bridged', 'bridged']),
    { kind: 'grid', field: 'matrix', names: 'outputs', label: 'Commanded by measured, volts', ...VOLTS },
    { kind: 'grid', field: 'lowImpedance', names: 'outputs', label: 'The same with low impedance', ...VOLTS },
  ],
  survey: [
    { kind: 'names', field: 'pins', label: 'Pins', hint: '1, 2, 3' },
    figure('supplyVolts', 'Supply', VOLTS),
    figure('referenceVolts', 'Reference', VOLTS),
    {
      kind: 'byName',
      names: 'pins',
      label: 'Each pin',
      columns: [
        { key: 'unplugged', label: 'Unplugged', ...VOLTS },
        { key: 'plugged', label: 'Plugged, at rest', ...VOLTS },
        { key: 'commanded', label: 'Commanded', ...VOLTS },
        { key: 'ohmsToFrame', label: 'To frame', ...OHMS },
      ],
    },
    {
      kind: 'table',
      field: 'ohmsBetween',
      label: 'Between pins of the part',
      columns: [text('from', 'From'), text('to', 'To'), col('value', 'Ohms', OHMS)],
    },
    {
      kind: 'table',
      field: 'sweep',
      label: 'Sweep of a sensor',
      columns: [col('position', 'Position'), col('volts', 'Volts', VOLTS)],
    },
  ],
  diode: [
    figure('forward', 'Red on the anode', VOLTS),
    figure('reverse', 'Leads swapped', VOLTS),
    figure('coilOhms', 'Coil still across it', OHMS),
    choice('overShows', 'Over range shows as', ['OL', 'OL'], ['1', '1'], ['0', '0.00']),
  ],
  interlocks: [
    {
      kind: 'table',
      field: 'switches',
      label: 'Switches, in order',
      columns: [
        text('name', 'Name'),
        {
          kind: 'choice',
          key: 'type',
          label: 'Kind',
          options: [
            ['NO', 'NO'],
            ['NC', 'NC'],
          ],
        },
        { kind: 'yesNo', key: 'pressed', label: 'Pressed now' },
      ],
    },
    figure('supplyVolts', 'Supply', VOLTS),
    {
      kind: 'table',
      field: 'volts',
      label: 'Volts after',
      columns: [text('after', 'After'), col('value', 'Volts', VOLTS)],
    },
  ],
  spareContact: [
    choice('needs', 'It has to be', ['closed', 'closed'], ['open', 'open']),
    choice('when', 'When it is', ...PLACES),
    choice('inServiceBefore', 'Where the old one stood it was', ...PLACES),
  ],
  drop: [
    figure('amps', 'Current', AMPS),
    figure('temperatureC', 'Temperature of the wire', { unit: '°C' }),
    figure('budgetVolts', 'May lose', VOLTS),
    {
      kind: 'table',
      field: 'segments',
      label: 'Segments',
      columns: [
        text('name', 'Name'),
        col('lengthMetres', 'Metres, once'),
        col('mm2', 'mm²'),
        text('awg', 'or AWG'),
        col('measuredVolts', 'Loses', VOLTS),
      ],
    },
  ],
  wire: [
    figure('lengthMetres', 'Length, once', { unit: 'm' }),
    figure('amps', 'Current it has to carry', AMPS),
    figure('supplyVolts', 'Supply', VOLTS),
    figure('mostShare', 'May lose, as a share (0.03)'),
    choice('returns', 'Home', ['wire', 'in a wire like it'], ['frame', 'over the frame']),
    figure('temperatureC', 'Temperature of the wire', { unit: '°C' }),
    figure('mm2', 'Section of the wire that is there', { unit: 'mm²' }),
    { kind: 'text', field: 'awg', label: 'or its AWG' },
    figure('nearOhms', 'Near end to the frame, both ends off', OHMS),
    figure('farOhms', 'Far end to the frame', OHMS),
    figure('leadOhms', 'Leads held together', OHMS),
  ],
  bubbles: [
    choice('end', 'Piston stands', ['extended', 'extended'], ['retracted', 'retracted']),
    { kind: 'yesNo', field: 'portPlugged', label: 'Unused port plugged' },
    figure('whileMoving', 'Bubbles a minute while it moves'),
    figure('atEnd', 'Bubbles a minute at the end stop'),
    figure('bubbleMm', 'Size of a bubble', { unit: 'mm' }),
  ],
  actuation: [
    choice('atRest', 'Without pressure it is', ['open', 'open'], ['closed', 'closed']),
    figure('ratedKpa', 'Set point, rising', { unit: 'kPa' }),
    {
      kind: 'table',
      field: 'cycles',
      label: 'Cycles',
      columns: [
        col('makeKpa', 'Makes, kPa'),
        col('breakKpa', 'Breaks, kPa'),
        { kind: 'yesNo', key: 'changed', label: 'Changed' },
      ],
    },
  ],
  needs: [
    {
      ...choice('medium', 'It works with', ['air', 'air'], ['oil', 'oil'], ['vacuum', 'vacuum']),
      unset: 'air, the usual',
    },
    figure('supplyKpa', 'Gauge at its supply, while commanded', KPA),
    figure('restKpa', 'the same at rest', KPA),
    figure('neededKpa', 'Least it shifts with, by its maker', KPA),
    choice('commanded', 'Commanded, what it moves', ...MOTIONS),
    choice('override', 'Pushed by hand, what it moves', ...MOTIONS),
    { kind: 'yesNo', field: 'clicks', label: 'Its coil clicks' },
    choice(
      'exhaust',
      'A finger on its exhaust for ten seconds, let go',
      ['none', 'nothing'],
      ['pushes', 'air had gathered'],
    ),
    choice(
      'exhaustAlone',
      'The same, lines off and outlets plugged',
      ['none', 'nothing'],
      ['pushes', 'air had gathered'],
    ),
    figure('ratedVolts', 'Volts on its coil’s label', VOLTS),
    { kind: 'yesNo', field: 'bit', label: 'The bit goes from 0 to 1' },
    figure('cardVolts', 'Volts at the output card', VOLTS),
    figure('cableVolts', 'at the end of the cable', VOLTS),
    figure('coilVolts', 'across the coil, plugged on', VOLTS),
    { kind: 'yesNo', field: 'twoCoils', label: 'It has two coils' },
    figure('otherCoilVolts', 'Volts across the other one', VOLTS),
    choice('inlet', 'Its inlet line off, opened slowly', ...BLOWS),
    { kind: 'yesNo', field: 'wet', label: 'Water comes with it' },
    choice('outlet', 'Its outlet line off, pushed by hand', ...BLOWS),
    choice('outletCommanded', 'The same on command', ...BLOWS),
    choice('outletAtRest', 'the same at rest', ...BLOWS),
    figure('coilAtRestVolts', 'Volts across the coil, at rest', VOLTS),
    figure('outletKpa', 'Gauge at its outlet, while commanded', KPA),
    choice('onNeighboursPlug', 'On the neighbour’s plug it', ...MOTIONS),
    choice('plugOnNeighbour', 'The neighbour on its plug', ...MOTIONS),
  ],
  hold: [
    choice(
      'of',
      'It is',
      ['vacuum', 'an actuator on a hand pump'],
      ['air', 'a line or vessel of air'],
      ['standing', 'a system left standing'],
    ),
    figure('startKpa', 'Gauge at first, a vacuum with a minus', KPA),
    figure('endKpa', 'Gauge at last', KPA),
    figure('seconds', 'After', { unit: 's' }),
    figure('litres', 'Its volume', { unit: 'L' }),
    figure('gaugeKpa', 'Smallest step of the gauge', KPA),
    figure('startC', 'Temperature at first', { unit: '°C' }),
    figure('endC', 'at last', { unit: '°C' }),
    figure('atmosphereKpa', 'Air around it', KPA),
  ],
  evacuation: [
    {
      kind: 'table',
      field: 'rise',
      label: 'Pump shut off: absolute pressure',
      columns: [col('seconds', 'After s'), col('pa', 'Pa (a micron of mercury is 0.133)')],
    },
    figure('passPa', 'Must stay below', { unit: 'Pa' }),
    figure('forSeconds', 'for at least', { unit: 's' }),
  ],
  stroke: [
    figure('boreMm', 'Bore', { unit: 'mm' }),
    figure('rodMm', 'Rod', { unit: 'mm' }),
    figure('strokeMm', 'Stroke', { unit: 'mm' }),
    figure('supplyKpa', 'Gauge at the valve while it moves', KPA),
    figure('loadN', 'Load against it on its way out, less than 0 helps', { unit: 'N' }),
    figure('feedConductance', 'What feeds it, conductance', { unit: 'dm³/(s·bar)' }),
    figure('exhaustOutConductance', 'What lets its rod side go', { unit: 'dm³/(s·bar)' }),
    figure('exhaustInConductance', 'What lets its cap side go', { unit: 'dm³/(s·bar)' }),
    figure('deadCm3', 'Dead space and line of each end', { unit: 'cm³' }),
    figure('oilLpm', 'On oil: what the pump delivers, in place of conductances', { unit: 'L/min' }),
    figure('outSeconds', 'Out, from the valve’s shift to the end', { unit: 's' }),
    figure('inSeconds', 'In, the same', { unit: 's' }),
    figure('outStartSeconds', 'Out, until it begins to move', { unit: 's' }),
    figure('inStartSeconds', 'In, until it begins to move', { unit: 's' }),
  ],
  connector: [
    { kind: 'names', field: 'pins', label: 'Pins', hint: '1, 2, PE' },
    {
      kind: 'table',
      field: 'through',
      label: 'Through, end to end',
      columns: [text('pin', 'Pin'), col('ohms', 'Ohms', OHMS)],
    },
    {
      kind: 'table',
      field: 'between',
      label: 'Between pins, the other end open',
      columns: [text('from', 'From'), text('to', 'To'), col('ohms', 'Ohms', OHMS)],
    },
    figure('leadOhms', 'Meter leads held together', OHMS),
    { kind: 'text', field: 'anode', label: 'A diode in it: anode on' },
    { kind: 'text', field: 'cathode', label: 'cathode on' },
    figure('forward', 'Red on the anode', VOLTS),
    figure('reverse', 'Red on the cathode', VOLTS),
  ],
  saturation: [
    { kind: 'text', field: 'refrigerant', label: 'Refrigerant' },
    figure('kPaGauge', 'Gauge pressure', { unit: 'kPa' }),
    figure('kPaAbs', 'or absolute', { unit: 'kPa' }),
    figure('bubbleC', 'or bubble point', { unit: '°C' }),
    figure('dewC', 'or dew point', { unit: '°C' }),
    figure('altitudeMetres', 'Altitude', { unit: 'm' }),
    figure('vapourLineC', 'Pipe, vapour side', { unit: '°C' }),
    figure('liquidLineC', 'Pipe, liquid side', { unit: '°C' }),
    {
      kind: 'table',
      field: 'table',
      label: 'The maker’s table goes before the fit',
      columns: [
        col('celsius', '°C'),
        col('kPaAbs', 'kPa absolute'),
        col('dewKPaAbs', 'dew line, of a blend'),
      ],
    },
  ],
  planner: [
    choice('sensor', 'Sensor', ['outside', 'outside'], ['line', 'in the line'], ['pressure', 'pressure']),
    choice('acts', 'Comes on', ['below', 'below'], ['above', 'above']),
    figure('cutIn', 'Cut-in, °C or kPa'),
    figure('cutOut', 'Cut-out'),
    { kind: 'text', field: 'refrigerant', label: 'or out of pressures, of refrigerant' },
    choice('side', 'The sensor is on', ['bubble', 'liquid'], ['dew', 'vapour']),
    figure('cutInKpaGauge', 'On at, gauge', KPA),
    figure('cutOutKpaGauge', 'Off at, gauge', KPA),
    figure('altitudeMetres', 'Altitude', { unit: 'm' }),
    figure('minimumOnSeconds', 'On at least', { unit: 's' }),
    figure('minimumOffSeconds', 'Off at least', { unit: 's' }),
    figure('lowC', 'A day, coldest', { unit: '°C' }),
    figure('highC', 'warmest', { unit: '°C' }),
    figure('coldestHour', 'coldest at', { unit: 'o’clock' }),
    figure('days', 'So many days'),
    figure('shift', 'On for long, the sensor reads more by', { unit: 'K or kPa' }),
    figure('settleSeconds', 'It follows in', { unit: 's' }),
    {
      kind: 'table',
      field: 'curve',
      label: 'Or a curve of its own',
      columns: [col('seconds', 'Seconds'), col('value', 'Value')],
    },
  ],
  cutIn: [
    choice('sensor', 'Sensor', ['outside', 'outside'], ['line', 'in the line'], ['pressure', 'pressure']),
    choice('acts', 'Comes on', ['below', 'below'], ['above', 'above']),
    figure('cutIn', 'Cut-in'),
    figure('cutOut', 'Cut-out'),
    figure('minimumOnSeconds', 'On at least', { unit: 's' }),
    figure('minimumOffSeconds', 'Off at least', { unit: 's' }),
    choice('initially', 'To begin with', ['on', 'on'], ['off', 'off']),
    {
      kind: 'table',
      field: 'curve',
      label: 'Curve',
      columns: [col('seconds', 'Seconds'), col('value', 'Value')],
    },
  ],
  functions: [
    {
      kind: 'table',
      field: 'functions',
      label: 'Functions',
      columns: [
        text('name', 'Function'),
        { kind: 'names', key: 'parts', label: 'Parts it uses' },
        {
          kind: 'choice',
          key: 'state',
          label: 'It',
          options: [
            ['works', 'works'],
            ['weak', 'is weak'],
            ['dead', 'is dead'],
          ],
        },
      ],
    },
  ],
  trace: [
    choice(
      'kind',
      'What it is',
      ['inrush', 'start of a motor'],
      ['dip', 'current of a coil'],
      ['pwm', 'pulses'],
    ),
    choice('quantity', 'In', ['amps', 'amps'], ['volts', 'volts']),
    {
      kind: 'table',
      field: 'points',
      label: 'Points',
      columns: [col('seconds', 'Seconds'), col('values', 'Value')],
      columnArrays: true,
    },
  ],
};
