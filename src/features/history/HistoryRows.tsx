import { Link } from '@/ui/Link';
import { siteTime } from '@/core/units/siteTime';
import type { HistoryRow } from '@/db/history';
import { endedWords } from '@/words/en/history';

/** Jobs a line each: when, what for, and what it was. */
export function HistoryRows({
  rows,
  timeZone,
  withMachine = false,
}: {
  rows: readonly HistoryRow[];
  timeZone: string;
  withMachine?: boolean;
}) {
  return (
    <ul>
      {rows.map((row) => (
        <li key={row.number} className="border-b-[1.5px] border-rule" data-testid="history">
          <Link
            href={`/jobs/${row.number}`}
            className="grid min-h-[52px] items-center gap-x-4 py-1 hover:bg-film tablet:grid-cols-[110px_minmax(0,1fr)_minmax(0,1fr)]"
          >
            <time dateTime={row.opened_at.toISOString()} className="text-[15.5px] text-ink2">
              {siteTime(row.opened_at.toISOString(), timeZone).day}
            </time>
            <span className="min-w-0 break-words">
              {withMachine ? <strong className="fig-bold">{row.machine_code} </strong> : null}
              {row.title}
              <span className="block text-[15.5px] text-ink2">
                {row.function_name}, job {row.number}
                {row.person ? `, ${row.person}` : ''}
              </span>
            </span>
            <span className={`min-w-0 break-words text-[16px] ${row.came_back ? 'text-copper-ink' : ''}`}>
              {endedWords({
                closed: row.closed_at !== null,
                isRetest: row.is_retest,
                part: row.part,
                fault: row.fault,
                named: row.named,
                minutes: row.minutes,
                cameBack: row.came_back,
              })}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}
