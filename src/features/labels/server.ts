import 'server-only';
import { headers } from 'next/headers';
import type { Circuit } from '@/core/circuit/schema';
import { findMachine, functionsOf } from '@/db/jobs';
import { wireMarks, type WireMark } from './wireMarks';
import { originOf, type Origin } from './origin';

export async function labelOrigin(): Promise<Origin> {
  const asked = await headers();
  return originOf(asked.get('host'), asked.get('x-forwarded-proto'));
}

/** A machine's labels: itself, its functions, and a mark for both ends of each wire. Null where there is no such machine. */
export async function machineLabels(code: string): Promise<{
  machine: { code: string; name: string };
  functions: { id: string; name: string }[];
  wires: WireMark[];
  origin: Origin;
} | null> {
  const machine = await findMachine(code);
  if (!machine) return null;
  const functions = await functionsOf(machine.id);
  return {
    machine,
    functions: functions.map(({ id, name }) => ({ id, name })),
    wires: wireMarks(functions.map(({ circuit }): Circuit => circuit)),
    origin: await labelOrigin(),
  };
}
