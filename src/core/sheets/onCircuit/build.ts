import { oncePerModel, type CircuitModel } from '../../circuit/model';
import type { Reading } from '../../circuit/schema';
import { shopMarks, type ShopMarks } from '../../tables/marks';
import { actuationSheetOf } from './actuationSheet';
import { coilSheetOf } from './coilSheet';
import { conductorsSheetOf, hasConductors } from './conductorsSheet';
import { contactsSheetOf } from './contactsSheet';
import { cylindersSheetOf } from './cylindersSheet';
import { diodesSheetOf } from './diodesSheet';
import { dropSheetOf } from './dropSheet';
import { functionsSheetOf } from './functionsSheet';
import { insulationSheetOf } from './insulationSheet';
import { interlocksSheetOf } from './interlocksSheet';
import { JOB_SHEETS, NO_PAST, withPast, type JobPast, type JobSheet, type JobSheetName } from './jobSheet';
import { needsSheetOf } from './needsSheet';
import { outputsSheetOf } from './outputsSheet';
import { proofChainSheetOf } from './proofChainSheet';
import { surveySheetOf } from './surveySheet';
import { timelineSheetOf } from './timelineSheet';
import { terminalsSheetOf } from './terminalsSheet';
import { windingsSheetOf } from './windingsSheet';

type Build<N extends JobSheetName> = (
  model: CircuitModel,
  readings: readonly Reading[],
  marks: ShopMarks,
  past: JobPast,
) => JobSheet<N> | null;

const BUILD: { [N in JobSheetName]: Build<N> } = {
  functions: functionsSheetOf,
  coil: coilSheetOf,
  windings: windingsSheetOf,
  contacts: contactsSheetOf,
  terminals: terminalsSheetOf,
  diodes: diodesSheetOf,
  interlocks: interlocksSheetOf,
  timeline: timelineSheetOf,
  drop: dropSheetOf,
  insulation: insulationSheetOf,
  conductors: conductorsSheetOf,
  outputs: outputsSheetOf,
  survey: surveySheetOf,
  needs: needsSheetOf,
  cylinders: cylindersSheetOf,
  proofChain: proofChainSheetOf,
  actuation: actuationSheetOf,
};

/** A sheet filled in from the circuit and the readings of the job; null where the circuit has nothing to fill it with. `marks` are the shop's, `past` what closed jobs proved. */
export function jobSheet(
  model: CircuitModel,
  name: JobSheetName,
  readings: readonly Reading[],
  marks: ShopMarks,
  past: JobPast = NO_PAST,
): JobSheet | null {
  const sheet = BUILD[name](model, readings, marks, past);
  const filled = sheet?.rows.some(({ cells }) => cells.some((cell) => cell !== null));
  return filled ? withPast(sheet!, past.baselines) : null;
}

/** Sheets of which it is quicker to see whether there is anything in them than to fill them in. */
const HAS: Partial<Record<JobSheetName, (model: CircuitModel) => boolean>> = { conductors: hasConductors };

/** The sheets that a circuit has something for; which those are hangs on no reading and on no mark. */
export const sheetsOfCircuit = oncePerModel((model): readonly JobSheetName[] =>
  JOB_SHEETS.filter((name) => HAS[name]?.(model) ?? jobSheet(model, name, [], shopMarks({})) !== null),
);
