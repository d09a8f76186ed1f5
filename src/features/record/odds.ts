import 'server-only';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { ODDS_LEVELS, seasonOfDay, type LearntOdds, type ProvedFault } from '@/core/shed/learntOdds';
import { faultKey } from '@/core/diagnosis/experience';
import type { FaultName } from '@/core/diagnosis/faultTypes';
import { outdateDigests } from '@/db/digests';
import { findFunction } from '@/db/library';
import { listOutcomes, putLearntOdds, readLearntOdds } from '@/db/past';
import { getSetting, putSetting } from '@/db/settings';
import { shedTask } from '@/workers/shedTask';
import { inThread } from '../gate/threads';
import { log } from '../serverLog';
import { typeKey } from './typeKey';

const NAME = 'odds';
/** Jobs that are learnt from, the latest; what broke before says little of today. */
const MOST_JOBS = 20_000;
const REST_MS = 5000;

const factors = z.record(z.string(), z.number().positive());
const learntSchema: z.ZodType<LearntOdds> = z.object({
  jobs: z.number(),
  factors: z.record(z.enum(ODDS_LEVELS), factors) as unknown as z.ZodType<LearntOdds['factors']>,
});

/** What the lead has settled: whether the shed's own odds are used at all, and factors that stand in place of learnt ones. */
export const ownOddsSchema = z.object({
  learn: z.boolean().default(true),
  own: z.record(z.string().max(80), z.number().min(0.01).max(100)).default({}),
});
export type OwnOdds = z.infer<typeof ownOddsSchema>;

export async function openOwnOdds(): Promise<OwnOdds & { by: string | null }> {
  const stored = await getSetting(NAME);
  const parsed = ownOddsSchema.safeParse(stored?.value ?? {});
  return { ...(parsed.success ? parsed.data : ownOddsSchema.parse({})), by: stored?.person ?? null };
}

export async function settleOwnOdds(settled: OwnOdds, person: string): Promise<void> {
  await putSetting(NAME, settled, person);
  await outdateDigests();
  log.info({ person, learn: settled.learn, own: Object.keys(settled.own).length }, 'odds settled');
}

/** The odds as they stood at a moment; null where nothing was learnt by then, or the lead will have none of it. */
export async function oddsBefore(
  moment: Date,
): Promise<{ learnt: LearntOdds | null; own: OwnOdds['own'] }> {
  const [{ learn, own }, kept] = await Promise.all([openOwnOdds(), readLearntOdds(moment)]);
  if (!learn || !kept) return { learnt: null, own };
  const parsed = learntSchema.safeParse(kept.body);
  return { learnt: parsed.success ? parsed.data : null, own };
}

/** Learns anew from every job that was proved and held, and keeps it: jobs that are opened from now on are weighed by it. */
export async function learnNow(at = new Date()): Promise<LearntOdds> {
  const rows = (await listOutcomes(MOST_JOBS)).filter(({ fault, came_back }) => fault !== null && !came_back);
  const types: { key: string; circuit: Parameters<typeof typeKey>[0] }[] = [];
  const typeAt = new Map<string, number>();
  for (const { type_key, function_id } of rows) {
    if (typeAt.has(type_key)) continue;
    // Of a type that was drawn anew since, what broke before counts for the drawing as it is.
    const drawn = await findFunction(function_id);
    if (!drawn) continue;
    typeAt.set(type_key, types.length);
    types.push({ key: typeKey(drawn.circuit), circuit: drawn.circuit });
  }
  const jobs = rows.flatMap(({ type_key, part, fault, equipment, closed_at, place }): ProvedFault[] => {
    const type = typeAt.get(type_key);
    if (type === undefined) return [];
    const key = faultKey({ ref: part, fault: fault as FaultName });
    return [{ type, key, equipment, season: seasonOfDay(closed_at.toISOString()), place }];
  });
  const done = await inThread('shed', { do: 'learn', types, jobs }, shedTask);
  if (!('learnt' in done)) throw new Error('the shed’s odds were not worked out');
  await putLearntOdds(uuidv7(), at, done.learnt.jobs, done.learnt);
  return done.learnt;
}

const held = globalThis as typeof globalThis & { spiraxisLearning?: { busy: boolean; again: boolean } };
const learning = (held.spiraxisLearning ??= { busy: false, again: false });

/** Has the odds learnt anew soon; jobs that are closed meanwhile are looked at once more. */
export function learnSoon(): void {
  learning.again = true;
  if (learning.busy) return;
  learning.busy = true;
  void (async () => {
    try {
      while (learning.again) {
        await new Promise((resolve) => setTimeout(resolve, REST_MS).unref());
        learning.again = false;
        await learnNow();
      }
    } catch (error) {
      // Jobs go on by the odds that stand.
      log.warn({ err: error }, 'the shed’s odds could not be learnt');
    } finally {
      learning.busy = false;
    }
  })();
}
