import type { Metadata } from 'next';
import { Link, LINE_LINK } from '@/ui/Link';
import { notFound } from 'next/navigation';
import { z } from 'zod';
import { page } from '@/features/gate/page';
import { HistoryRows } from '@/features/history/HistoryRows';
import { openHistory } from '@/features/history/server';
import { DriftRows } from '@/features/trends/DriftRows';
import { machineAddress } from '@/ui/machineAddress';
import { PageHead } from '@/ui/PageHead';
import { PrintKey } from '@/ui/PrintKey';
import { Heading, Nothing } from '@/ui/sheet';

export const metadata: Metadata = { title: 'History' };
export const dynamic = 'force-dynamic';

const askedSchema = z.object({ before: z.coerce.number().int().min(1).optional().catch(undefined) });

/** A machine's jobs on one page, and what drifts on it. */
export default page<{
  params: Promise<{ code: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}>('look', async function HistoryPage({ params, searchParams }) {
  const code = decodeURIComponent((await params).code);
  const { before } = askedSchema.parse(await searchParams);
  const opened = await openHistory(code, before);
  if (!opened) notFound();
  const { machine, rows, drift, timeZone, more } = opened;
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title={`${machine.code}: history`} under={machine.name}>
        <span className="print:hidden">
          <PrintKey />
        </span>
      </PageHead>
      <main className="flex-1 px-6 pb-10 max-tablet:px-3">
        {drift.length > 0 ? (
          <section aria-labelledby="drift">
            <Heading id="drift" aside="the worst first">
              Drift
            </Heading>
            <DriftRows rows={drift} />
          </section>
        ) : null}
        <section aria-labelledby="jobs" className="mt-3">
          <Heading id="jobs" aside="the latest first">
            Jobs
          </Heading>
          {rows.length === 0 ? <Nothing>Nothing has been done on it yet.</Nothing> : null}
          <HistoryRows rows={rows} timeZone={timeZone} />
        </section>
        <nav aria-label="Pages" className="flex flex-wrap gap-x-6 pt-2 print:hidden">
          <Link className={LINE_LINK} href={machineAddress(machine.code)}>
            {machine.code}
          </Link>
          {more ? (
            <Link className={LINE_LINK} href={`${machineAddress(machine.code, 'history')}?before=${more}`}>
              Older jobs
            </Link>
          ) : null}
        </nav>
      </main>
    </div>
  );
});
