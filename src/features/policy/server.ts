import 'server-only';
import { revalidatePath } from 'next/cache';
import { outdateDigests } from '@/db/digests';
import { getSetting, putSetting } from '@/db/settings';
import { log } from '../serverLog';
import { policySchema, USUAL_POLICY, type Policy } from './policy';

const NAME = 'policy';
/** Fields as the form calls them. */
const NAMES: Readonly<Record<string, string>> = {
  gaugeUnit: 'Gauges are marked in',
  shopRate: 'Shop rate an hour',
  lockLine: 'Minutes to lock and prove a line supply',
  lockControl: 'Minutes to lock and prove a control supply',
  timeZone: 'Clock of the site',
  shedName: 'Name of the shed',
  machinesOut: 'Machines go out at',
};

/** The site's policy, and who settled it last. */
export async function openPolicy(): Promise<{ policy: Policy; by: string | null }> {
  const stored = await getSetting(NAME);
  const parsed = policySchema.safeParse(stored?.value ?? {});
  return { policy: parsed.success ? parsed.data : USUAL_POLICY, by: stored?.person ?? null };
}

export async function settlePolicy(policy: unknown, person: string): Promise<{ trouble: string | null }> {
  const parsed = policySchema.safeParse(policy);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    return { trouble: `${NAMES[String(issue.path[0])] ?? String(issue.path[0])}: ${issue.message}` };
  }
  await putSetting(NAME, parsed.data, person);
  // The shed weighs jobs as their own pages do.
  await outdateDigests();
  log.info('site policy settled');
  revalidatePath('/policy');
  return { trouble: null };
}
