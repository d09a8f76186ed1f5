import type { Metadata } from 'next';
import { Link, LINE_LINK } from '@/ui/Link';
import { Plus, Search } from 'lucide-react';
import { z } from 'zod';
import { page } from '@/features/gate/page';
import { openPolicy } from '@/features/policy/server';
import { siteToday } from '@/features/siteDays';
import { Requisitions } from '@/features/spares/Requisitions';
import { openShelf } from '@/features/spares/server';
import { ShelfRows } from '@/features/spares/ShelfRows';
import { PageHead } from '@/ui/PageHead';
import { FIELD, Heading, Nothing, PlainKey } from '@/ui/sheet';

export const metadata: Metadata = { title: 'Parts' };
export const dynamic = 'force-dynamic';

const askedSchema = z.object({
  q: z.string().max(100).catch(''),
  low: z.enum(['yes']).optional().catch(undefined),
  after: z.string().max(60).optional().catch(undefined),
});

/** The shelf: spares by their labels, and what is on its way. */
export default page<{
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}>('look', async function PartsPage({ searchParams }) {
  const { q, low, after } = askedSchema.parse({ ...(await searchParams), q: (await searchParams).q ?? '' });
  const [{ spares, counts, requisitions, more }, { policy }] = await Promise.all([
    openShelf({ ...(q ? { text: q } : {}), low: low === 'yes' }, after),
    openPolicy(),
  ]);
  const keep = { ...(q ? { q } : {}), ...(low ? { low } : {}) };
  const today = siteToday(policy.timeZone);
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead
        title="Parts"
        under={`${counts.all} ${counts.all === 1 ? 'spare' : 'spares'}, ${counts.low} under their minimum`}
      >
        <Link
          href="/parts/card"
          className="my-1.5 mr-6 ml-auto flex shrink-0 items-center gap-2 bg-pencil px-5 text-[17px] font-[750] text-sheet max-tablet:mr-2 max-tablet:px-3"
        >
          <Plus size={20} strokeWidth={3} aria-hidden /> New card
        </Link>
      </PageHead>
      <main className="grid flex-1 gap-x-9 px-6 pb-10 max-tablet:px-3 desk:grid-cols-[minmax(0,1fr)_420px]">
        <section aria-labelledby="shelf" className="min-w-0">
          <Heading id="shelf">On the shelf</Heading>
          <form className="flex flex-wrap items-center gap-3 py-2" role="search">
            <label className="relative min-w-0 flex-1 basis-[240px]">
              <Search size={18} className="absolute top-3.5 left-3" aria-hidden />
              <input
                name="q"
                defaultValue={q}
                aria-label="Find by number, name or place"
                placeholder="number, name, place"
                className={`${FIELD} pl-10!`}
              />
            </label>
            <PlainKey type="submit">Find</PlainKey>
            <Link className={LINE_LINK} href={low ? '/parts' : '/parts?low=yes'}>
              {low ? 'All of it' : 'Under their minimum'}
            </Link>
          </form>
          {spares.length === 0 ? (
            <Nothing>
              {counts.all === 0
                ? 'No spare has a card yet. Begin with those that jobs waited for.'
                : 'Nothing on the shelf is so called.'}
            </Nothing>
          ) : (
            <ShelfRows spares={spares} />
          )}
          <nav aria-label="Pages" className="flex flex-wrap gap-x-6 pt-2">
            {after ? (
              <Link className={LINE_LINK} href={`/parts?${new URLSearchParams(keep)}`}>
                From the first
              </Link>
            ) : null}
            {more ? (
              <Link className={LINE_LINK} href={`/parts?${new URLSearchParams({ ...keep, after: more })}`}>
                More
              </Link>
            ) : null}
            <a className={LINE_LINK} href="/api/parts.csv">
              The shelf as CSV
            </a>
          </nav>
        </section>
        <Requisitions open={requisitions.open} done={requisitions.done} today={today} />
      </main>
    </div>
  );
});
