import 'server-only';
import { addMonths, format, startOfMonth } from 'date-fns';
import { monthOf } from '@/core/shed/month';
import { siteTime } from '@/core/units/siteTime';
import { closedBetween, fittedBetween, historyOf, type HistoryRow } from '@/db/history';
import { findMachine } from '@/db/jobs';
import { writeTable } from '@/formats/table';
import { openPolicy } from '../policy/server';
import { driftOfMachine } from '../trends/server';

const ROWS_A_PAGE = 40;
/** More jobs in a month are counted, and not listed. */
const MOST_OF_MONTH = 5000;

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

/** What a month came to. @param month 2026-11; this month where nothing is said */
export async function openMonth(month: string | undefined) {
  const { policy } = await openPolicy();
  const now = siteTime(new Date().toISOString(), policy.timeZone).date.slice(0, 7);
  const shown = month ?? now;
  const first = startOfMonth(new Date(`${shown}-15T12:00:00`));
  const next = addMonths(first, 1);
  const [rows, fitted] = await Promise.all([
    closedBetween(first, next, MOST_OF_MONTH),
    fittedBetween(first, next),
  ]);
  return {
    month: shown,
    before: format(addMonths(first, -1), 'yyyy-MM'),
    after: shown < now ? format(next, 'yyyy-MM') : null,
    rows,
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
  const { month: shown, rows } = await openMonth(month);
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
