import 'server-only';
import { readBook } from '@/db/codeBook';
import { listDrawings } from '@/db/drawings';
import { drawnFunctions, type WholeMachine } from '@/db/library';

/** What a new machine of the same make has from the start: class, functions, code book and sheets with their pins. Its serial, place and hours are its own. */
export async function asOn(
  { id, code, equipment }: { id: string; code: string; equipment: string | null },
  person: string,
): Promise<Omit<WholeMachine, 'code' | 'name'>> {
  const [functions, book, drawings] = await Promise.all([drawnFunctions(id), readBook(id), listDrawings(id)]);
  return {
    equipment,
    serial: null,
    place: null,
    hours: null,
    functions: functions.map(({ name, circuit }) => ({ name, circuit, person, note: `As on ${code}` })),
    book,
    drawings: drawings.map(({ name, photo, pins }) => ({ name, photo, pins })),
  };
}
