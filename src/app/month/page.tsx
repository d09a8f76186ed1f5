import type { Metadata } from 'next';
import { Link, LINE_LINK } from '@/ui/Link';
import { format } from 'date-fns';
import { z } from 'zod';
import { page } from '@/features/gate/page';
import { HistoryRows } from '@/features/history/HistoryRows';
import { openMonth } from '@/features/history/server';
import { PageHead } from '@/ui/PageHead';
import { PrintKey } from '@/ui/PrintKey';
import { Heading, Nothing } from '@/ui/sheet';
import { monthLines } from '@/words/en/history';

export const metadata: Metadata = { title: 'The month' };
export const dynamic = 'force-dynamic';

/** Of a long month as many are listed; all of them are in the table. */
const MOST_LISTED = 30;
const askedSchema = z.object({
  m: z
    .string()
    .regex(/^20\d\d-(0[1-9]|1[0-2])$/)
    .optional()
    .catch(undefined),
});

/** What a month came to: jobs, minutes, parts spared, wrong names, comebacks. */
export default page<{
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}>('look', async function MonthPage({ searchParams }) {
  const { m } = askedSchema.parse(await searchParams);
  const { month, before, after, rows, more, fitted, figures, timeZone, shedName } = await openMonth(m);
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title={format(new Date(`${month}-15T12:00:00`), 'MMMM yyyy')} under={shedName}>
        <span className="print:hidden">
          <PrintKey />
        </span>
      </PageHead>
      <main className="grid flex-1 gap-x-9 px-6 pb-10 max-tablet:px-3 desk:grid-cols-[minmax(0,1fr)_420px]">
        <section aria-labelledby="jobs" className="min-w-0">
          <Heading id="jobs" aside={`${rows.length}`}>
            Handed over
          </Heading>
          {rows.length === 0 ? <Nothing>No job was handed over in this month.</Nothing> : null}
          <HistoryRows rows={rows.slice(0, MOST_LISTED)} timeZone={timeZone} withMachine />
          {rows.length > MOST_LISTED ? (
            <p className="py-2 text-[16px] text-ink2">
              The first {MOST_LISTED} of {rows.length}; all of them are in the table.
            </p>
          ) : null}
        </section>
        <div className="min-w-0">
          <section aria-labelledby="figures">
            <Heading id="figures">The month</Heading>
            <ul data-testid="month">
              {more ? (
                <li className="border-b-[1.5px] border-rule py-2 text-copper-ink">
                  More jobs were handed over than are counted here: these figures are of the first{' '}
                  {rows.length}.
                </li>
              ) : null}
              {monthLines(figures).map((line) => (
                <li key={line} className="border-b-[1.5px] border-rule py-2">
                  {line}.
                </li>
              ))}
            </ul>
          </section>
          <section aria-labelledby="fitted" className="mt-5">
            <Heading id="fitted" aside="off the shelf">
              Fitted
            </Heading>
            {fitted.spares.length === 0 ? <Nothing>No spare with a card was fitted.</Nothing> : null}
            <ul>
              {fitted.spares.map(({ number, name, pieces, cost }) => (
                <li key={number} className="flex min-h-11 items-center gap-x-4 border-b-[1.5px] border-rule">
                  <span className="fig-bold w-8">{pieces}</span>
                  <span className="min-w-0 flex-1 break-words">
                    {number} {name}
                  </span>
                  <span className="fig">{cost === null ? '' : cost.toFixed(2)}</span>
                </li>
              ))}
            </ul>
            {fitted.kinds > fitted.spares.length ? (
              <p className="py-2 text-[16px] text-ink2">
                The first {fitted.spares.length} of {fitted.kinds} kinds.
              </p>
            ) : null}
          </section>
          <nav aria-label="Months" className="flex flex-wrap gap-x-6 pt-3 print:hidden">
            <Link className={LINE_LINK} href={`/month?m=${before}`}>
              The month before
            </Link>
            {after ? (
              <Link className={LINE_LINK} href={`/month?m=${after}`}>
                The month after
              </Link>
            ) : null}
            <a className={LINE_LINK} href={`/api/month.csv?m=${month}`}>
              Its jobs as CSV
            </a>
            <Link className={LINE_LINK} href="/record">
              What usually breaks
            </Link>
          </nav>
        </div>
      </main>
    </div>
  );
});
