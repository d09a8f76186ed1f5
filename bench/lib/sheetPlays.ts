import { CircuitModel } from '../../src/core/circuit/model';
import type { Circuit, Part, Reading } from '../../src/core/circuit/schema';
import type { Edit } from '../../src/core/circuit/edits';
import { listFaults } from '../../src/core/diagnosis/faults';
import type { CandidateFault, FaultName } from '../../src/core/diagnosis/faultTypes';
import { bindTest, predict, predictedValue } from '../../src/core/diagnosis/predict';
import type { Random } from '../../src/core/random';
import { jobSheet, sheetsOfCircuit } from '../../src/core/sheets/onCircuit/build';
import { refOfKey } from '../../src/core/sheets/onCircuit/functionsSheet';
import type { JobSheet, JobSheetName, SheetCell, SheetRow } from '../../src/core/sheets/onCircuit/jobSheet';
import type { FunctionsAnswer } from '../../src/core/sheets/functions/functions';
import type { Need, NeedsAnswer } from '../../src/core/sheets/needs/needs';
import type { OutputsAnswer, OutputsCause } from '../../src/core/sheets/outputs/outputs';
import { shopMarks } from '../../src/core/tables/marks';
import { TEMPLATES } from '../../src/core/templates/templates';
import { fluidCircuits } from './fluidCircuits';
import { Machine } from './machine';
import { circuitsOf, type Family } from './sheetCircuits';
import { unseenCircuits } from './unseen';

/** One circuit, one fault, one sheet of a job filled in as it asks: what it said in the end against what was planted. */

export type Outcome = 'right' | 'wrong' | 'open';

/** What was planted, and what the sheet had in the end. */
interface Played {
  model: CircuitModel;
  fault: CandidateFault;
  part: Part;
  edits: readonly Edit[];
  machine: Machine;
  sheet: JobSheet;
}

interface Play {
  /** Circuits put together by chance; those of the unseen set with the templates where nothing is said. */
  on?: 'fluid' | readonly Family[];
  /** Faults that the sheet is there to find, by kind of part. */
  finds: Partial<Record<Part['kind'], readonly FaultName[]>>;
  /** Whether a fault shows in any of its cells: where every part has a row of its own that is so by itself. */
  shows?: (model: CircuitModel, first: JobSheet, edits: readonly Edit[]) => boolean;
  judge?: (played: Played) => Outcome;
}

export const PLAYS: Partial<Record<JobSheetName, Play>> = {
  coil: { finds: { coil: ['open'], relay: ['open'] } },
  windings: { on: ['twoWindings'], finds: { coil: ['open'] } },
  contacts: {
    on: ['pack', 'lineContactors'],
    finds: {
      relay: ['open', 'stuckOpen', 'welded', 'highResistance'],
      wire: ['open'],
      switch: ['stuckOpen'],
      fuse: ['open'],
      pin: ['open'],
    },
    shows: showsInCells,
    judge: judgedContacts,
  },
  terminals: {
    finds: { switch: ['stuckOpen', 'stuckClosed'], relay: ['stuckOpen', 'welded'] },
    judge: judgedOwn,
  },

  diodes: { on: ['suppressed'], finds: { diode: ['open', 'short', 'reversed'] } },
  interlocks: { finds: { switch: ['stuckOpen'] } },
  drop: { finds: { wire: ['highResistance'], pin: ['highResistance'] } },
  insulation: { finds: { wire: ['shortToFrame'] } },
  conductors: { finds: { wire: ['shortToFrame'] } },
  outputs: {
    on: ['controller'],
    finds: {
      driver: ['noOutput', 'stuckOn', 'leakyOutput'],
      fuse: ['open'],
      wire: ['open', 'shortToFrame', 'shortToSupply'],
      coil: ['open'],
    },
    shows: showsAtOutputs,
    judge: judgedOutputs,
  },
  survey: {
    on: ['plugs', 'suppressed', 'controller'],
    finds: { pin: ['open', 'crossedPins'], wire: ['open', 'shortToSupply'], fuse: ['open'] },
    shows: showsInCells,
    judge: judgedPins,
  },
  functions: {
    on: ['plugs', 'pack', 'controller', 'suppressed'],
    finds: {
      fuse: ['open'],
      breaker: ['open'],
      wire: ['open'],
      pin: ['open'],
      coil: ['open'],
      lamp: ['open'],
      motor: ['open'],
      switch: ['stuckOpen'],
      relay: ['open', 'stuckOpen'],
      driver: ['noOutput'],
    },
    shows: showsInCells,
    judge: judgedFunctions,
  },
  needs: {
    on: 'fluid',
    finds: {
      coil: ['open'],
      wire: ['open'],
      fuse: ['open'],
      driver: ['noOutput'],
      valve: ['stuckAtRest', 'stuckMidway'],
      cylinder: ['jammed'],
      airSupply: ['noOutput'],
      pump: ['noOutput'],
      filter: ['blocked'],
    },
    shows: showsOnCommand,
    judge: judgedNeeds,
  },
  cylinders: { on: 'fluid', finds: { cylinder: ['sealLeak'] } },
};

