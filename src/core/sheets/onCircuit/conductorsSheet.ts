import type { CompiledPart } from '../../circuit/compile';
import { oncePerModel, type CircuitModel } from '../../circuit/model';
import type { Reading, Setup } from '../../circuit/schema';
import { mayTake } from '../../diagnosis/candidateTests';
import { askedPlace } from '../../diagnosis/observations';
import { bothApart, conductorWays } from '../../diagnosis/setApart';
import { runBeside } from '../../diagnosis/pairFaults';
import { testerVolts } from '../../diagnosis/testerVolts';
import type { ShopMarks } from '../../tables/marks';
import { uniqueRows, type HeldRow } from '../heldAgainst';
import type { InsulationAnswer, InsulationVerdict } from '../insulation/insulation';
import { judgedInsulation } from './insulationCell';
import { nameOf, pastOf, soundValue, type JobPast, type JobSheet, type SheetCell } from './jobSheet';
import type { InsulationTest } from './leakSearch';

/** Conductors of a matrix; more are no picture. */
const MOST_CONDUCTORS = 30;
const LEAST_CONDUCTORS = 2;

/** A place of the matrix: its test, and what the sound machine shows. */
interface Place {
  test: InsulationTest;
  expected: Reading['value'];
  /** Where the reading stands, whatever control position it was taken in. */
  asked: string;
  /** The two run beside each other as drawn: what touches, touches there first. */
  beside: boolean;
}

interface Grid {
  conductors: readonly string[];
  /** By row, then column; the frame is the last column. Null on and above the diagonal, and where nothing may be read. */
  places: readonly (readonly (Place | null)[])[];
}

/** The conductors that can be read with all of them off at once, and what is off then. */
interface AllOff {
  setup: Setup;
  conductors: { wire: CompiledPart; from: string; testVolts: number }[];
}

/**
 * Every conductor with both its ends off, all at the same time: one alone would read what it touches down to the frame, through the
 * other's load. One whose end hangs free for another's sake cannot be probed there and stays out.
 */
const allOffOf = oncePerModel((model): AllOff => {
  const all: AllOff = { setup: {}, conductors: [] };
  for (const wire of model.compiled.parts) {
    if (wire.part.kind !== 'wire' || all.conductors.length === MOST_CONDUCTORS) continue;
    for (const { from, setup } of conductorWays(model, wire)) {
      const together = bothApart(all.setup, setup);
      const added = [...all.conductors, { wire, from, testVolts: testerVolts(model, [from]) }];
      if (!added.every((one) => hangsOnto(one, together))) continue;
      all.setup = together;
      all.conductors = added;
      break;
    }
  }
  return all;
});

function hangsOnto({ wire, from }: AllOff['conductors'][number], { lifted = [] }: Setup): boolean {
  return !lifted.some(({ part, node }) => part === wire.part.ref && node === from);
}

/** Whether a circuit has conductors to read against each other; without working out each pair. */
export function hasConductors(model: CircuitModel): boolean {
  return allOffOf(model).conductors.length >= LEAST_CONDUCTORS;
}

const gridOf = oncePerModel((model): Grid => {
  const { conductors, setup } = allOffOf(model);
  const frame = nameOf(model, model.compiled.frame);
  const placeOf = (from: string, to: string, testVolts: number, beside: boolean): Place | null => {
    const taken = mayTake(model, { kind: 'insulation', from, to, testVolts, setup }) as InsulationTest | null;
    if (!taken) return null;
    return { test: taken, expected: soundValue(model, taken), asked: askedPlace(taken), beside };
  };
  return {
    conductors: conductors.map(({ wire }) => wire.part.ref),
    places: conductors.map((one, r) => [
      ...conductors.map((other, c) =>
        c < r && other.from !== one.from
          ? placeOf(
              other.from,
              one.from,
              Math.min(one.testVolts, other.testVolts),
              runBeside(other.wire, one.wire),
            )
          : null,
      ),
      placeOf(one.from, frame, one.testVolts, false),
    ]),
  };
});

/**
 * Every conductor against every other and against the frame, all with both their ends off: below the diagonal today, above it what was
 * proved last. Asked for are first those to the frame, then the neighbours of a loom, then the rest.
 */
export function conductorsSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
  marks: ShopMarks,
  { baselines }: JobPast,
): JobSheet<'conductors'> | null {
  if (!hasConductors(model)) return null;
  const { conductors, places } = gridOf(model);
  const read = new Map(
    readings.flatMap((one, at) => (one.kind === 'insulation' ? [[askedPlace(one), at] as const] : [])),
  );
  const answers: InsulationAnswer[] = [];
  const held: HeldRow[] = [];
  const verdicts: (InsulationVerdict | null)[][] = [];
  const rows = places.map((row, r) => {
    const own: (InsulationVerdict | null)[] = [];
    const cells = row.map((place): SheetCell | null => {
      if (!place) {
        own.push(null);
        return null;
      }
      const at = read.get(place.asked);
      const past = pastOf(place.test, baselines);
      const cell: SheetCell = {
        test: place.test,
        expected: place.expected,
        reading: at ?? null,
        value: at === undefined ? null : readings[at]!.value,
        past,
      };
      if (at === undefined) {
        own.push(null);
        return cell;
      }
      const judged = judgedInsulation(model, place.test, cell, marks, readings, past);
      own.push(judged.verdict);
      answers.push(judged.answer);
      held.push(...judged.held);
      return cell;
    });
    verdicts.push(own);
    return { name: conductors[r]!, cells, verdict: worst(own) };
  });
  return {
    name: 'conductors',
    columns: [...conductors, nameOf(model, model.compiled.frame)],
    rows,
    next: nextOf(places, rows),
    answers,
    verdicts,
    held: uniqueRows(held),
  };
}

/** What a row comes to; null while none of it was judged. */
function worst(verdicts: readonly (InsulationVerdict | null)[]): InsulationVerdict | null {
  for (const one of ['bad', 'watch', 'good'] as const) if (verdicts.includes(one)) return one;
  return null;
}

function nextOf(places: Grid['places'], rows: JobSheet['rows']): JobSheet['next'] {
  const open = rows.flatMap(({ cells }, r) =>
    cells.flatMap((cell, c) => (cell !== null && cell.value === null ? [[r, c] as [number, number]] : [])),
  );
  const toFrame = ([, c]: [number, number]) => c === rows.length;
  return open.find(toFrame) ?? open.find(([r, c]) => places[r]![c]!.beside) ?? open[0] ?? null;
}
