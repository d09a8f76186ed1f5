import { CircuitModel } from '../src/core/circuit/model';
import type { Circuit, Reading } from '../src/core/circuit/schema';
import { listFaults } from '../src/core/diagnosis/faults';
import type { CandidateFault, FaultName } from '../src/core/diagnosis/faultTypes';
import { seededRandom, type Random } from '../src/core/random';
import { jobSheet, sheetsOfCircuit } from '../src/core/sheets/onCircuit/build';
import type { JobSheet, JobSheetName, SheetRow } from '../src/core/sheets/onCircuit/jobSheet';
import { shopMarks } from '../src/core/tables/marks';
import { TEMPLATES } from '../src/core/templates/templates';
import { Machine } from './lib/machine';
import { unseenCircuits } from './lib/unseen';

/**
 * How often a sheet of a job finds what is planted in a circuit put together by chance, filled in cell by cell as it asks, on a machine whose
 * parts scatter, with a meter that is off a little: `npm run bench:sheets:circuits -- [--seed=7] [--count=200]`.
 */
const option = (name: string, usual: number) =>
  Number(process.argv.find((one) => one.startsWith(`--${name}=`))?.split('=')[1] ?? usual);
const [seed, count] = [option('seed', 7), option('count', 200)];
const show = process.argv.includes('--show');

/** What each sheet is there to find, by kind of part. A survey says what a pin is, and not what is wrong behind it: it is not here. */
const FINDS: Partial<Record<JobSheetName, Readonly<Record<string, readonly FaultName[]>>>> = {
  coil: { coil: ['open'], relay: ['open'] },
  windings: { coil: ['open'] },
  terminals: { switch: ['stuckOpen', 'stuckClosed'] },
  diodes: { diode: ['open', 'reversed'] },
  interlocks: { switch: ['stuckOpen'] },
  drop: { wire: ['highResistance'], pin: ['highResistance'] },
  insulation: { wire: ['shortToFrame'] },
  conductors: { wire: ['shortToFrame'] },
  outputs: { driver: ['noOutput'] },
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
  'elsewhere',
];
const MOST_READINGS = 120;
const MARKS = shopMarks({});

type Outcome = 'right' | 'wrong' | 'open';

/** A circuit that has something for a sheet, and what of it the sheet is there to find. */
interface Field {
  circuit: Circuit;
  model: CircuitModel;
  planted: readonly CandidateFault[];
}

function fieldOf(
  { circuit, model }: Omit<Field, 'planted'>,
  name: JobSheetName,
  finds: NonNullable<(typeof FINDS)[JobSheetName]>,
): Field[] {
  if (!sheetsOfCircuit(model).includes(name)) return [];
  const first = jobSheet(model, name, [], MARKS)!;
  const planted = listFaults(model).filter(({ part, fault }) => {
    const { kind, ref } = model.compiled.parts[part]!.part;
    if (!finds[kind]?.includes(fault)) return false;
    // What the sheet has no row for it is not there to find.
    return name === 'insulation' || first.rows.some((row) => concerns(model, row, ref));
  });
  return planted.length > 0 ? [{ circuit, model, planted }] : [];
}

function play(
  { circuit, model, planted }: Field,
  name: JobSheetName,
  random: Random,
): { outcome: Outcome; readings: number } {
  const fault = planted[Math.floor(random.next() * planted.length)]!;
  const { ref } = model.compiled.parts[fault.part]!.part;
  const edits = fault.variants[0]!.edits(severityOf(fault, random));
  const machine = new Machine(circuit, edits, random);
  const readings: Reading[] = [];
  for (;;) {
    const sheet = jobSheet(model, name, readings, MARKS)!;
    if (!sheet.next || readings.length >= MOST_READINGS) {
      const outcome = judged(model, sheet, ref);
      if (show && outcome !== 'right')
        console.log(
          outcome,
          name,
          circuit.name,
          ref,
          fault.fault,
          JSON.stringify(sheet.rows.map(({ name: row, verdict }) => [row, verdict])),
        );
      return { outcome, readings: readings.length };
    }
    const { test } = sheet.rows[sheet.next[0]]!.cells[sheet.next[1]]!;
    readings.push(machine.read(test, true));
  }
}

function severityOf({ severity }: CandidateFault, random: Random): number {
  if (severity === null) return 0;
  const [least, most] = [Math.log(severity.mainLeast), Math.log(severity.mainMost)];
  return Math.exp(least + random.next() * (most - least));
}

function judged(model: CircuitModel, { rows, liesOn = [] }: JobSheet, ref: string): Outcome {
  const bad = rows.filter(({ verdict }) => verdict !== null && !NOT_BAD.includes(verdict));
  if (liesOn.length > 0) return liesOn.includes(ref) ? 'right' : 'wrong';
  if (bad.length === 0) return 'open';
  if (bad.some((row) => !concerns(model, row, ref))) return 'wrong';
  return 'right';
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

const circuits = [
  ...unseenCircuits(count, seed).map(([, circuit]) => circuit),
  ...TEMPLATES.map((one) => one.build()),
].map((circuit) => ({ circuit, model: new CircuitModel(circuit) }));
console.log('sheet           right   wrong    open  readings  plays');
for (const [name, finds] of Object.entries(FINDS) as [
  JobSheetName,
  NonNullable<(typeof FINDS)[JobSheetName]>,
][]) {
  const random = seededRandom(seed);
  const sums = { right: 0, wrong: 0, open: 0 };
  let [plays, readings] = [0, 0];
  const fields = circuits.flatMap((one) => fieldOf(one, name, finds));
  // Few circuits have what some sheets are about: those are gone through again, with another machine and another fault.
  for (; fields.length > 0 && plays < count; plays++) {
    const played = play(fields[plays % fields.length]!, name, random);
    sums[played.outcome]++;
    readings += played.readings;
  }
  const share = (value: number) => `${((100 * value) / plays).toFixed(1)} %`.padStart(8);
  console.log(
    `${name.padEnd(13)} ${share(sums.right)}${share(sums.wrong)}${share(sums.open)}  ${(readings / plays).toFixed(1).padStart(7)}  ${String(plays).padStart(5)}, ${fields.length} circuits`,
  );
}
