import { BEGIN, openKept } from '../offline/caches';
import type { BegunFacts } from './begunFacts';

/** What a job would begin with is not asked for again so soon; a drawing that changed meanwhile is said on the job's page. */
const FRESH_MS = 3_600_000;
/** Functions at a time: a shed may have hundreds, and a tablet keeps those at hand. */
const MOST = 120;

const address = (functionId: string) => `/api/functions/${functionId}/begin`;

/**
 * Keeps what jobs on these functions would begin with, for where there is no network, one after the other. One that does
 * not come is asked for the next time.
 */
export async function keepBegin(functionIds: readonly string[], now = Date.now()): Promise<void> {
  const cache = navigator.onLine ? await openKept(BEGIN) : null;
  if (!cache) return;
  for (const id of functionIds.slice(0, MOST)) {
    const known = (await cache.match(address(id)))?.headers.get('date');
    if (known && now - Date.parse(known) < FRESH_MS) continue;
    const answer = await fetch(address(id)).catch(() => null);
    if (!answer?.ok) {
      // Nobody is signed in, or the server is away: the others will not come either.
      if (answer?.status !== 404) return;
      continue;
    }
    // A device that is full keeps what it has.
    await cache.put(address(id), answer).catch(() => undefined);
  }
}

/** What a job on a function begins with, as it was kept; null where it was not. */
export async function keptBegin(functionId: string): Promise<BegunFacts | null> {
  const cache = await openKept(BEGIN);
  const kept = await cache?.match(address(functionId));
  return kept ? ((await kept.json()) as BegunFacts) : null;
}

/** Functions that a job can be begun on here without the server, as a list of the form. */
export async function listBegin(): Promise<{ id: string; machine: string; name: string }[]> {
  const cache = await openKept(BEGIN);
  if (!cache) return [];
  const all = await Promise.all(
    (await cache.keys()).map(async (request) => (await (await cache.match(request))!.json()) as BegunFacts),
  );
  return all
    .map(({ functionId, machineCode, machineName, functionName }) => ({
      id: functionId,
      machine: `${machineCode} ${machineName}`,
      name: functionName,
    }))
    .sort((a, b) => a.machine.localeCompare(b.machine, 'en') || a.name.localeCompare(b.name, 'en'));
}
