import 'server-only';
import { shopMarks } from '@/core/tables/marks';
import { findFunction } from '@/db/library';
import { functionsWithPast, measuresOf, repairsOf } from '@/db/past';
import { ofShed } from '@/db/shed';
import { putTrends } from '@/db/trends';
import { shedTask } from '@/workers/shedTask';
import { inThread } from '../gate/threads';
import { openPolicy } from '../policy/server';
import { log } from '../serverLog';
import { openRules } from '../tables/server';

/** Works out anew how the places of a function move, from what its jobs left proved. */
export async function refreshTrends(functionId: string): Promise<void> {
  const [drawn, measures, repairs, { policy }, { rules }] = await Promise.all([
    findFunction(functionId),
    measuresOf(functionId),
    repairsOf(functionId),
    openPolicy(),
    openRules(),
  ]);
  if (!drawn) return;
  const marks = shopMarks(rules, { equipment: drawn.equipment, insulationPass: policy.insulationPass });
  const done = await inThread(
    'shed',
    { do: 'trends', circuit: drawn.circuit, measures, repairs, marks },
    shedTask,
  );
  if ('trends' in done) await putTrends(functionId, done.trends);
}

const roundOf = ofShed('trends', () => ({ busy: false, again: false }));

/** A limit was changed: what stands against it is worked out anew for every function, one after the other, behind everything else. */
export function refreshAllTrendsSoon(): void {
  const round = roundOf();
  round.again = true;
  // In one process, as tests run it, this would outlive what it works on.
  if (round.busy || process.env.SPIRAXIS_THREADS === 'off') return;
  round.busy = true;
  void (async () => {
    try {
      while (round.again) {
        round.again = false;
        for (const id of await functionsWithPast()) {
          if (round.again) break;
          await refreshTrends(id);
        }
      }
    } catch (error) {
      // Trends stand against the limits of before until their function is next handed over.
      log.warn({ err: error }, 'trends could not be worked out anew');
    } finally {
      round.busy = false;
    }
  })();
}
