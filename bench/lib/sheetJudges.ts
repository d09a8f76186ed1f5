import type { CircuitModel } from '../../src/core/circuit/model';
import type { Part } from '../../src/core/circuit/schema';
import type { Edit } from '../../src/core/circuit/edits';
import type { CandidateFault, FaultName } from '../../src/core/diagnosis/faultTypes';
import type { JobSheet, SheetRow } from '../../src/core/sheets/onCircuit/jobSheet';
import type { FunctionsAnswer } from '../../src/core/sheets/functions/functions';
import type { Need, NeedsAnswer } from '../../src/core/sheets/needs/needs';
import type { OutputsAnswer, OutputsCause } from '../../src/core/sheets/outputs/outputs';
import type { Machine } from './machine';
import { isOther } from './sheetShows';

/** What a sheet said in the end, against what was planted. */

export type Outcome = 'right' | 'wrong' | 'open';

/** What was planted, and what the sheet had in the end. */
export interface Played {
  model: CircuitModel;
  fault: CandidateFault;
  part: Part;
  edits: readonly Edit[];
  machine: Machine;
  sheet: JobSheet;
}

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
const badRows = ({ rows }: JobSheet) =>
  rows.filter(({ verdict }) => verdict !== null && !NOT_BAD.includes(verdict));

/** Whether a row by its name alone is about a part. */
const isOf = (name: string, { ref }: Part) => name.split(' ')[0] === ref;

/** Something stands against the contact's own row, and nothing against another. */
export function judgedOwn({ sheet, part }: Played): Outcome {
  const bad = badRows(sheet);
  if (bad.length === 0) return 'open';
  return bad.every(({ name }) => isOf(name, part)) ? 'right' : 'wrong';
}

/** Something stands against the part, and nothing against another. */
export function judgedRows({ model, sheet, machine, part: { ref } }: Played): Outcome {
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
export function judgedContacts(played: Played): Outcome {
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
export function judgedOutputs({ sheet, fault: { fault }, part }: Played): Outcome {
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
export function judgedPins({ model, edits, sheet }: Played): Outcome {
  const judged = sheet.rows.filter(({ verdict }) => verdict !== null);
  const other = ({ cells }: SheetRow) =>
    cells.some((cell) => cell !== null && cell.value !== null && isOther(model, cell, edits));
  if (judged.some((row) => row.verdict === 'bad' && !other(row))) return 'wrong';
  return judged.some(({ verdict }) => verdict === 'bad') ? 'right' : 'open';
}

/** The planted part is among what is left, and nothing says that it was cleared. */
export function judgedFunctions({ sheet, part: { ref } }: Played): Outcome {
  const { suspect, cleared, findings } = sheet.answers[0] as FunctionsAnswer;
  const left = suspect.some(({ part }) => part === ref);
  if (!left && cleared.includes(ref)) return 'wrong';
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
export function judgedNeeds({ model, sheet, part, edits }: Played): Outcome {
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
export function concerns(
  { compiled }: CircuitModel,
  { name, with: other, between, ahead = [] }: SheetRow,
  ref: string,
): boolean {
  const [own] = name.split(' ');
  if (own === ref || other === ref || ahead.includes(ref)) return true;
  const ends = compiled.parts[compiled.partIndex.get(ref)!]!.nodes.map((node) => compiled.nodeNames[node]!);
  return [name, ...(between ?? [])].some((one) => ends.includes(one));
}