/** Said, and no judgement against a part. */
const NOT_BAD: readonly string[] = [
  'good',
  'watch',
  'worn',
  'needsLoad',
  'hidden',
  'doNotAdd',
  'heldDown',
  'heldUp',
  'elsewhere',
  'notFed',
  'carries',
  'field',
];
/** Said of a winding whose ohms are not the drawing's. */
const OFF_WORDS: readonly string[] = ['off', 'low', 'high'];
const MOST_READINGS = 120;
const MARKS = shopMarks({});

interface OnModel {
  circuit: Circuit;
  model: CircuitModel;
}

/** A circuit that has something for a sheet, and what of it the sheet is there to find. */
export interface Field extends OnModel {
  planted: readonly { fault: CandidateFault; part: Part }[];
}

/** So many circuits, each once whatever sheets are played on it. */
export class Circuits {
  private readonly made = new Map<string, readonly OnModel[]>();

  constructor(
    private readonly count: number,
    private readonly seed: number,
  ) {}

  /** Those that have something for a sheet, as many as were asked for where chance made so many. */
  fieldsOf(name: JobSheetName): Field[] {
    const found: Field[] = [];
    for (const one of this.on(PLAYS[name]!.on)) {
      if (found.length === this.count) break;
      found.push(...fieldOf(one, name));
    }
    return found;
  }

  private on(which: Play['on']): readonly OnModel[] {
    const key = JSON.stringify(which ?? null);
    const known = this.made.get(key);
    if (known) return known;
    const made = this.circuits(which).map((circuit) => ({ circuit, model: new CircuitModel(circuit) }));
    this.made.set(key, made);
    return made;
  }

  private circuits(which: Play['on']): Circuit[] {
    // Not every circuit has something for every sheet.
    const [count, seed] = [2 * this.count, this.seed];
    if (which === 'fluid') return fluidCircuits(count, seed).map(([, circuit]) => circuit);
    if (which) return circuitsOf(which, count, seed);
    return [
      ...unseenCircuits(count, seed).map(([, circuit]) => circuit),
      ...TEMPLATES.map((one) => one.build()),
    ];
  }
}

function fieldOf({ circuit, model }: OnModel, name: JobSheetName): Field[] {
  if (!sheetsOfCircuit(model).includes(name)) return [];
  const { finds, shows } = PLAYS[name]!;
  const first = jobSheet(model, name, [], MARKS)!;
  const planted = listFaults(model).flatMap((fault) => {
    const { part } = model.compiled.parts[fault.part]!;
    if (!finds[part.kind]?.includes(fault.fault)) return [];
    if (shows) return shows(model, first, editsOf(fault, middle(fault))) ? [{ fault, part }] : [];
    // What the sheet has no row for it is not there to find.
    return name === 'insulation' || first.rows.some((row) => concerns(model, row, part.ref))
      ? [{ fault, part }]
      : [];
  });
  return planted.length > 0 ? [{ circuit, model, planted }] : [];
}

