import 'server-only';
import { shopMarks } from '@/core/tables/marks';
import { findFunction } from '@/db/library';
import { measuresOf, repairsOf } from '@/db/past';
import { putTrends } from '@/db/trends';
import { shedTask } from '@/workers/shedTask';
import { inThread } from '../gate/threads';
import { openPolicy } from '../policy/server';
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
