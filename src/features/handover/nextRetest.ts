import { dayAfter } from '../siteDays';

/** When a machine that is handed over is looked at again, and who says so. */
export interface NextRetest {
  /** A day, "2026-11-29". */
  on: string;
  by: 'policy' | 'trend';
}

/**
 * The next look at a machine: after as many days as the site's policy says, or sooner, where something on it drifts and may be at its limit
 * before. Null where neither says anything; a day that is past is no day to look again.
 */
export function nextRetest(
  today: string,
  policyDays: number | null,
  drifting: { on: string | null } | null,
): NextRetest | null {
  const byPolicy = policyDays === null ? null : dayAfter(today, policyDays);
  const byTrend = drifting?.on && drifting.on > today ? drifting.on : null;
  if (byTrend !== null && (byPolicy === null || byTrend < byPolicy)) return { on: byTrend, by: 'trend' };
  return byPolicy === null ? null : { on: byPolicy, by: 'policy' };
}
