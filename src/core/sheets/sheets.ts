import { z } from 'zod';
import { actuationSheet, judgeActuation } from './actuation/actuation';
import { bubblesSheet, judgeBubbles } from './bubbles/bubbles';
import { coilSheet, judgeCoil } from './coil/coil';
import { contactsSheet, judgeContacts } from './contacts/contacts';
import { cutInSheet, runCutIn } from './cutIn/cutIn';
import { diodeSheet, judgeDiode } from './diode/diode';
import { dropSheet, judgeDrop } from './drop/drop';
import { compareFunctions, functionsSheet } from './functions/functions';
import { insulationSheet, judgeInsulation } from './insulation/insulation';
import { interlocksSheet, judgeInterlocks } from './interlocks/interlocks';
import { judgeOutputs, outputsSheet } from './outputs/outputs';
import { saturate, saturationSheet } from './saturation/saturation';
import type { SheetAnswer } from './sheet';
import { chooseContact, spareContactSheet } from './spareContact/spareContact';
import { surveyPins, surveySheet } from './survey/survey';
import { tellTerminals, terminalsSheet } from './terminals/terminals';
import { readTrace, traceSheet } from './trace/trace';
import { tellWindings, windingsSheet } from './windings/windings';

/** Every sheet's document, told apart by its name. */
export const sheetSchema = z.discriminatedUnion('sheet', [
  coilSheet,
  windingsSheet,
  insulationSheet,
  contactsSheet,
  terminalsSheet,
  outputsSheet,
  surveySheet,
  diodeSheet,
  interlocksSheet,
  spareContactSheet,
  dropSheet,
  bubblesSheet,
  actuationSheet,
  saturationSheet,
  cutInSheet,
  functionsSheet,
  traceSheet,
]);
export type Sheet = z.infer<typeof sheetSchema>;
export type SheetName = Sheet['sheet'];
export type SheetOf<N extends SheetName> = Extract<Sheet, { sheet: N }>;

const COMPUTE: { [N in SheetName]: (sheet: SheetOf<N>) => SheetAnswer } = {
  coil: judgeCoil,
  windings: tellWindings,
  insulation: judgeInsulation,
  contacts: judgeContacts,
  terminals: tellTerminals,
  outputs: judgeOutputs,
  survey: surveyPins,
  diode: judgeDiode,
  interlocks: judgeInterlocks,
  spareContact: chooseContact,
  drop: judgeDrop,
  bubbles: judgeBubbles,
  actuation: judgeActuation,
  saturation: saturate,
  cutIn: runCutIn,
  functions: compareFunctions,
  trace: readTrace,
};

/** Computes a sheet. Throws `InputError` for a name that the sheet does not have and figures that cannot stand together. */
export function computeSheet<N extends SheetName>(sheet: SheetOf<N>): SheetAnswer {
  return COMPUTE[sheet.sheet as N](sheet);
}