/** Fills a sheet in cell by cell as it asks, on a machine with one of its faults. */
export function play(
  { circuit, model, planted }: Field,
  name: JobSheetName,
  random: Random,
): { outcome: Outcome; readings: number; told: string } {
  const { fault, part, edits } = planting(model, name, planted, random);
  const machine = new Machine(circuit, edits, random);
  const readings: Reading[] = [];
  for (;;) {
    const sheet = jobSheet(model, name, readings, MARKS)!;
    if (!sheet.next || readings.length >= MOST_READINGS) {
      const outcome = (PLAYS[name]!.judge ?? judgedRows)({ model, fault, part, edits, machine, sheet });
      const rows = sheet.rows.map((row) => [
        row.name,
        ...(row.check ? [row.check] : []),
        ...row.cells.map((cell) => cell && cell.value),
        row.verdict,
      ]);
      const answers = JSON.stringify(sheet.answers).slice(0, 600);
      return {
        outcome,
        readings: readings.length,
        told: `${circuit.name}: ${part.ref} ${fault.fault} ${JSON.stringify(rows)} ${answers}`,
      };
    }
    const { test } = sheet.rows[sheet.next[0]]!.cells[sheet.next[1]]!;
    readings.push(asShown(machine.read(test, true)));
  }
}

const MOST_TRIES = 50;

/** One of the faults, as bad as chance has it, that shows where the sheet looks. */
function planting(model: CircuitModel, name: JobSheetName, planted: Field['planted'], random: Random) {
  const { shows } = PLAYS[name]!;
  const first = jobSheet(model, name, [], MARKS)!;
  for (let k = 0; ; k++) {
    const { fault, part } = planted[Math.floor(random.next() * planted.length)]!;
    const edits = editsOf(fault, severityOf(fault, random), random);
    if (!shows || k === MOST_TRIES || shows(model, first, edits)) return { fault, part, edits };
  }
}

/** Full scales of a display of 6000 counts: a figure has no more digits than its range leaves, and a sheet takes it for no finer. */
const SCALES: Partial<Record<Reading['kind'], readonly number[]>> = {
  ohms: [600, 6e3, 6e4, 6e5, 6e6, 6e7],
  volts: [0.6, 6, 60, 600],
};
const COUNTS = 6000;

function asShown(reading: Reading): Reading {
  const { value, kind } = reading;
  const scale = typeof value === 'number' && SCALES[kind]?.find((full) => Math.abs(value) <= full);
  if (!scale) return reading;
  const step = scale / COUNTS;
  return { ...reading, value: Number((Math.round(value / step) * step).toPrecision(4)) } as Reading;
}

/** One of the ways in which a fault sits in its part; the first where no chance is given. */
function editsOf({ variants }: CandidateFault, severity: number, random?: Random): Edit[] {
  const at = random ? Math.floor(random.next() * variants.length) : 0;
  return variants[at]!.edits(severity);
}

const middle = ({ severity }: CandidateFault) =>
  severity === null ? 0 : Math.sqrt(severity.mainLeast * severity.mainMost);

function severityOf({ severity }: CandidateFault, random: Random): number {
  if (severity === null) return 0;
  const [least, most] = [Math.log(severity.mainLeast), Math.log(severity.mainMost)];
  return Math.exp(least + random.next() * (most - least));
}

/** What two figures differ by at least where a person would call them two, as a share of the larger, and volts or ohms. */
const OTHER_SHARE = 0.25;
const OTHER_LEAST = 1;
/** From here on ohms are none. */
const NO_WAY = 1e6;

function differs(one: Reading['value'], two: Reading['value']): boolean {
  if (typeof one === 'boolean' || typeof two === 'boolean') return one !== two;
  const [a, b] = [one, two].map((value) =>
    value === 'OL' ? NO_WAY : typeof value === 'number' ? Math.min(Math.abs(value), NO_WAY) : null,
  );
  if (a === null || b === null || a === undefined || b === undefined) return one !== two;
  return Math.abs(a - b) > Math.max(OTHER_SHARE * Math.max(a, b), OTHER_LEAST);
}

