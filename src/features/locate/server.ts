import 'server-only';
import { z } from 'zod';
import { functionsOf } from '@/db/jobs';

const MOST_FOUND = 60;

/** A part somewhere on the machine's drawings. */
export interface FoundPart {
  ref: string;
  label: string;
  place: string;
  sheet?: string | undefined;
  square?: string | undefined;
  function: string;
}

/** Parts of a machine by reference, name, place, sheet or grid square; whole references first. */
export async function findOnMachine(machineId: string, text: string): Promise<FoundPart[]> {
  const wanted = z.string().max(80).parse(text).trim().toLowerCase();
  if (wanted === '') return [];
  const functions = await functionsOf(z.uuid().parse(machineId));
  const all = functions.flatMap(({ name, circuit }) =>
    circuit.parts.map(({ ref, label = '', place = '', sheet, square }) => ({
      ref,
      label,
      place,
      sheet,
      square,
      function: name,
    })),
  );
  const rank = ({ ref, label, place, sheet, square }: FoundPart) => {
    if (ref.toLowerCase() === wanted || square?.toLowerCase() === wanted) return 0;
    if (ref.toLowerCase().startsWith(wanted)) return 1;
    return [ref, label, place, sheet ?? '', square ?? ''].some((one) => one.toLowerCase().includes(wanted))
      ? 2
      : 3;
  };
  return all
    .map((part) => ({ part, rank: rank(part) }))
    .filter((one) => one.rank < 3)
    .sort((a, b) => a.rank - b.rank || a.part.ref.localeCompare(b.part.ref, 'en', { numeric: true }))
    .slice(0, MOST_FOUND)
    .map(({ part }) => part);
}
