import type { Metadata } from 'next';
import { Link, LINE_LINK } from '@/ui/Link';
import { z } from 'zod';
import { page } from '@/features/gate/page';
import { DriftRows } from '@/features/trends/DriftRows';
import { openDrift } from '@/features/trends/server';
import { PageHead } from '@/ui/PageHead';
import { Nothing } from '@/ui/sheet';
import { followedCount } from '@/words/en/trends';

export const metadata: Metadata = { title: 'Drift' };
export const dynamic = 'force-dynamic';

const cursorSchema = z.object({
  on: z.iso.date(),
  functionId: z.uuid(),
  place: z.string().regex(/^[0-9a-f]{32}$/),
});
const filterSchema = z.object({
  machine: z.string().max(20).catch(''),
  class: z.string().max(60).catch(''),
  all: z.enum(['yes']).optional().catch(undefined),
});

interface Props {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

/** What was proved again and again, place by place, the worst first. */
export default page<Props>('look', async function DriftPage({ searchParams }) {
  const asked = await searchParams;
  const cursor = cursorSchema.safeParse(asked);
  const { machine, class: equipment, all } = filterSchema.parse({ machine: '', class: '', ...asked });
  const of: Record<string, string> = {
    ...(machine ? { machine } : {}),
    ...(equipment ? { class: equipment } : {}),
  };
  const filter = {
    ...(machine ? { machine } : {}),
    ...(equipment ? { equipment } : {}),
    moving: all === undefined,
  };
  const { rows, counts, behind, more } = await openDrift(filter, cursor.success ? cursor.data : undefined);
  const address = (over: Record<string, string>, steady = all !== undefined) =>
    `/drift?${new URLSearchParams({ ...of, ...(steady ? { all: 'yes' } : {}), ...over })}`;
  const whose = machine || equipment;
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title={whose ? `Drift of ${whose}` : 'Drift'} under={followedCount(counts)} />
      <main className="flex-1 px-6 pb-10 max-tablet:px-3">
        <nav aria-label="Which" className="flex flex-wrap gap-x-6 pt-1">
          <Link href={address({}, all === undefined)} className={LINE_LINK}>
            {all ? 'Only what moves or is past its limit' : 'Also what is steady'}
          </Link>
          {whose ? (
            <Link href="/drift" className={LINE_LINK}>
              All machines
            </Link>
          ) : null}
        </nav>
        {behind > 0 ? (
          <p className="text-[16px] text-ink2">
            Jobs of before are still being looked at; look again in a while.
          </p>
        ) : null}
        {rows.length === 0 ? (
          <Nothing>
            {counts.all === 0
              ? 'Nothing is followed yet. What is read after a repair, and at a re-test, stands here from the second time on.'
              : 'Nothing moves.'}
          </Nothing>
        ) : (
          <DriftRows rows={rows} />
        )}
        <nav aria-label="Pages" className="flex flex-wrap gap-x-6 pt-3">
          {cursor.success ? (
            <Link href={address({})} className={LINE_LINK}>
              From the worst
            </Link>
          ) : null}
          {more ? (
            <Link href={address(more)} className={LINE_LINK}>
              More
            </Link>
          ) : null}
        </nav>
      </main>
    </div>
  );
});
