import { z } from 'zod';
import { actuationSheet, judgeActuation, type ActuationFinding } from './actuation/actuation';
import { bubblesSheet, judgeBubbles, type BubblesFinding } from './bubbles/bubbles';
import { coilSheet, judgeCoil, type CoilFinding } from './coil/coil';
import { contactsSheet, judgeContacts, type ContactsFinding } from './contacts/contacts';
import { checkConnector, connectorSheet, type ConnectorFinding } from './connector/connector';
import { cutInSheet, runCutIn, type CutInFinding } from './cutIn/cutIn';
import { diodeSheet, judgeDiode, type DiodeFinding } from './diode/diode';
import { dropSheet, judgeDrop, type DropFinding } from './drop/drop';
import { evacuationSheet, judgeEvacuation, type EvacuationFinding } from './evacuation/evacuation';
import { compareFunctions, functionsSheet, type FunctionsFinding } from './functions/functions';
import { holdSheet, judgeHold, type HoldFinding } from './hold/hold';
import { insulationSheet, judgeInsulation, type InsulationFinding } from './insulation/insulation';
import { interlocksSheet, judgeInterlocks, type InterlocksFinding } from './interlocks/interlocks';
import { judgeNeeds, needsSheet, type NeedsFinding } from './needs/needs';
import { judgeOutputs, outputsSheet, type OutputsFinding } from './outputs/outputs';
import { planControl, plannerSheet, type PlannerFinding } from './planner/planner';
import { saturate, saturationSheet, type SaturationFinding } from './saturation/saturation';
import { shopMarks, type ShopMarks } from '../tables/marks';
import type { SheetAnswer } from './sheet';
import { chooseContact, spareContactSheet, type SpareContactFinding } from './spareContact/spareContact';
import { judgeStroke, strokeSheet, type StrokeFinding } from './stroke/stroke';
import { surveyPins, surveySheet, type SurveyFinding } from './survey/survey';
import { tellTerminals, terminalsSheet, type TerminalsFinding } from './terminals/terminals';
import { readTrace, traceSheet, type TraceFinding } from './trace/trace';
import { judgeWire, wireSheet, type WireFinding } from './wire/wire';
import { tellWindings, windingsSheet, type WindingsFinding } from './windings/windings';

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
  wireSheet,
  needsSheet,
  holdSheet,
  evacuationSheet,
  plannerSheet,
  strokeSheet,
  connectorSheet,
]);
export type Sheet = z.infer<typeof sheetSchema>;
export type SheetName = Sheet['sheet'];
export type SheetOf<N extends SheetName> = Extract<Sheet, { sheet: N }>;

const COMPUTE: { [N in SheetName]: (sheet: SheetOf<N>, marks: ShopMarks) => SheetAnswer } = {
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
  wire: judgeWire,
  needs: judgeNeeds,
  hold: judgeHold,
  evacuation: judgeEvacuation,
  planner: planControl,
  stroke: judgeStroke,
  connector: checkConnector,
};

/** Computes a sheet, held against the shop's marks. Throws `InputError` for a name that the sheet does not have and figures that cannot stand together. */
export function computeSheet<N extends SheetName>(
  sheet: SheetOf<N>,
  marks: ShopMarks = shopMarks({}),
): SheetAnswer {
  return COMPUTE[sheet.sheet as N](sheet, marks);
}

/** Every code that a sheet may find. */
export type FindingCode =
  | ActuationFinding['code']
  | BubblesFinding['code']
  | CoilFinding['code']
  | ConnectorFinding['code']
  | ContactsFinding['code']
  | CutInFinding['code']
  | DiodeFinding['code']
  | DropFinding['code']
  | EvacuationFinding['code']
  | HoldFinding['code']
  | NeedsFinding['code']
  | PlannerFinding['code']
  | FunctionsFinding['code']
  | InsulationFinding['code']
  | InterlocksFinding['code']
  | OutputsFinding['code']
  | SaturationFinding['code']
  | SpareContactFinding['code']
  | StrokeFinding['code']
  | SurveyFinding['code']
  | TerminalsFinding['code']
  | TraceFinding['code']
  | WindingsFinding['code']
  | WireFinding['code'];
