import 'server-only';
import { LRUCache } from 'lru-cache';
import { z } from 'zod';
import { NOTHING_LEARNT, ODDS_LEVELS, type LearntOdds } from '@/core/shed/learntOdds';
import { outdateDigests } from '@/db/digests';
import { findLearntOdds, readLearntOdds } from '@/db/past';
import { getSetting, putSetting } from '@/db/settings';
import { inThisShed, ofProcess, ofShed } from '@/db/shed';
import { shedTask } from '@/workers/shedTask';
import { inThread } from '../gate/threads';
import { log } from '../serverLog';
import { learnFromPast } from './learn';
import { ownOddsSchema, type OwnOdds } from './ownOdds';

const NAME = 'odds';
const REST_MS = 5000;

const factors = z.record(z.string(), z.number().positive());
const learntSchema: z.ZodType<LearntOdds> = z.object({
  jobs: z.number(),
  // What was learnt before a level was counted says nothing on it.
  factors: z
    .partialRecord(z.enum(ODDS_LEVELS), factors)
    .transform((kept): LearntOdds['factors'] => ({ ...NOTHING_LEARNT.factors, ...kept })),
});

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

const MOST_HELD = 12;
const known = ofProcess('odds', () => new LRUCache<string, LearntOdds>({ max: MOST_HELD }));

/** The odds as they stood at a moment; null where nothing was learnt by then, or the lead will have none of it. */
export async function oddsBefore(moment: Date): Promise<{ learnt: LearntOdds | null; own: OwnOdds['own'] }> {
  const [{ learn, own }, id] = await Promise.all([openOwnOdds(), findLearntOdds(moment)]);
  if (!learn || id === null) return { learnt: null, own };
  let learnt = known.get(inThisShed(id)) ?? null;
  if (!learnt) {
    const parsed = learntSchema.safeParse((await readLearntOdds(id))?.body);
    learnt = parsed.success ? parsed.data : null;
    if (learnt) known.set(inThisShed(id), learnt);
  }
  return { learnt, own };
}

const learningOf = ofShed('learning', () => ({ busy: false, again: false }));

/** Has the odds learnt anew soon; jobs that are closed meanwhile are looked at once more. */
export function learnSoon(): void {
  const learning = learningOf();
  learning.again = true;
  // In one process, as tests run it, a wait would outlive what it waits for.
  if (learning.busy || process.env.SPIRAXIS_THREADS === 'off') return;
  learning.busy = true;
  void (async () => {
    try {
      while (learning.again) {
        await new Promise((resolve) => setTimeout(resolve, REST_MS).unref());
        learning.again = false;
        await learnFromPast(new Date(), (task) => inThread('shed', task, shedTask));
      }
    } catch (error) {
      // Jobs go on by the odds that stand.
      log.warn({ err: error }, 'the shed’s odds could not be learnt');
    } finally {
      learning.busy = false;
    }
  })();
}
