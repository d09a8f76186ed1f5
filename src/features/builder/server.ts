import 'server-only';
import { siteTime } from '@/core/units/siteTime';
import { revalidatePath } from 'next/cache';
import { emptyDrawing } from '@/core/draw/layChain';
import { outdateDigests } from '@/db/digests';
import { refreshTrends } from '../trends/refresh';
import { InputError } from '@/core/circuit/inputError';
import { CircuitModel } from '@/core/circuit/model';
import type { Circuit } from '@/core/circuit/schema';
import { shareChanges } from '@/core/circuit/shareChanges';
import { drawingFrom } from '@/core/templates/drawingFrom';
import { TEMPLATES, type Template } from '@/core/templates/templates';
import { findMachine } from '@/db/jobs';
import {
  addFunction,
  drawnAlike,
  drawnFunctions,
  functionsNamed,
  type AlikeFunction,
  type NewVersion,
  findFunction,
  keepVersions,
  listVersions,
  NameTaken,
  readVersion,
  VersionConflict,
} from '@/db/library';
import { openPolicy } from '../policy/server';
import { log } from '../serverLog';
import { keepSchema, type KeepAnswer, type OpenDrawing } from './schema';

/** A function's drawing on the desk; a new one, from a template where one is named. Null when there is none. */
export async function openDrawing(
  code: string,
  {
    functionId,
    template,
    values = {},
  }: { functionId?: string; template?: string; values?: Readonly<Record<string, number>> },
): Promise<OpenDrawing | null> {
  const machine = await findMachine(code);
  if (!machine) return null;
  const [functions, { policy }] = await Promise.all([drawnFunctions(machine.id), openPolicy()]);
  const own = functionId === undefined ? null : (functions.find(({ id }) => id === functionId) ?? null);
  if (functionId !== undefined && !own) return null;
  const made = TEMPLATES.find(({ id }) => id === template);
  return {
    machine: { code: machine.code, name: machine.name },
    gaugeUnit: policy.gaugeUnit,
    functionId: own?.id ?? null,
    name: own?.name ?? made?.title ?? '',
    version: own?.version ?? 0,
    circuit: own?.circuit ?? (made ? builtFrom(made, values) : emptyDrawing('').circuit),
    versions: own
      ? (await listVersions(own.id)).map(({ version, person, note, kept_at }) => ({
          version,
          person,
          note,
          at: kept_at.toISOString(),
          day: siteTime(kept_at.toISOString(), policy.timeZone).day,
        }))
      : [],
    siblings: functions
      .filter(({ id }) => id !== own?.id)
      .map(({ id, name, version, circuit }) => ({ id, name, version, circuit })),
    alike: own
      ? (await drawnAlike(own.id))
          .map(({ id, machine: other }) => ({ id, machine: other }))
          .sort((a, b) => a.machine.localeCompare(b.machine, 'en', { numeric: true }))
      : [],
  };
}

/** A template with the values given for what it asks; one that is out of its bounds is left unsaid. */
function builtFrom(template: Template, values: Readonly<Record<string, number>>): Circuit {
  const given = template.fields.flatMap(({ key, least, most }) => {
    const value = values[key];
    return value !== undefined && value >= least && value <= most ? [[key, value] as const] : [];
  });
  return drawingFrom(template, Object.fromEntries(given));
}

/** A version of a function, for comparing; null when there is none. */
export async function openVersion(functionId: string, version: number): Promise<Circuit | null> {
  return (await findFunction(functionId)) ? readVersion(functionId, version) : null;
}

/**
 * Keeps a drawing as a new version, and the parts it shares in every function that is named; the same on other machines that were drawn
 * alike, where they are named. All or nothing.
 */
export async function keepDrawing(request: unknown, person: string): Promise<KeepAnswer> {
  const parsed = keepSchema.safeParse(request);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    return { trouble: issue.message, field: String(issue.path[0] ?? '') };
  }
  const { machine: code, functionId, basedOn, name, note, also, onto } = parsed.data;
  const circuit = { ...parsed.data.circuit, name };
  const machine = await findMachine(code);
  if (!machine) return { trouble: `There is no machine ${code} any more.` };
  try {
    new CircuitModel(circuit);
    const functions = await drawnFunctions(machine.id);
    const same = functions.find((one) => one.name === name && one.id !== functionId);
    if (same) return { trouble: `This machine has a function “${name}” already.`, field: 'name' };
    if (functionId === null) {
      const id = await addFunction({
        machineId: machine.id,
        name,
        circuit,
        person,
        note: note || 'First drawing',
      });
      done(code, name, person, 1);
      return { functionId: id, version: 1 };
    }
    const own = functions.find(({ id }) => id === functionId);
    if (!own) return { trouble: 'This function is not on the machine any more. Keep it under a new name.' };
    const alike = onto.length === 0 ? [] : await alikeStill(functionId, onto);
    if ('trouble' in alike) return alike;
    const named = functions.filter(({ id }) => also.includes(id)).map((one) => one.name);
    const there = await functionsNamed(
      alike.map(({ machineId }) => machineId),
      [name, ...named],
    );
    const taken = there.find((one) => one.name === name && !onto.includes(one.id));
    if (taken) return { trouble: `${taken.machine_code} has a function “${name}” already.`, field: 'name' };
    const others = [
      ...functions.filter(({ id }) => also.includes(id)),
      ...there.filter((one) => named.includes(one.name)),
    ].flatMap((other): NewVersion[] => {
      const shared = shareChanges(own.circuit, circuit, other.circuit);
      return shared ? [{ functionId: other.id, basedOn: other.version, circuit: shared }] : [];
    });
    for (const other of others) new CircuitModel(other.circuit);
    const versions: NewVersion[] = [
      { functionId, basedOn, circuit, name },
      ...alike.map((one) => ({ functionId: one.id, basedOn: one.version, circuit, name })),
      ...others,
    ];
    await keepVersions(versions, person, note);
    // A job that asks about this function as well stands on its newest drawing.
    for (const id of [own.machine_id, ...alike.map(({ machineId }) => machineId)]) await outdateDigests(id);
    // What the drawing no longer has is no longer followed, and its limits are those of the new one.
    for (const one of versions) await refreshTrends(one.functionId);
    done(code, name, person, basedOn + 1);
    for (const one of alike) done(one.machine, name, person, one.version + 1);
    return { functionId, version: basedOn + 1 };
  } catch (error) {
    if (error instanceof InputError || error instanceof VersionConflict || error instanceof NameTaken)
      return { trouble: error.message };
    throw error;
  }
}

/** Those that are asked for, where all of them are drawn alike still. */
async function alikeStill(
  functionId: string,
  onto: readonly string[],
): Promise<AlikeFunction[] | { trouble: string; field: string }> {
  const alike = (await drawnAlike(functionId)).filter(({ id }) => onto.includes(id));
  return alike.length === new Set(onto).size
    ? alike
    : {
        trouble:
          'One of the machines that were drawn alike is not any more. Open the drawing anew, and see which are.',
        field: 'onto',
      };
}

function done(code: string, name: string, person: string, version: number): void {
  log.info({ machine: code, function: name, person, version }, 'drawing kept');
  revalidatePath(`/machines/${code}`);
}
