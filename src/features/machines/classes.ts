import 'server-only';
import type { Circuit } from '@/core/circuit/schema';
import { compareCircuits } from '@/core/draw/compareCircuits';
import { circuitOn, classDrawings, listClasses, machinesDrawn, type ClassDrawing } from '@/db/classes';
import { differenceWords } from '@/words/en/drawing';
import { foundAlike } from '../record/server';

/** Differences of one function that are listed; more of them are another drawing. */
const MOST_DIFFERENCES = 6;

/** In what one drawing differs from another, in lines, and how many more lines there would be. */
export interface DrawingDifference {
  lines: string[];
  more: number;
}

function differenceOf(usual: Circuit, own: Circuit): DrawingDifference {
  const found = compareCircuits(usual, own);
  return {
    lines: found.slice(0, MOST_DIFFERENCES).map((one) => differenceWords(one, 'others')),
    more: Math.max(0, found.length - MOST_DIFFERENCES),
  };
}

/** On how many other machines of its class each function is drawn the same, and how it differs from what most others have. */
export async function besideClass(
  machine: { id: string; equipment: string | null },
  functions: readonly { name: string; circuit: Circuit }[],
): Promise<{
  alike: ReadonlyMap<string, number>;
  differs: ({ name: string; machine: string } & DrawingDifference)[];
}> {
  if (machine.equipment === null) return { alike: new Map(), differs: [] };
  const drawings = await classDrawings(machine.equipment, {
    machineId: machine.id,
    names: functions.map(({ name }) => name),
  });
  const alike = new Map<string, number>();
  const differs = [];
  for (const { name, circuit } of functions) {
    const others = drawings
      .filter((one) => one.name === name)
      .map((one) => ({ ...one, machines: one.machines - (one.own ? 1 : 0) }))
      .filter(({ machines }) => machines > 0)
      .sort((a, b) => b.machines - a.machines);
    alike.set(name, others.find(({ own }) => own)?.machines ?? 0);
    const [usual] = others;
    if (!usual || usual.own) continue;
    const drawn = await circuitOn(usual.machine, name);
    const difference = drawn ? differenceOf(drawn, circuit) : null;
    if (difference && difference.lines.length > 0)
      differs.push({ name, machine: usual.machine, ...difference });
  }
  return { alike, differs };
}

/** Ways of drawing one function that are shown with what they differ in. */
const MOST_WAYS = 4;
/** Machines that are named for one way. */
const MOST_NAMED = 12;

export interface WayPage extends DrawingDifference {
  machines: number;
  /** The first of them, by code. */
  named: string[];
}

/** A class with the ways in which each function is drawn there, and what was found in it. Null where no machine has it. */
export async function openClass(asked: string) {
  const own = (await listClasses()).find(({ name }) => name.toLowerCase() === asked.toLowerCase());
  if (!own) return null;
  const byName = new Map<string, ClassDrawing[]>();
  for (const one of await classDrawings(own.name))
    byName.set(one.name, [...(byName.get(one.name) ?? []), one]);
  return {
    ...own,
    functions: await Promise.all(
      [...byName].map(async ([name, drawings]) => {
        const usual = await circuitOn(drawings[0]!.machine, name);
        return {
          name,
          machines: drawings.reduce((sum, { machines }) => sum + machines, 0),
          parts: usual?.parts.length ?? 0,
          found: usual ? await foundAlike(usual) : null,
          ways: await Promise.all(
            drawings.slice(0, MOST_WAYS).map((one, at) => wayOf(own.name, one, at === 0 ? null : usual)),
          ),
          moreWays: Math.max(0, drawings.length - MOST_WAYS),
        };
      }),
    ),
  };
}

/** @param usual what it is held against; null for the usual way itself */
async function wayOf(equipment: string, drawing: ClassDrawing, usual: Circuit | null): Promise<WayPage> {
  const { name, machines, machine, drawn } = drawing;
  const [named, circuit] = await Promise.all([
    machinesDrawn(equipment, name, drawn, MOST_NAMED),
    usual ? circuitOn(machine, name) : null,
  ]);
  return {
    machines,
    named: named.sort((a, b) => a.localeCompare(b, 'en', { numeric: true })),
    ...(usual && circuit ? differenceOf(usual, circuit) : { lines: [], more: 0 }),
  };
}

export type ClassPage = NonNullable<Awaited<ReturnType<typeof openClass>>>;
