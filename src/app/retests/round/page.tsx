import type { Metadata } from 'next';
import { Link } from '@/ui/Link';
import { z } from 'zod';
import { page } from '@/features/gate/page';
import { RoundSheet } from '@/features/retests/RoundSheet';
import { openRound, ROUND_DAYS, roundOf } from '@/features/retests/server';
import { calendarDay } from '@/core/units/siteTime';
import { PageHead } from '@/ui/PageHead';
import { PrintKey } from '@/ui/PrintKey';
import { dueWithin } from '@/words/en/retests';

export const metadata: Metadata = { title: 'Round' };
export const dynamic = 'force-dynamic';

const LINK =
  'flex min-h-11 items-center underline underline-offset-4 aria-[current=page]:font-[720] aria-[current=page]:no-underline';
const askedSchema = z.object({
  days: z.coerce
    .number()
    .refine((days) => ROUND_DAYS.some((one) => one === days))
    .catch(7),
  function: z.uuid().optional().catch(undefined),
});

/** A round: what is due, machine by machine, with what each place read last. */
export default page<{
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}>('look', async function RoundPage({ searchParams }) {
  const { days, function: own } = askedSchema.parse(await searchParams);
  const { stops, today, until, more } = own ? await roundOf(own) : await openRound(days);
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead
        title={own ? 'Read again' : 'Round'}
        under={own ? calendarDay(today) : `What is due until ${calendarDay(until)}, in the order of walking`}
      >
        <span className="print:hidden">
          <PrintKey />
        </span>
      </PageHead>
      <main className="flex-1 px-6 pb-10 max-tablet:px-3">
        <nav aria-label="Due within" className="flex flex-wrap gap-x-6 print:hidden">
          {ROUND_DAYS.map((one) => (
            <Link
              key={one}
              href={`/retests/round?days=${one}`}
              aria-current={!own && one === days ? 'page' : undefined}
              className={LINK}
            >
              {dueWithin(one)}
            </Link>
          ))}
          <Link href="/retests" className={LINK}>
            All re-tests
          </Link>
        </nav>
        {more ? (
          <p className="text-[16px] text-copper-ink">
            The {stops.length} that are due longest; the next ones follow when these are handed over.
          </p>
        ) : null}
        <RoundSheet stops={stops} today={today} />
      </main>
    </div>
  );
});
