import 'server-only';
import { tz } from '@date-fns/tz';
import { addMonths, format, startOfMonth } from 'date-fns';
import { monthOf } from '@/core/shed/month';
import { closedBetween, fittedBetween, historyOf, type HistoryRow } from '@/db/history';
import { findMachine } from '@/db/jobs';
import { writeTable } from '@/formats/table';
import { openPolicy } from '../policy/server';
import { siteToday } from '../siteDays';
import { driftOfMachine } from '../trends/server';

const ROWS_A_PAGE = 40;
/** More jobs in a month are counted, and not listed. */
const MOST_OF_MONTH = 5000;
/** More jobs than any shed has in a month. */
const MOST_OF_TABLE = 100_000;
/** Kinds of spares that are listed, most pieces first; how many there are in all is said. */
const MOST_FITTED = 20;

/** A machine's jobs, the latest first, and what drifts on it; null where there is no such machine. */
export async function openHistory(code: string, before: number | undefined) {
  const machine = await findMachine(code);
  if (!machine) return null;
  const [rows, drift, { policy }] = await Promise.all([
    historyOf(machine.id, ROWS_A_PAGE + 1, before),
    driftOfMachine(code),
    openPolicy(),
  ]);
  const page = rows.slice(0, ROWS_A_PAGE);
  return {
    machine,
    rows: page,
    drift,
    timeZone: policy.timeZone,
    more: rows.length > page.length ? (page.at(-1)?.number ?? null) : null,
  };
}

/** A month of the site, from its first moment to that of the next. @param month 2026-11 */
function monthOfSite(
  month: string,
  timeZone: string,
): { from: Date; to: Date; before: string; after: string } {
  // Where the day of a job is counted is said by the site's clock, not by where the server stands.
  const first = startOfMonth(`${month}-15T12:00:00Z`, { in: tz(timeZone) });
  const next = addMonths(first, 1);
  return {
    // Plain moments: the driver would write the hours of a date that knows a zone.
    from: new Date(first.getTime()),
    to: new Date(next.getTime()),
    before: format(addMonths(first, -1), 'yyyy-MM'),
    after: format(next, 'yyyy-MM'),
  };
}

/** What a month came to. @param month 2026-11; this month where nothing is said */
export async function openMonth(month: string | undefined) {
  const { policy } = await openPolicy();
  const now = siteToday(policy.timeZone).slice(0, 7);
  const shown = month ?? now;
  const { from, to, before, after } = monthOfSite(shown, policy.timeZone);
  const [closed, fitted] = await Promise.all([
    closedBetween(from, to, MOST_OF_MONTH + 1),
    fittedBetween(from, to, MOST_FITTED),
  ]);
  const rows = closed.slice(0, MOST_OF_MONTH);
  return {
    month: shown,
    before,
    after: shown < now ? after : null,
    rows,
    /** There were more than are counted. */
    more: closed.length > rows.length,
    fitted,
    timeZone: policy.timeZone,
    shedName: policy.shedName,
    figures: monthOf(
      rows.map(({ is_retest, minutes, part, named, doubt, came_back }) => ({
        isRetest: is_retest,
        minutes,
        part,
        named,
        doubt: doubt ?? [],
        cameBack: came_back,
      })),
    ),
  };
}

/** The jobs of a month as CSV. */
export async function monthTable(month: string | undefined): Promise<{ name: string; text: string }> {
  const { policy } = await openPolicy();
  const shown = month ?? siteToday(policy.timeZone).slice(0, 7);
  const { from, to } = monthOfSite(shown, policy.timeZone);
  const rows = await closedBetween(from, to, MOST_OF_TABLE);
  return { name: `jobs-${shown}.csv`, text: historyTable(rows) };
}

function historyTable(rows: readonly HistoryRow[]): string {
  return writeTable(
    [
      'job',
      'opened',
      'handed over',
      'machine',
      'function',
      'title',
      'person',
      'part',
      'fault',
      'named',
      'minutes',
      're-test',
      'came back',
    ],
    rows.map((one) => ({
      job: one.number,
      opened: one.opened_at.toISOString(),
      'handed over': one.closed_at?.toISOString() ?? '',
      machine: one.machine_code,
      function: one.function_name,
      title: one.title,
      person: one.person ?? '',
      part: one.part ?? '',
      fault: one.fault ?? '',
      named: one.named ?? '',
      minutes: one.minutes === null ? '' : Math.round(one.minutes),
      're-test': one.is_retest ? 'yes' : 'no',
      'came back': one.came_back ? 'yes' : 'no',
    })),
  );
}
