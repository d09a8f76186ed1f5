import type { Reading, Test } from '@/core/circuit/schema';
import type { Baseline } from '@/core/diagnosis/yardsticks';
import type { JobSheet, JobSheetName, SheetRow } from '@/core/sheets/onCircuit/jobSheet';
import type { NeedCheck } from '@/core/sheets/onCircuit/needsSheet';
import type { AnyVerdict, SheetVerdicts } from '@/core/sheets/onCircuit/verdicts';
import { siteTime } from '@/core/units/siteTime';
import { figureWords, partWords, pointName, positionWords, valueWords, type Speaker } from './readings';

/** What a sheet is called. */
export const SHEET_TITLE: Readonly<Record<JobSheetName, string>> = {
  functions: 'All functions',
  coil: 'Coils',
  windings: 'Two windings, three wires',
  contacts: 'Contact bank',
  terminals: 'Contacts, both ways',
  diodes: 'Diodes, both ways',
  interlocks: 'Interlock chain',
  timeline: 'Wires in sequence',
  drop: 'Volts lost on the way',
  insulation: 'Insulation',
  conductors: 'Conductor by conductor',
  outputs: 'Output matrix',
  survey: 'Plugs, pin by pin',
  needs: 'Three needs of a valve',
  cylinders: 'Bubbles past the piston',
  proofChain: 'Outputs, link by link',
  actuation: 'Pressure switch on a pump',
};

const COLUMNS: Readonly<Record<string, string>> = {
  state: 'Does it work',
  ohms: 'Ohms',
  amps: 'Amps',
  click: 'Click',
  load: 'Its load',
  pullInOhms: 'Pull-in to common',
  holdInOhms: 'Hold-in to common',
  overBoth: 'Pull-in to hold-in',
  coilVolts: 'At the coil, commanded',
  coilOhms: 'Coil',
  rivalAtRest: 'At its rival’s coil, at rest',
  openOhms: 'Contact open',
  openAlone: 'Open, one end bare',
  closedOhms: 'Contact closed',
  dropVolts: 'Drop under load',
  volts: 'Volts behind it',
  insulation: 'At test volts',
  ohmsAlone: 'Ohms, one end bare',
  forwardAlone: 'Red on the anode, one end bare',
  shouldBeOpen: 'Should be open',
  shouldBeClosed: 'Should be closed',
  supply: 'Its supply',
  atRest: 'Itself, at rest',
  loadOff: 'Itself, load off',
  loom: 'Its wire, itself off',
  uncommanded: 'Not commanded',
  commandBit: 'Its program asks',
  atOutput: 'At the output',
  atLoad: 'Across its load',
  throughLoad: 'Through it',
  forward: 'Red on the anode',
  reverse: 'Red on the cathode',
  look: 'Reading',
  rising: 'Pumped up',
  falling: 'Let go',
  bubbles: 'Out of the far port',
  plugOn: 'Plug on, commanded',
  plugOff: 'Plug off, commanded',
  ohmsPlugOff: 'Plug off, dead',
};

/** What a column reads; of a matrix its point's own name. */
export function columnWords(column: string): string {
  return COLUMNS[column] ?? (column.startsWith('[') ? momentWords(column) : column);
}

const AT_REST = 'At rest';

/** A moment of a sequence by its key: "key on, at once". */
function momentWords(column: string): string {
  const [turned, atOnce] = JSON.parse(column) as [[string, string] | null, boolean];
  return turned === null ? AT_REST : `${turned[0]} ${turned[1]}${atOnce ? ', at once' : ''}`;
}

/** What is done at a moment of a sequence that is run through at a pace. */
export function paceWords(column: string): string {
  const [turned] = JSON.parse(column) as [[string, string] | null, boolean];
  return turned === null ? 'at rest, recorder on' : `${turned[0]} ${turned[1]}`;
}

/** The same within a sentence. */
export function columnInText(column: string): string {
  return COLUMNS[column]?.toLowerCase() ?? columnWords(column).replace(AT_REST, AT_REST.toLowerCase());
}

/** A cell by its row and column. */
export function cellTitle(speaker: Speaker, sheet: JobSheet, [r, c]: readonly [number, number]): string {
  const row = rowTitle(speaker, sheet, sheet.rows[r]!);
  const column = columnInText(sheet.columns[c]!);
  return sheet.name === 'conductors' ? `${row} and ${column}` : `${row}: ${column}`;
}

