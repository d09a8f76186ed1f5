import 'server-only';
import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { getSetting, putSetting } from '@/db/settings';
import { log } from '../serverLog';
import { ruleKeys, upgradeRules } from '@/core/tables/ruleKey';
import { rulesSchema, type ShopRules } from './rules';

const NAME = 'tables';

export async function openRules(): Promise<{ rules: ShopRules; by: string | null }> {
  const stored = await getSetting(NAME);
  const parsed = rulesSchema.safeParse(stored?.value ?? {});
  return { rules: parsed.success ? upgradeRules(parsed.data) : {}, by: stored?.person ?? null };
}

/** Keeps the shop's own figures; only for columns that are practice and no standard. */
export async function settleRules(rules: unknown, person: string): Promise<{ trouble: string | null }> {
  const who = z.string().trim().min(1).max(60).safeParse(person);
  if (!who.success) return { trouble: 'Say who settles it.' };
  const parsed = rulesSchema.safeParse(rules);
  if (!parsed.success) return { trouble: 'A figure is a number from 0 up.' };
  const open = new Set(ruleKeys());
  const wrong = Object.keys(parsed.data).find((key) => !open.has(key));
  if (wrong)
    return { trouble: `“${wrong}” is a standard’s figure, or none; shop rules alone can be changed.` };
  await putSetting(NAME, parsed.data, who.data);
  log.info({ person: who.data, rules: Object.keys(parsed.data).length }, 'shop rules settled');
  revalidatePath('/tables');
  return { trouble: null };
}