/** Whether a cell shows another thing with a fault in the circuit than without. */
function isOther(model: CircuitModel, { test, expected }: SheetCell, edits: readonly Edit[]): boolean {
  return differs(
    predictedValue(test.kind, predict(bindTest(model, test), edits)) as Reading['value'],
    expected,
  );
}

function showsInCells(model: CircuitModel, { rows }: JobSheet, edits: readonly Edit[]): boolean {
  return rows.some(({ cells }) => cells.some((cell) => cell !== null && isOther(model, cell, edits)));
}

/** What a valve moves does another thing on command than it should. */
function showsOnCommand(model: CircuitModel, first: JobSheet, edits: readonly Edit[]): boolean {
  return showsInCells(
    model,
    { ...first, rows: first.rows.filter(({ check }) => check === 'commanded') },
    edits,
  );
}

/** Less than this of the supply at an output nobody calls a fault. */
const NOTICED_SHARE = 0.07;

function showsAtOutputs(model: CircuitModel, { rows }: JobSheet, edits: readonly Edit[]): boolean {
  const least = NOTICED_SHARE * model.compiled.supplyVolts;
  return rows.some(({ cells }) =>
    cells.some((cell) => {
      if (cell === null) return false;
      const value = predictedValue(cell.test.kind, predict(bindTest(model, cell.test), edits));
      return Math.abs(Number(value) - Number(cell.expected)) > least;
    }),
  );
}

const badRows = ({ rows }: JobSheet) =>
  rows.filter(({ verdict }) => verdict !== null && !NOT_BAD.includes(verdict));

/** Whether a row by its name alone is about a part. */
const isOf = (name: string, { ref }: Part) => name.split(' ')[0] === ref;

/** Something stands against the contact's own row, and nothing against another. */
function judgedOwn({ sheet, part }: Played): Outcome {
  const bad = badRows(sheet);
  if (bad.length === 0) return 'open';
  return bad.every(({ name }) => isOf(name, part)) ? 'right' : 'wrong';
}

/** Something stands against the part, and nothing against another. */
function judgedRows({ model, sheet, machine, part: { ref } }: Played): Outcome {
  const { liesOn = [] } = sheet;
  if (liesOn.length > 0) return liesOn.includes(ref) ? 'right' : 'wrong';
  const bad = badRows(sheet).filter(({ name, with: other, verdict }) => {
    const isOff = [name, ...(other ? [other] : [])].some((one) => machine.isBeyondTolerance(one));
    return !(isOff && OFF_WORDS.includes(verdict!));
  });
  if (bad.length === 0) return 'open';
  return bad.every((row) => concerns(model, row, ref)) ? 'right' : 'wrong';
}

/** What a contactor with each fault may be called. */
const CONTACT_WORDS: Partial<Record<FaultName, readonly string[]>> = {
  open: ['coil'],
  stuckOpen: ['open', 'mechanical', 'bad'],
  welded: ['welded'],
  highResistance: ['bad', 'open'],
};

/** What feeds them is none of theirs: said of it is that nothing arrives, and no contactor is condemned. */
function judgedContacts(played: Played): Outcome {
  const { part, sheet } = played;
  if (part.kind !== 'relay') {
    if (badRows(sheet).length > 0) return 'wrong';
    if (sheet.rows.some(({ verdict }) => verdict === 'notFed')) return 'right';
    // A break in the run of the load: of the contact in it nothing may be said.
    const quiet = sheet.rows.filter(({ cells }) => cells.some((cell) => cell?.value === 'dead'));
    return quiet.length > 0 && quiet.every(({ verdict }) => verdict === null || verdict === 'needsLoad')
      ? 'right'
      : 'wrong';
  }
  const words = CONTACT_WORDS[played.fault.fault]!;
  const bad = badRows(sheet);
  if (bad.length === 0) return 'open';
  return bad.every(({ name, verdict }) => isOf(name, part) && words.includes(verdict!)) ? 'right' : 'wrong';
}

