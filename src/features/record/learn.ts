import { v7 as uuidv7 } from 'uuid';
import type { Circuit } from '@/core/circuit/schema';
import { faultKey } from '@/core/diagnosis/experience';
import type { FaultName } from '@/core/diagnosis/faultTypes';
import { ageOf, seasonOfDay, type LearntOdds, type ProvedFault } from '@/core/shed/learntOdds';
import { findFunction } from '@/db/library';
import { listOutcomes, putLearntOdds } from '@/db/past';
import type { shedTask, ShedTask } from '@/workers/shedTask';
import { typeKey } from './typeKey';

/** Jobs that are learnt from, the latest; what broke before says little of today. */
const MOST_JOBS = 20_000;

/**
 * Learns anew from every job that was proved and held, and keeps it: jobs that are opened from `at` on are weighed by it.
 *
 * @param work does the arithmetic, in a thread of its own or here
 */
export async function learnFromPast(
  at: Date,
  work: (task: ShedTask) => ReturnType<typeof shedTask> | Promise<ReturnType<typeof shedTask>>,
): Promise<LearntOdds> {
  const rows = (await listOutcomes(MOST_JOBS)).filter(({ fault, came_back }) => fault !== null && !came_back);
  const types: { key: string; circuit: Circuit }[] = [];
  const typeAt = new Map<string, number>();
  for (const { type_key, function_id } of rows) {
    if (typeAt.has(type_key)) continue;
    // Of a type that was drawn anew since, what broke before counts for the drawing as it is.
    const drawn = await findFunction(function_id);
    if (!drawn) continue;
    typeAt.set(type_key, types.length);
    types.push({ key: typeKey(drawn.circuit), circuit: drawn.circuit });
  }
  const jobs = rows.flatMap(
    ({ type_key, part, fault, equipment, closed_at, place, weather, machine_hours }): ProvedFault[] => {
      const type = typeAt.get(type_key);
      if (type === undefined) return [];
      const key = faultKey({ ref: part, fault: fault as FaultName });
      return [
        {
          type,
          key,
          equipment,
          season: seasonOfDay(closed_at.toISOString()),
          place,
          weather,
          age: ageOf(machine_hours),
        },
      ];
    },
  );
  const done = await work({ do: 'learn', types, jobs });
  if (!('learnt' in done)) throw new Error('the shed’s odds were not worked out');
  await putLearntOdds(uuidv7(), at, done.learnt.jobs, done.learnt);
  return done.learnt;
}