const VERDICTS: { readonly [N in JobSheetName]: Readonly<Record<SheetVerdicts[N], string>> } = {
  functions: { good: 'works', weak: 'weak', dead: 'dead' },
  coil: {
    good: 'as it should be',
    low: 'too low: turns shorted',
    high: 'too high: a joint in it',
    open: 'open',
    wandering: 'comes and goes',
    lowHere: 'too low as it stands: it, or what lies across it',
    across: 'right by itself: something lies across it',
    notFed: 'its ohms are right, and it draws too little: look at what feeds it',
    moreDrawn: 'its ohms are right, and too much is drawn: something beside it draws',
    notSeated:
      'its ohms are right, and it draws too much: its armature does not seat, or something beside it draws',
  },
  windings: {
    good: 'as drawn',
    open: 'one leads nowhere',
    short: 'nothing but wire between two of them',
    doNotAdd: 'do not add up: read them again',
    exchanged: 'wires not as drawn',
    off: 'as drawn, but not their ohms',
  },
  contacts: {
    good: 'carries its load, and lets go',
    carries: 'carries its load',
    worn: 'worn: plan it',
    bad: 'bad contact',
    open: 'does not make',
    welded: 'welded shut',
    coil: 'coil open or shorted',
    needsLoad: 'wants its drop under load',
    mechanical: 'stuck, its coil is good and fed',
    elsewhere: 'read closed, perhaps round about: lift one end',
    notFed: 'its coil gets nothing: look at what feeds it',
    mayDrawMore: 'loses too much, or too much flows through it: clamp it',
    moreDrawn:
      'good itself, but more flows than its load should draw: look at the load, and what leaks beside it',
    heldOff:
      'kept out: the one that runs against it is fed at rest, and both in would short the supply. Find what feeds that one first',
  },
  terminals: {
    good: 'open and closed as drawn',
    weak: 'neither open nor closed',
    welded: 'closed where it should be open',
    open: 'does not make',
    elsewhere: 'some ohms, round about or over itself: lift one end',
    doubt: 'open: is its pressure there?',
  },
  diodes: {
    good: 'conducts one way only',
    shorted: 'shorted',
    shortedHere: 'shorted as it stands: it, or what lies across it',
    across: 'good by itself: something lies across it',
    open: 'open both ways',
    reversed: 'in the wrong way round: it shorts its feed when that is on',
    hidden: 'hidden by what lies across it: lift one end',
  },
  interlocks: {
    good: 'passes its volts on',
    bad: 'loses the volts here',
    doubt: 'open: is its pressure there?',
  },
  timeline: { good: 'as it should be', bad: 'not as it should be' },
  drop: {
    good: 'loses what it may',
    high: 'loses too much',
    mayDrawMore: 'loses too much, or its load draws too much',
    open: 'takes all there is: open',
    notMade: 'takes all there is: not closed; look at what closes it',
  },
  insulation: { good: 'good', watch: 'to be watched', bad: 'leaks' },
  conductors: { good: 'good', watch: 'to be watched', bad: 'leaks' },
  outputs: {
    bad: 'this one',
    heldDown: 'held down by what hangs on it',
    heldUp: 'held up by what hangs on it',
    field: 'in the field, not in the output',
  },
  survey: { good: 'as drawn', bad: 'not as drawn' },
  needs: { good: 'as it should be', bad: 'not as it should be' },
  proofChain: {
    good: 'arrives, and lets go',
    on: 'live while nobody commands it: itself, or what reaches its wire',
    leaks: 'neither off nor on while nobody commands it: it leaks, or its wire does',
    silent: 'no volts at rest: on, or nothing comes to it through its load',
    unfed: 'nothing comes to it: its load is not fed, or the way between is open',
    program: 'its program does not ask for it',
    output: 'gives too little: see its feed, and what hangs on it',
    way: 'lost between output and load',
    load: 'the load takes too little',
    tooMuch: 'the load takes too much: turns shorted, or something beside it',
  },
  cylinders: { good: 'tight at this end', bad: 'lets air past at this end' },
  actuation: { still: 'does not change over' },
};

/** What a sheet says of a row; nothing where what was read does not decide. */
export function sheetVerdictWords<N extends JobSheetName>(
  sheet: N,
  verdict: SheetVerdicts[N] | null,
): string {
  return verdict === null ? '' : VERDICTS[sheet][verdict];
}

