import 'server-only';
import { seenWork, type SeenWork } from '@/core/job/seenWork';
import { countFunctions, listFunctions } from '@/db/jobs';
import { findFunction } from '@/db/library';
import { standWords } from '@/words/en/readings';
import { drawnOf } from './jobModel';

/** As many as a list on the page can be looked through. */
const MOST_LISTED = 40;

export interface FunctionChoice {
  id: string;
  machine: string;
  name: string;
}

/** What can be tried on a function, in which position. */
export interface Trial {
  key: string;
  label: string;
  position: string;
}

/** Functions that a job can be opened on, by any words of machine or function. */
export async function functionChoices(
  text = '',
  wanted?: string,
): Promise<{ functions: FunctionChoice[]; total: number }> {
  const [rows, total, own] = await Promise.all([
    listFunctions(MOST_LISTED, text),
    countFunctions(text),
    wanted ? findFunction(wanted) : null,
  ]);
  const listed = rows.map((row) => choiceOf(row));
  const first = own && !listed.some(({ id }) => id === own.id) ? [choiceOf(own)] : [];
  return { functions: [...first, ...listed], total };
}

function choiceOf(row: {
  id: string;
  name: string;
  machine_code: string;
  machine_name: string;
}): FunctionChoice {
  return { id: row.id, name: row.name, machine: `${row.machine_code} ${row.machine_name}` };
}

/** What an answer of the form is kept under. */
export function trialKey({ ref, pattern }: SeenWork): string {
  return `${pattern}-${ref}`;
}

/** What can be tried on one function; null when there is none. */
export async function trialsOf(functionId: string): Promise<Trial[] | null> {
  const found = await findFunction(functionId);
  if (!found) return null;
  const { circuit } = found;
  return seenWork(drawnOf(circuit).model).map((seen) => ({
    key: trialKey(seen),
    label: circuit.parts.find(({ ref }) => ref === seen.ref)!.label ?? seen.ref,
    position: standWords(circuit.controls, seen.setup),
  }));
}
