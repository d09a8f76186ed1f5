import { isSpent } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import type { Reading } from '../circuit/schema';
import { nodesOfTest } from '../circuit/testPlace';
import { NO_FAULT_PRIOR } from './faultFrequency';
import type { FaultTable } from './faultTable';
import type { CandidateFault } from './faultTypes';
import { logLikelihood, testKey, type Observation } from './observations';
import { predict, predictedValue, type BoundTest } from './predict';
import type { Prediction } from './prediction';
import { ownVolts } from './testerVolts';
import { leadNow, type WeighedFault } from './weighed';

/** Logarithm of the odds against the likeliest fault below which a fault is no rival to a proof. */
const NEGLIGIBLE = -9;

/** What the rest of the doubt is made of. */
interface Rivals {
  model: CircuitModel;
  table: FaultTable;
  faults: readonly CandidateFault[];
  /** Of the sound circuit. */
  sound: (observation: Observation) => Prediction;
}

/**
 * How much better a suspect would explain the answer it asks for than the rest of the doubt does once the complaint is known.
 * Where the suspect's fuse is taken to be gone, so is that of all that took the same one.
 *
 * @param complaint log-likelihood of each fault under what was complained of, by index, that of the sound circuit at -1
 * @returns bits
 */
export function favouredBy(
  { model, table, faults, sound }: Rivals,
  bound: BoundTest,
  suspect: WeighedFault,
  complaint: ReadonlyMap<number, number>,
  observations: readonly Observation[],
): number {
  const edits = leadNow(suspect);
  const expected = predict(bound, edits);
  const gone = edits.find(isSpent);
  const fuse = gone ? model.compiled.branches[gone.branch]!.part : -1;
  const fits = gone ? observations.map((one) => table.fit(one).predictions) : [];
  const isGone = (cell: number) => fits.some(({ takes }) => takes[cell] === fuse);
  const value = predictedValue(bound.test.kind, expected);
  const reading = { ...bound.test, value } as Reading;
  const answer: Observation = {
    key: testKey(bound.test),
    bound,
    readings: [reading],
    range: ownVolts(model, nodesOfTest(reading)),
    positions: [0],
    unsteady: false,
    complaint: null,
    mended: new Set(),
  };
  const { supplyVolts } = model.compiled;
  const logOf = (prediction: Prediction) => logLikelihood(answer, prediction, supplyVolts);
  const logOdds = table.rows.map(
    ({ fault, logPrior }) => logPrior + (complaint.get(faults[fault]!.index) ?? 0),
  );
  const least = NEGLIGIBLE + logOdds.reduce((top, log) => Math.max(top, log), -Infinity);
  const predicted = table.predicted(bound);
  let weight = NO_FAULT_PRIOR * Math.exp(complaint.get(-1) ?? 0);
  let others = weight * Math.exp(logOf(sound(answer)));
  table.rows.forEach((row, r) => {
    // What the part could have besides does not speak against the part.
    if (logOdds[r]! < least || faults[row.fault]!.part === suspect.fault.part) return;
    row.grid.forEach((_severity, s) => {
      const mass = Math.exp(logOdds[r]! + (row.grid.length === 1 ? 0 : row.logMass[s]!));
      const prediction = isGone(row.start + s)
        ? table.predictedSpent(bound, row, fuse)[s]!
        : predicted(row, s);
      weight += mass;
      others += mass * Math.exp(logOf(prediction));
    });
  });
  others /= weight;
  return (logOf(expected) - Math.log(Math.max(others, 1e-300))) / Math.LN2;
}
