import { CircuitModel } from '../../src/core/circuit/model';
import type { Circuit, Part, Reading } from '../../src/core/circuit/schema';
import type { Edit } from '../../src/core/circuit/edits';
import { listFaults } from '../../src/core/diagnosis/faults';
import type { CandidateFault, FaultName } from '../../src/core/diagnosis/faultTypes';
import type { Random } from '../../src/core/random';
import { jobSheet, sheetsOfCircuit } from '../../src/core/sheets/onCircuit/build';
import type { JobSheet, JobSheetName } from '../../src/core/sheets/onCircuit/jobSheet';
import { shopMarks } from '../../src/core/tables/marks';
import { TEMPLATES } from '../../src/core/templates/templates';
import { fluidCircuits } from './fluidCircuits';
import { Machine } from './machine';
import { circuitsOf, type Family } from './sheetCircuits';
import { unseenCircuits } from './unseen';
import {
  concerns,
  judgedOwn,
  judgedRows,
  judgedContacts,
  judgedOutputs,
  judgedPins,
  judgedFunctions,
  judgedNeeds,
  type Outcome,
  type Played,
} from './sheetJudges';
import { showsInCells, showsOnCommand, showsAtOutputs } from './sheetShows';

/** One circuit, one fault, one sheet of a job filled in as it asks: what it said in the end against what was planted. */

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
