import { demoShelf } from '../../demo/shelf';
import { askForSpare, moveSpare, putSpare, stepRequisition } from '../../src/db/spares';

const DAY_MS = 86_400_000;

/** Puts the demonstration's spares on an empty shelf, some of them on their way. */
export async function putShelf(now: number): Promise<void> {
  const ids: string[] = [];
  for (const { stock, ...card } of demoShelf()) {
    const spareId = await putSpare(null, card);
    ids.push(spareId);
    if (stock > 0)
      await moveSpare({
        spareId,
        pieces: stock,
        why: 'counted',
        person: 'Henrike',
        at: new Date(now - 60 * DAY_MS),
      });
  }
  const asked = async (at: number, pieces: number, days: number) =>
    askForSpare({ spareId: ids[at]!, pieces, person: 'Ilse', at: new Date(now - days * DAY_MS) });
  const step = (number: number, state: 'approved' | 'ordered' | 'received', days: number) => {
    const at = new Date(now - days * DAY_MS);
    return stepRequisition(number, { state, person: 'Henrike', at, note: '' }, at.toISOString().slice(0, 10));
  };
  const late = await asked(3, 2, 20);
  await step(late, 'approved', 19);
  await step(late, 'ordered', 18);
  const coming = await asked(10, 1, 4);
  await step(coming, 'approved', 3);
  await step(coming, 'ordered', 3);
  await asked(0, 1, 1);
  const came = await asked(5, 1, 30);
  await step(came, 'approved', 29);
  await step(came, 'ordered', 28);
  await step(came, 'received', 20);
}
