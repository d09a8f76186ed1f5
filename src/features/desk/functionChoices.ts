import 'server-only';
import { countFunctions, listFunctions } from '@/db/jobs';
import { findFunction } from '@/db/library';
import { drawnOf } from './jobModel';
import { trialsOf, type Trial } from './trials';

/** As many as a list on the page can be looked through. */
const MOST_LISTED = 40;

export interface FunctionChoice {
  id: string;
  machine: string;
  name: string;
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

/** What can be tried on one function; null when there is none. */
export async function trialsOfFunction(functionId: string): Promise<Trial[] | null> {
  const found = await findFunction(functionId);
  return found && trialsOf(found.circuit, drawnOf(found.circuit).model);
}
