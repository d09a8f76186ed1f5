import { Link } from '@/ui/Link';
import type { RetestRow } from '@/db/retests';
import { calendarDay, siteDay } from '@/core/units/siteTime';
import { Heading, Nothing } from '@/ui/sheet';
import { DUE_WORDS } from '@/words/en/retests';
import { DUES, dueOf, type Due } from '@/core/units/weeks';

const TONE: Readonly<Partial<Record<Due, string>>> = { overdue: 'text-stamp', thisWeek: 'text-copper-ink' };

/** By week, the longest due first: the machine, what was wrong, and a job for looking again. */
export function RetestList({ rows, today }: { rows: readonly RetestRow[]; today: string }) {
  if (rows.length === 0)
    return (
      <Nothing>
        Nothing is to be looked at again. A day is set when a job is handed over, under “Re-test on”.
      </Nothing>
    );
  return (
    <>
      {DUES.map((due) => {
        const own = rows.filter((row) => dueOf(row.due, today) === due);
        if (own.length === 0) return null;
        return (
          <section key={due} aria-labelledby={`due-${due}`} className="pt-2">
            <Heading id={`due-${due}`} aside={`${own.length}`}>
              {DUE_WORDS[due]}
            </Heading>
            <ul>
              {own.map((row) => (
                <RetestLine key={row.id} row={row} due={due} />
              ))}
            </ul>
          </section>
        );
      })}
    </>
  );
}

/** Near days by their weekday, others with their year. */
function dayWords(day: string, due: Due): string {
  return due === 'thisWeek' || due === 'nextWeek' ? siteDay(`${day}T12:00:00Z`, 'UTC') : calendarDay(day);
}

function RetestLine({ row, due }: { row: RetestRow; due: Due }) {
  const { number, title, function_id, function_name, machine_code, machine_name, open_job } = row;
  return (
    <li
      className="grid min-h-14 items-center gap-x-5 gap-y-1 border-b-[1.5px] border-rule py-2 tablet:grid-cols-[170px_minmax(0,1fr)_auto]"
      data-testid="retest"
    >
      <span className={`fig text-[16px] font-[650] ${TONE[due] ?? ''}`}>
        <time dateTime={row.due}>{dayWords(row.due, due)}</time>
      </span>
      <span className="min-w-0 break-words">
        <strong className="font-[700]">
          {machine_code} {function_name}
        </strong>{' '}
        <span className="text-[15.5px] text-ink2">
          {machine_name},{' '}
          <Link href={`/jobs/${number}`} className="underline underline-offset-4">
            job {number}
          </Link>
          : {title}
        </span>
      </span>
      {open_job === null ? (
        <Link
          href={`/retests/round?function=${function_id}`}
          className="inline-flex min-h-11 items-center font-[650] underline underline-offset-4"
        >
          Read it again
        </Link>
      ) : (
        <Link
          href={`/jobs/${open_job}`}
          className="inline-flex min-h-11 items-center font-[650] underline underline-offset-4"
        >
          Job {open_job} is in hand
        </Link>
      )}
    </li>
  );
}