export type VerdictTone = 'good' | 'watch' | 'bad';
const TONES: Readonly<Record<AnyVerdict, VerdictTone>> = {
  good: 'good',
  carries: 'good',
  watch: 'watch',
  worn: 'watch',
  needsLoad: 'watch',
  hidden: 'watch',
  doNotAdd: 'watch',
  elsewhere: 'watch',
  notFed: 'watch',
  field: 'watch',
  heldDown: 'watch',
  heldUp: 'watch',
  heldOff: 'watch',
  silent: 'watch',
  lowHere: 'watch',
  shortedHere: 'watch',
  across: 'watch',
  doubt: 'watch',
  moreDrawn: 'watch',
  mayDrawMore: 'watch',
  notSeated: 'watch',
  leaks: 'watch',
  notMade: 'watch',
  bad: 'bad',
  coil: 'bad',
  dead: 'bad',
  exchanged: 'bad',
  high: 'bad',
  load: 'bad',
  low: 'bad',
  mechanical: 'bad',
  off: 'bad',
  on: 'bad',
  open: 'bad',
  output: 'bad',
  program: 'bad',
  reversed: 'bad',
  short: 'bad',
  shorted: 'bad',
  still: 'bad',
  tooMuch: 'bad',
  unfed: 'bad',
  wandering: 'bad',
  way: 'bad',
  weak: 'bad',
  welded: 'bad',
};

/** A verdict that condemns, warns or clears. */
export function verdictTone(verdict: AnyVerdict | null): VerdictTone | null {
  return verdict === null ? null : TONES[verdict];
}

/** What a place read when earlier jobs were closed: "Proved here: 450 MΩ, 4 Feb 2026, job 398; OL, 3 Nov 2025, job 371." */
export function pastWords(
  kind: Test['kind'],
  past: readonly Baseline[],
  timeZone: string,
  unit: Speaker['gaugeUnit'],
): string {
  const said = past.map(
    ({ value, at, jobNumber }) =>
      `${valueWords(kind, value, unit)}, ${siteTime(at, timeZone).day}, job ${jobNumber}`,
  );
  return `Proved here: ${said.join('; ')}.`;
}

/** A figure of a cell, without the sign that only tells which lead was where. */
export function cellWords({ gaugeUnit }: Speaker, { kind }: Test, value: Reading['value']): string {
  return typeof value === 'number'
    ? figureWords(kind, Math.abs(value), gaugeUnit)
    : valueWords(kind, value, gaugeUnit);
}

/** Looks at a valve, as rows are named. */
const LOOKS: Readonly<Record<NeedCheck, string>> = {
  supply: 'gauge at its supply, commanded',
  override: 'pushed by hand',
  clicks: 'click on command',
  bit: 'command bit on the controller’s page',
  coil: 'volts across its coil, commanded',
  card: 'volts at the output, commanded',
  otherCoil: 'volts across its other coil, the same command',
  exhaust: 'exhaust stopped, what gathers there',
  exhaustAlone: 'the same with its lines off and outlets plugged',
  inlet: 'inlet line off, opened slowly',
  outlet: 'outlet line off, commanded',
  outletAtRest: 'the same line off, at rest',
  coilAtRest: 'volts across its coil, at rest',
  outletGauge: 'gauge at its outlet, commanded',
  commanded: 'what it moves, commanded',
};

/** A valve; one of two coils by the coil that it is looked at with. */
export const valveName = (name: string) => name.replace(' ', ' by ');

/** Parts by their reference, points as on the path: where a part has several contacts, between which. */
export function rowTitle(speaker: Speaker, { name }: JobSheet, row: SheetRow): string {
  if (name === 'insulation' && !row.between) {
    const place = `${pointName(speaker, row.name)}, ${row.name}`;
    return row.cut === undefined ? place : `Plug ${row.cut} off: ${place}`;
  }
  if (name === 'functions') {
    const test = row.cells[0]!.test as Extract<Test, { kind: 'function' }>;
    const position = positionWords(speaker.model.compiled.circuit.controls, test.setup);
    return [partWords(speaker, test.part), position].filter(Boolean).join(', ');
  }
  if (name === 'drop' || name === 'survey') return partWords(speaker, row.name);
  if (name === 'timeline') return `${pointName(speaker, row.name)}, ${row.name}`;
  if (name === 'interlocks' && row.name === 'supply') return 'Supply';
  if (name === 'cylinders') return `${row.name}, ${row.check}`;
  if (name === 'actuation') return `${row.name}, cycle ${row.check}`;
  if (name === 'needs') return `${valveName(row.name)}: ${LOOKS[row.check as NeedCheck]}`;
  if (row.with !== undefined) return `${row.name} with ${row.with}`;
  if (!row.between) return row.name;
  const [a, b] = row.between.map((node) => pointName(speaker, node));
  if (name === 'insulation') return `Between ${a} and ${b}, ${row.between.join(' and ')}`;
  return `${row.name.split(' ')[0]!}, ${a} to ${b}`;
}
