import { findingWords, needWords } from './benchSheets';
import { windingsFound } from './windings';
import type { JobSheet, JobSheetName, SheetRow } from '@/core/sheets/onCircuit/jobSheet';
import { refOfKey } from '@/core/sheets/onCircuit/functionsSheet';
import type { FunctionsAnswer } from '@/core/sheets/functions/functions';
import type { NeedsAnswer } from '@/core/sheets/needs/needs';
import type { Bearing } from '@/core/sheets/onCircuit/bearing';
import type { SealFinding } from '@/core/sheets/bubbles/seal';
import type { SealAnswer } from '@/core/sheets/onCircuit/cylindersSheet';
import type { NeedCheck } from '@/core/sheets/onCircuit/needsSheet';
import type { OutputsAnswer, OutputsFinding } from '@/core/sheets/outputs/outputs';
import type { SheetAnswer } from '@/core/sheets/sheet';
import type { WindingPairAnswer } from '@/core/sheets/onCircuit/windingsSheet';
import type { TimelineAnswer } from '@/core/sheets/onCircuit/timelineSheet';
import type { Baseline } from '@/core/diagnosis/yardsticks';
import { siteTime } from '@/core/units/siteTime';
import type { Reading, Test } from '@/core/circuit/schema';
import {
  figureWords,
  partWords,
  pointName,
  positionWords,
  quantity,
  valueWords,
  type Speaker,
} from './readings';
import { actuationFound } from './switching';

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
  openOhms: 'Contact open',
  openAlone: 'Open, one end bare',
  closedOhms: 'Contact closed',
  dropVolts: 'Drop under load',
  volts: 'Volts behind it',
  insulation: 'At test volts',
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

const VERDICTS: Readonly<Record<JobSheetName, Readonly<Record<string, string>>>> = {
  functions: { good: 'works', weak: 'weak', dead: 'dead' },
  coil: {
    good: 'as it should be',
    low: 'too low: turns shorted',
    high: 'too high: a joint in it',
    open: 'open',
    wandering: 'comes and goes',
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
  },
  terminals: {
    good: 'open and closed as drawn',
    weak: 'neither open nor closed',
    welded: 'closed where it should be open',
    open: 'does not make',
    elsewhere: 'some ohms, round about or over itself: lift one end',
  },
  diodes: {
    good: 'conducts one way only',
    shorted: 'shorted',
    open: 'open both ways',
    reversed: 'in the wrong way round: it shorts its feed when that is on',
    hidden: 'hidden by what lies across it: lift one end',
  },
  interlocks: { good: 'passes its volts on', bad: 'loses the volts here' },
  timeline: { good: 'as it should be', bad: 'not as it should be' },
  drop: { good: 'loses what it may', high: 'loses too much' },
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
    on: 'on while nobody commands it',
    program: 'its program does not ask for it',
    output: 'the output gives too little',
    way: 'lost between output and load',
    load: 'the load takes too little',
  },
  cylinders: { good: 'tight at this end', bad: 'lets air past at this end' },
  actuation: { still: 'does not change over' },
};

/** What a sheet says of a row; nothing where what was read does not decide. */
export function sheetVerdictWords(sheet: JobSheetName, verdict: string | null): string {
  return verdict === null ? '' : (VERDICTS[sheet][verdict] ?? verdict);
}

const WATCHED: readonly string[] = [
  'watch',
  'worn',
  'needsLoad',
  'hidden',
  'doNotAdd',
  'elsewhere',
  'notFed',
  'field',
  'heldDown',
  'heldUp',
];

/** A verdict that condemns, warns or clears. */
export function verdictTone(verdict: string | null): 'good' | 'watch' | 'bad' | null {
  if (verdict === null) return null;
  if (verdict === 'good' || verdict === 'carries') return 'good';
  return WATCHED.includes(verdict) ? 'watch' : 'bad';
}

const CAUSES: Readonly<Record<string, string>> = {
  healthy: 'Every output does what it is told, and no other.',
  deadSource: 'No supply at the controller.',
  openSensorLoop: 'The sensor loop is open.',
  deadMaster: 'The master does not come on.',
  deadModule: 'A whole module is dead',
  deadOutput: 'One output is dead',
  crossed: 'Two outputs are crossed, or live together',
  leaking: 'An output leaks while nobody commands it',
  ghost: 'Volts that any load takes away: coupled in, no fault',
  selector: 'The selector commands another output than it says',
  openCommon: 'The common of the loads is open.',
};

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

