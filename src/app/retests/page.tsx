import type { Metadata } from 'next';
import { Link, LINE_LINK } from '@/ui/Link';
import { z } from 'zod';
import { page } from '@/features/gate/page';
import { openRetests } from '@/features/retests/server';
import { RetestList } from '@/features/retests/RetestList';
import { PageHead } from '@/ui/PageHead';

export const metadata: Metadata = { title: 'Re-tests' };
export const dynamic = 'force-dynamic';

const cursorSchema = z.object({ due: z.iso.date(), id: z.uuid() });

/** What was handed over with a day on which to look again. */
export default page<{
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}>('look', async function RetestsPage({ searchParams }) {
  const cursor = cursorSchema.safeParse(await searchParams);
  const { rows, today, more } = await openRetests(cursor.success ? cursor.data : undefined);
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title="Re-tests" under="What was handed over with a day on which to look again" />
      <main className="flex-1 px-6 pb-10 max-tablet:px-3">
        <RetestList rows={rows} today={today} />
        <nav aria-label="Pages" className="flex flex-wrap gap-x-6 pt-3">
          {cursor.success ? (
            <Link href="/retests" className={LINE_LINK}>
              From the first
            </Link>
          ) : null}
          {more ? (
            <Link href={`/retests?${new URLSearchParams(more)}`} className={LINE_LINK}>
              More
            </Link>
          ) : null}
          {rows.length > 0 ? (
            <Link href="/retests/round" className={LINE_LINK}>
              Round of this week, to walk and to print
            </Link>
          ) : null}
          {rows.length > 0 ? (
            <a href="/api/retests.ics" className={LINE_LINK}>
              As a calendar (iCalendar feed)
            </a>
          ) : null}
        </nav>
      </main>
    </div>
  );
});
