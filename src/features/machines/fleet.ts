import 'server-only';
import { InputError } from '@/core/circuit/inputError';
import { FLEET_COLUMNS, MOST_OF_FLEET, readFleet, type FleetRow } from '@/core/library/fleet';
import { findMachine } from '@/db/jobs';
import { addMachineWhole, listFleet, putMachineFacts } from '@/db/library';
import { readTable, writeTable } from '@/formats/table';
import { Refused } from '../gate/failure';
import { log } from '../serverLog';
import { asOn } from './asOn';

/** Every machine with what it is, as CSV. */
export async function fleetTable(): Promise<string> {
  const rows = await listFleet(MOST_OF_FLEET);
  return writeTable(
    FLEET_COLUMNS,
    rows.map((row) => ({ ...row, hours: row.hours ?? '', like: '' })),
  );
}

/**
 * Takes a fleet table in: machines that are there get what it says of them, new ones their functions from the machine they are like. A bad
 * line takes nothing in. The same table brought again changes nothing more.
 */
export async function takeFleet(text: string, person: string): Promise<{ added: number; changed: number }> {
  const rows = fleetOf(text);
  const likes = new Map<string, Awaited<ReturnType<typeof asOn>>>();
  for (const { like, facts } of rows) {
    if (like === null || likes.has(like)) continue;
    const machine = await findMachine(like);
    if (!machine && !rows.some((row) => row.facts.code === like))
      throw new Refused(400, 'bad-input', `${facts.code}: there is no machine “${like}” to be like.`);
    if (machine) likes.set(like, await asOn(machine, person));
  }
  let added = 0;
  for (const { facts, like } of rows) {
    const known = await findMachine(facts.code);
    if (known) {
      await putMachineFacts(known.id, facts);
      continue;
    }
    const other = like === null ? null : likes.get(like);
    const fresh = {
      code: facts.code,
      name: facts.name,
      equipment: facts.equipment || other?.equipment || null,
      serial: facts.serial || null,
      place: facts.place || null,
      hours: facts.hours,
    };
    const id = await addMachineWhole({
      ...fresh,
      functions: other?.functions ?? [],
      book: other?.book ?? [],
      drawings: other?.drawings ?? [],
    });
    // The next one may be like this one.
    if (rows.some((row) => row.like === facts.code))
      likes.set(facts.code, await asOn({ ...fresh, id }, person));
    added++;
  }
  log.info({ added, changed: rows.length - added }, 'fleet taken in');
  return { added, changed: rows.length - added };
}

function fleetOf(text: string): FleetRow[] {
  try {
    return readFleet(readTable(text, ['code', 'name']));
  } catch (error) {
    if (error instanceof InputError) throw new Refused(400, 'bad-input', `${error.field}: ${error.problem}.`);
    throw error;
  }
}
