import 'server-only';
import { revalidatePath } from 'next/cache';
import { getSetting, putSetting } from '@/db/settings';
import { log } from '../serverLog';
import { equipmentName } from '@/core/library/names';
import { listClasses } from '@/db/classes';
import { ruleLeasts, splitRule, upgradeRules } from '@/core/tables/ruleKey';
import { rulesSchema, type ShopRules } from './rules';

const NAME = 'tables';

export async function openRules(): Promise<{ rules: ShopRules; by: string | null }> {
  const stored = await getSetting(NAME);
  const parsed = rulesSchema.safeParse(stored?.value ?? {});
  return { rules: parsed.success ? upgradeRules(parsed.data) : {}, by: stored?.person ?? null };
}

/** The tables' page: the rules, and the classes of equipment that machines have or rules are for. */
export async function openTables() {
  const [opened, known] = await Promise.all([openRules(), listClasses()]);
  const ruled = Object.keys(opened.rules).flatMap((key) => splitRule(key).equipment ?? []);
  return {
    ...opened,
    equipment: [...new Set([...known.map(({ name }) => name), ...ruled])].sort((a, b) =>
      a.localeCompare(b, 'en'),
    ),
  };
}

/** Keeps the shop's own figures; only for columns that are practice and no standard. */
export async function settleRules(rules: unknown, person: string): Promise<{ trouble: string | null }> {
  const parsed = rulesSchema.safeParse(rules);
  if (!parsed.success) return { trouble: 'A figure is a number from 0 up.' };
  const leasts = ruleLeasts();
  const { rules: kept } = await openRules();
  for (const [rule, value] of Object.entries(parsed.data)) {
    // What stands already holds nobody up, also where its row has another name by now.
    if (kept[rule] === value) continue;
    const { key, equipment } = splitRule(rule);
    const least = leasts.get(key);
    if (least === undefined)
      return { trouble: `“${rule}” is a standard’s figure, or none; shop rules alone can be changed.` };
    if (equipment !== null && !equipmentName.min(1).safeParse(equipment).success)
      return { trouble: `“${rule}” names no class of equipment.` };
    if (value < least)
      return {
        trouble: `${key.split('|')[1]}: ${value} is less than the standard’s ${least}; a shop may ask for more only.`,
      };
  }
  await putSetting(NAME, parsed.data, person);
  log.info({ rules: Object.keys(parsed.data).length }, 'shop rules settled');
  revalidatePath('/tables');
  return { trouble: null };
}