/** What in an output's run does not bear what its load draws, in a sentence. */
export function bearingWords(found: Bearing): string {
  const { part } = found;
  switch (found.code) {
    case 'fuseTooSmall':
      return `${part} carries ${quantity('amps', found.amps)} while this is on: ${quantity('amps', found.rated)} does not hold that for good.`;
    case 'fuseAtInrush':
      return `${part}, ${quantity('amps', found.rated)}, may go in the moment that the load draws ${quantity('amps', found.amps)}.`;
    case 'limitTooSmall':
      return `${part} gives ${quantity('amps', found.rated)} at most, and its load draws ${quantity('amps', found.amps)} at first.`;
    case 'labelNotSaid':
      return `Nobody said what ${part}’s label says: whether it bears is not known.`;
    case 'inrushNotKnown':
      return `What ${part} draws before its gap is closed is not known: read it from the label before fuse and contact are called good for it.`;
  }
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
const valveName = (name: string) => name.replace(' ', ' by ');

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

/** What was found, in a sentence or two: the first thing on the sheet. */
export function sheetFoundWords(speaker: Speaker, sheet: JobSheet): string[] {
  const titleOf = (row: SheetRow) => rowTitle(speaker, sheet, row);
  const bad = sheet.rows.filter(({ verdict }) => verdictTone(verdict) === 'bad');
  const watch = sheet.rows.filter(({ verdict }) => verdictTone(verdict) === 'watch');
  const read = sheet.rows.some(({ cells }) => cells.some((cell) => cell?.value !== null && cell !== null));
  if (!read) return ['Nothing is read yet.'];
  if (sheet.name === 'outputs') return outputsFound(sheet.answers[0]!);
  if (sheet.name === 'functions') return functionsFound(sheet);
  if (sheet.name === 'interlocks') return interlocksFound(sheet);
  if (sheet.name === 'needs') return needsFound(sheet);
  if (sheet.name === 'timeline') return timelineFound(sheet, titleOf);
  if (sheet.name === 'cylinders') return cylindersFound(sheet);
  if (sheet.name === 'actuation') return actuationFound(sheet, speaker.gaugeUnit);
  if (sheet.name === 'conductors') return conductorsFound(sheet);
  if (sheet.name === 'windings') return windingsFound(sheet.answers as WindingPairAnswer[]);
  const lines = bad.map((row) => `${titleOf(row)}: ${sheetVerdictWords(sheet.name, row.verdict)}.`);
  if (watch.length > 0)
    lines.push(...watch.map((row) => `${titleOf(row)}: ${sheetVerdictWords(sheet.name, row.verdict)}.`));
  if (lines.length > 0) return [...lines.slice(0, 4), ...liesOnWords(sheet)];
  const open = sheet.rows.filter(({ verdict }) => verdict === null || verdict === 'carries').length;
  return [
    open > 0 ? 'Nothing bad in what was read. The rest is not known yet.' : 'All of it is as it should be.',
  ];
}

/** Pairs that leak, then those to be watched; else how far the sheet has come. */
function conductorsFound({ rows, columns, verdicts = [] }: JobSheet): string[] {
  const pairs = (wanted: string) =>
    rows.flatMap(({ name }, r) =>
      verdicts[r]!.flatMap((verdict, c) => (verdict === wanted ? [`${name} and ${columns[c]!}`] : [])),
    );
  const [bad, watch] = [pairs('bad'), pairs('watch')];
  const lines = [
    ...bad.map((pair) => `Between ${pair} it leaks.`),
    ...watch.map((pair) => `Between ${pair}: to be watched.`),
  ];
  if (lines.length > MOST_TOLD)
    return [...lines.slice(0, MOST_TOLD), `And ${lines.length - MOST_TOLD} more.`];
  if (lines.length > 0) return lines;
  const open = rows.some(({ cells }) => cells.some((cell) => cell !== null && cell.value === null));
  return [open ? 'Nothing leaks of what was read. The rest is not known yet.' : 'No conductor leaks.'];
}

function liesOnWords({ liesOn = [] }: JobSheet): string[] {
  return liesOn.length > 0 && liesOn.length <= MOST_TOLD
    ? [`On all that leaks lies ${liesOn.join(', ')}.`]
    : [];
}

const SEALS: Readonly<Record<SealFinding, string>> = {
  tight: 'its piston is tight at both ends. In between it is not proved.',
  rodLipOrCapBore:
    'air passes at the retracted end only: the lip towards the rod, or the bore worn near the cap.',
  capLipOrRodBore:
    'air passes at the extended end only: the lip towards the cap, or the bore worn near the rod.',
  failed: 'air passes at both ends: the seal has failed, or the bore is scored.',
};

/** What both ends of each piston say; while it moves bubbles are the air that it pushes out. */
function cylindersFound({ answers }: JobSheet): string[] {
  const told = (answers as unknown as SealAnswer[]).flatMap(({ cylinder, seal }) =>
    seal ? [`${cylinder}: ${SEALS[seal]}`] : [],
  );
  return told.length > 0
    ? told
    : ['One end alone says nothing of the other. Bubbles while it moves are normal.'];
}

/** What each valve lacks, or has so far; of a valve that nothing was read of nothing is said. */
function needsFound({ rows, answers }: JobSheet): string[] {
  const valves = [...new Set(rows.map(({ name }) => name))];
  return valves.flatMap((valve, at) => {
    if (rows.every(({ name, cells }) => name !== valve || (cells[0]?.value ?? null) === null)) return [];
    const answer = answers[at] as NeedsAnswer;
    const { missing, has, findings, medium } = answer;
    const said = (needs: NeedsAnswer['has']) => needs.map((need) => needWords(need, medium));
    const told = findings.filter(({ code }) => code !== 'neededNotKnown').map(findingWords);
    const named = valveName(valve);
    if (missing.length > 0) return [`${named} lacks ${said(missing).join(' and ')}.`, ...told];
    const known = has.length > 0 ? ` It has ${said(has).join(', ')}.` : '';
    return [
      answer.next === null ? `${named} lacks nothing of what was read.` : `${named}: not known yet.${known}`,
      ...told,
    ];
  });
}

const TOLD_OF_OUTPUTS: readonly string[] = [
  'loadMayHold',
  'heldDown',
  'heldUp',
  'fieldDead',
  'fieldLive',
] satisfies OutputsFinding['code'][];

function outputsFound(answer: SheetAnswer): string[] {
  const { cause, of, findings } = answer as OutputsAnswer;
  const more = findings.filter(({ code }) => TOLD_OF_OUTPUTS.includes(code)).map(findingWords);
  if (cause !== null) return [outputsCauseWords(cause, of), ...more];
  return more.length > 0 ? more : ['Not known yet: what was read fits more than one cause.'];
}

/** What an output matrix comes to, with the outputs that it is about. */
export function outputsCauseWords(cause: string, of: readonly string[]): string {
  const words = CAUSES[cause] ?? cause;
  if (words.endsWith('.')) return words;
  return of.length > 0 ? `${words}: ${of.join(', ')}.` : `${words}.`;
}

/** Suspects that are told by name; of more only how many. */
const MOST_TOLD = 6;

/** Parts of a list that are told by name: who stands at the machine looks for names, not for a number. */
const MOST_NAMED = 12;

function named(parts: readonly string[]): string {
  const more = parts.length - MOST_NAMED;
  return more > 1 ? `${parts.slice(0, MOST_NAMED).join(', ')} and ${more} more` : parts.join(', ');
}

function functionsFound({ answers }: JobSheet): string[] {
  const { suspect, cleared, findings } = answers[0] as FunctionsAnswer;
  const codes = findings.map(({ code }) => code);
  if (codes.includes('moreThanOne'))
    return [
      'No part is common to all that fails and to nothing that works: more than one thing is wrong, or one was tried wrongly.',
    ];
  const refs = (keys: readonly string[]) => [...new Set(keys.map(refOfKey))];
  const names = refs(suspect.map(({ part }) => part));
  const sure = refs(cleared).filter((ref) => !names.includes(ref));
  const clear = sure.length > 0 ? [`Cleared by what works: ${named(sure)}.`] : [];
  if (codes.includes('nothingFails')) return ['Nothing fails so far.', ...clear];
  return [`Left in doubt, needed by all that fails: ${named(names)}.`, ...clear];
}

/** The first wire that is not as it should be, and when: what comes after it follows from it. */
function timelineFound(sheet: JobSheet, titleOf: (row: SheetRow) => string): string[] {
  const { first } = sheet.answers[0] as TimelineAnswer;
  if (!first)
    return [
      sheet.next
        ? 'No difference in what was read so far.'
        : 'Every wire carries what it should, moment by moment.',
    ];
  const row = sheet.rows[first.row]!;
  const { value, expected } = row.cells[first.column]!;
  const said = (one: Reading['value'] | null) => quantity('volts', Math.abs(Number(one)));
  return [
    `First difference, ${columnWords(sheet.columns[first.column]!)}: ${titleOf(row)} carries ${said(value)} where ${said(expected)} should stand.`,
    'What differs later may only follow from it.',
  ];
}

function interlocksFound({ answers, rows }: JobSheet): string[] {
  const { firstLoss, suspect } = answers[0] as SheetAnswer & {
    firstLoss: { name: string; volts: number } | null;
    suspect: string[];
  };
  if (firstLoss) {
    const ahead = rows.find(({ name }) => name === firstLoss.name)?.ahead;
    const where = ahead ? `${firstLoss.name}, or ${ahead.join(', ')} ahead of it,` : firstLoss.name;
    return [
      `${where} loses ${quantity('volts', firstLoss.volts)}: the first on the way that does not pass them on.`,
    ];
  }
  if (suspect.length > 0) return [`Lost at one of ${suspect.join(', ')}.`];
  return rows.every(({ cells }) => cells[0]?.value !== null)
    ? ['The whole chain is fed.']
    : ['No loss in what was read.'];
}
