import { z } from 'zod';
import { InputError } from '../circuit/inputError';
import { parseFigure } from '../units/parseFigure';
import { equipmentName, machineNames } from './names';

const MOST_HOURS = 1_000_000;

/** What a machine is, beside its functions; null where nobody said. */
export const machineFacts = z.object({
  name: machineNames.shape.name,
  equipment: equipmentName,
  serial: z.string().trim().max(60, 'A serial has at most 60 characters.'),
  place: z.string().trim().max(120, 'A place has at most 120 characters.'),
  hours: z
    .number()
    .int('Hours are a whole number.')
    .min(0, 'Hours are not below 0.')
    .max(MOST_HOURS, `Hours are at most ${MOST_HOURS}.`)
    .nullable(),
});
export type MachineFacts = z.infer<typeof machineFacts>;

/** A machine of a fleet table. */
export interface FleetRow {
  facts: MachineFacts & { code: string };
  /** Machine whose functions a new one gets; null for none. */
  like: string | null;
}

/** Columns of a fleet table; those that are not there say nothing. */
export const FLEET_COLUMNS = ['code', 'name', 'equipment', 'serial', 'place', 'hours', 'like'] as const;
/** More machines in one table than that are no fleet of one shed. */
export const MOST_OF_FLEET = 5000;

/**
 * Machines from the rows of a table. Throws {@link InputError} naming the line for what no form would take, and for a code that stands
 * there twice.
 */
export function readFleet(
  rows: readonly { line: number; cells: Readonly<Record<string, string>> }[],
): FleetRow[] {
  if (rows.length > MOST_OF_FLEET)
    throw new InputError(
      'the table',
      `has ${rows.length} machines; bring ${MOST_OF_FLEET} at a time at most`,
    );
  const lines = new Map<string, number>();
  return rows.map(({ line, cells }) => {
    const cell = (column: (typeof FLEET_COLUMNS)[number]) => (cells[column] ?? '').trim();
    const hours = parseFigure(cell('hours'));
    if (hours.is === 'none')
      throw new InputError(
        `line ${line}`,
        `hours: "${hours.typed}" is no figure; write one such as 4120, or nothing`,
      );
    const parsed = machineFacts.extend({ code: machineNames.shape.code }).safeParse({
      code: cell('code'),
      name: cell('name'),
      equipment: cell('equipment'),
      serial: cell('serial'),
      place: cell('place'),
      hours: hours.is === 'figure' ? hours.value : null,
    });
    if (!parsed.success) {
      const issue = parsed.error.issues[0]!;
      throw new InputError(`line ${line}`, `${String(issue.path[0])}: ${issue.message.replace(/\.$/, '')}`);
    }
    const { code } = parsed.data;
    const before = lines.get(code);
    if (before !== undefined)
      throw new InputError(`line ${line}`, `"${code}" stands on line ${before} already; keep one of them`);
    lines.set(code, line);
    return { facts: parsed.data, like: cell('like') || null };
  });
}