/** What a controller's matrix may be said to have, by what is planted; the field's wires and loads are none of the controller's. */
function judgedOutputs({ sheet, fault: { fault }, part }: Played): Outcome {
  const { cause, of, findings } = sheet.answers[0] as OutputsAnswer;
  const meant = controllerCause(part, fault);
  if (meant === null) {
    if (cause !== null) return 'wrong';
    const told = findings.some(({ code }) => ['heldDown', 'heldUp', 'fieldDead', 'fieldLive'].includes(code));
    return told ? 'right' : 'open';
  }
  if (cause === null) return findings.some(({ output }) => output !== undefined) ? 'wrong' : 'open';
  if (cause !== meant) return 'wrong';
  return part.kind !== 'driver' || of.includes(part.ref) ? 'right' : of.length === 0 ? 'open' : 'wrong';
}

/** What the matrix calls a fault; null for one that is in the field. */
function controllerCause({ kind, ref }: Part, fault: FaultName): OutputsCause | null {
  if (kind === 'driver') return fault === 'noOutput' ? 'deadOutput' : 'leaking';
  if (ref === 'W9') return 'openCommon';
  return kind === 'fuse' || ref === 'W0' ? 'deadSource' : null;
}

/** Every pin that is called bad is another one than drawn, and none that is called good is. */
function judgedPins({ model, edits, sheet }: Played): Outcome {
  const judged = sheet.rows.filter(({ verdict }) => verdict !== null);
  const other = ({ cells }: SheetRow) =>
    cells.some((cell) => cell !== null && cell.value !== null && isOther(model, cell, edits));
  if (judged.some((row) => row.verdict === 'bad' && !other(row))) return 'wrong';
  return judged.some(({ verdict }) => verdict === 'bad') ? 'right' : 'open';
}

/** The planted part is among what is left, and nothing says that it was cleared. */
function judgedFunctions({ sheet, part: { ref } }: Played): Outcome {
  const { suspect, cleared, findings } = sheet.answers[0] as FunctionsAnswer;
  const left = suspect.some(({ part }) => refOfKey(part) === ref);
  // What a part does in one command may be cleared, and what it does in another be in doubt.
  if (!left && cleared.some((key) => refOfKey(key) === ref)) return 'wrong';
  if (findings.some(({ code }) => code === 'moreThanOne')) return 'wrong';
  if (suspect.length === 0) return 'open';
  return left ? 'right' : 'wrong';
}

const NEED_OF: Partial<Record<Part['kind'], Need>> = {
  coil: 'coil',
  wire: 'electricity',
  fuse: 'electricity',
  driver: 'electricity',
  valve: 'valve',
  cylinder: 'beyond',
  airSupply: 'air',
  pump: 'air',
  filter: 'air',
};

/** Of the valves that a fault is about each lacks what it takes away, and no other lacks anything. */
function judgedNeeds({ model, sheet, part, edits }: Played): Outcome {
  const need = NEED_OF[part.kind]!;
  let outcome: Outcome = 'open';
  const valves = [...new Set(sheet.rows.map(({ name }) => name))];
  for (const [at, answer] of (sheet.answers as NeedsAnswer[]).entries()) {
    const own = sheet.rows.filter(({ name }) => name === valves[at]);
    const concerned = own.some(({ cells }) => cells.some((cell) => cell && isOther(model, cell, edits)));
    if (answer.missing.some((one) => one !== need || !concerned)) return 'wrong';
    if (answer.missing.includes(need)) outcome = 'right';
  }
  return outcome;
}

/** Whether a row is about a part: by its name, as one of a pair, by a point that it ends at, or as one ahead that cannot be told from it. */
function concerns(
  { compiled }: CircuitModel,
  { name, with: other, between, ahead = [] }: SheetRow,
  ref: string,
): boolean {
  const [own] = name.split(' ');
  if (own === ref || other === ref || ahead.includes(ref)) return true;
  const ends = compiled.parts[compiled.partIndex.get(ref)!]!.nodes.map((node) => compiled.nodeNames[node]!);
  return [name, ...(between ?? [])].some((one) => ends.includes(one));
}
