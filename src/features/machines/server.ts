import 'server-only';
import { kindOf } from '@/core/kinds/part';
import { redirect } from 'next/navigation';
import { revalidatePath } from 'next/cache';
import { sharedParts } from '@/core/circuit/joinCircuits';
import { machineFacts, type MachineFacts } from '@/core/library/fleet';
import { machineNames } from '@/core/library/names';
import { parseFigure } from '@/core/units/parseFigure';
import { listClasses } from '@/db/classes';
import { defectsOf } from '@/db/digests';
import { countMachines, findMachine, listMachines } from '@/db/jobs';
import {
  addMachine,
  addMachineWhole,
  drawnFunctions,
  dropFunction,
  NameTaken,
  putMachineFacts,
} from '@/db/library';
import { log } from '../serverLog';
import { asOn } from './asOn';
import { besideClass } from './classes';

const MACHINES_A_PAGE = 60;
export interface FormAnswer {
  trouble: string | null;
  field?: string;
}

/** A page of machines by code, with how many there are, and the classes of all. */
export async function openLibrary({ q, equipment, after }: { q: string; equipment: string; after?: string }) {
  const filter = { text: q, ...(equipment ? { equipment } : {}) };
  const [machines, total, all, classes] = await Promise.all([
    listMachines(MACHINES_A_PAGE + 1, { ...filter, ...(after === undefined ? {} : { after }) }),
    countMachines(filter),
    countMachines(),
    listClasses(),
  ]);
  const page = machines.slice(0, MACHINES_A_PAGE);
  return {
    machines: page,
    total,
    all,
    classes,
    next: machines.length > page.length ? (page.at(-1)?.code ?? null) : null,
  };
}

/** Adds a machine; where another is named that it is like, with that one's class, functions, code book and sheets. */
export async function createMachine(
  fields: { code: string; name: string; like: string },
  person: string,
): Promise<FormAnswer> {
  const parsed = machineNames.safeParse(fields);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    return { trouble: issue.message, field: String(issue.path[0]) };
  }
  const like = fields.like.trim();
  const other = like === '' ? null : await findMachine(like);
  if (like !== '' && !other) return { trouble: `There is no machine “${like}” to be like.`, field: 'like' };
  try {
    if (other) await addMachineWhole({ ...parsed.data, ...(await asOn(other, person)) });
    else await addMachine(parsed.data);
  } catch (error) {
    if (error instanceof NameTaken) return { trouble: error.message, field: 'code' };
    throw error;
  }
  log.info({ machine: parsed.data.code }, 'machine added');
  redirect(`/machines/${encodeURIComponent(parsed.data.code)}`);
}

/** A machine's code as the shed writes it: to the database it is the same in small letters. Null when there is none. */
export async function codeWritten(code: string): Promise<string | null> {
  return (await findMachine(code))?.code ?? null;
}

/** A machine with its functions and the parts that several of them share. Null when there is none. */
export async function openMachine(code: string) {
  const machine = await findMachine(code);
  if (!machine) return null;
  const [functions, defects, classes] = await Promise.all([
    drawnFunctions(machine.id),
    defectsOf(machine.id),
    listClasses(),
  ]);
  const { alike, differs } = await besideClass(machine, functions);
  const shared = new Map<string, { ref: string; label: string; kind: string; functions: Set<string> }>();
  functions.forEach((one, at) => {
    for (const other of functions.slice(at + 1)) {
      for (const ref of sharedParts(one.circuit, other.circuit)) {
        const part = one.circuit.parts.find((own) => own.ref === ref)!;
        const row = shared.get(ref) ?? {
          ref,
          label: part.label ?? '',
          kind: part.kind,
          functions: new Set<string>(),
        };
        row.functions.add(one.name).add(other.name);
        shared.set(ref, row);
      }
    }
  });
  return {
    machine,
    equipment: classes.map(({ name }) => name),
    defects,
    differs,
    functions: functions.map(({ id, name, version, circuit }) => ({
      id,
      name,
      version,
      /** On as many other machines of the class it is drawn the same. */
      alike: alike.get(name) ?? 0,
      parts: circuit.parts.length,
      works: circuit.parts.flatMap((part) => (kindOf(part).traits.works ? [part.label ?? part.ref] : [])),
    })),
    shared: [...shared.values()]
      .map((row) => ({ ...row, functions: [...row.functions] }))
      .sort(
        (a, b) =>
          b.functions.length - a.functions.length || a.ref.localeCompare(b.ref, 'en', { numeric: true }),
      ),
  };
}
export type OpenMachine = NonNullable<Awaited<ReturnType<typeof openMachine>>>;

export async function nameMachine(
  code: string,
  fields: Omit<MachineFacts, 'hours'> & { hours: string },
): Promise<FormAnswer> {
  const hours = parseFigure(fields.hours);
  if (hours.is === 'none')
    return {
      trouble: `Hours: “${hours.typed}” is no figure; type one such as 4120, or nothing.`,
      field: 'hours',
    };
  const parsed = machineFacts.safeParse({ ...fields, hours: hours.is === 'figure' ? hours.value : null });
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    return { trouble: issue.message, field: String(issue.path[0]) };
  }
  const machine = await findMachine(code);
  if (!machine) return { trouble: `There is no machine ${code}.` };
  await putMachineFacts(machine.id, parsed.data);
  revalidatePath(`/machines/${code}`);
  return { trouble: null };
}

/** Takes a function out; one that a job stands on stays. */
export async function removeFunction(code: string, id: string): Promise<FormAnswer> {
  const machine = await findMachine(code);
  const own = machine && (await drawnFunctions(machine.id)).find((one) => one.id === id);
  if (!own) return { trouble: 'That function is not on this machine any more.' };
  if (!(await dropFunction(id)))
    return { trouble: `“${own.name}” has jobs in the record; it stays, so that they can be read.` };
  log.info({ machine: code, function: own.name }, 'function taken out');
  revalidatePath(`/machines/${code}`);
  return { trouble: null };
}
