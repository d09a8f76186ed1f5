import type { CircuitModel } from '../../circuit/model';
import type { Reading } from '../../circuit/schema';
import { coilSheetOf } from './coilSheet';
import { contactsSheetOf } from './contactsSheet';
import { insulationSheetOf } from './insulationSheet';
import { interlocksSheetOf } from './interlocksSheet';
import type { JobSheet, JobSheetName } from './jobSheet';
import { outputsSheetOf } from './outputsSheet';

const BUILD: { [N in JobSheetName]: (model: CircuitModel, readings: readonly Reading[]) => JobSheet | null } =
  {
    coil: coilSheetOf,
    contacts: contactsSheetOf,
    interlocks: interlocksSheetOf,
    insulation: insulationSheetOf,
    outputs: outputsSheetOf,
  };

/** A sheet filled in from the circuit and the readings of the job; null where the circuit has nothing to fill it with. */
export function jobSheet(
  model: CircuitModel,
  name: JobSheetName,
  readings: readonly Reading[],
): JobSheet | null {
  const sheet = BUILD[name](model, readings);
  return sheet && sheet.rows.some(({ cells }) => cells.some((cell) => cell !== null)) ? sheet : null;
}
