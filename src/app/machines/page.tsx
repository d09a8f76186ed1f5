import type { Metadata } from 'next';
import { z } from 'zod';
import { page } from '@/features/gate/page';
import { LibraryScreen } from '@/features/machines/LibraryScreen';
import { openLibrary } from '@/features/machines/server';
import { PageHead } from '@/ui/PageHead';

export const metadata: Metadata = { title: 'Machines' };
export const dynamic = 'force-dynamic';

const askedSchema = z.object({
  q: z.string().trim().max(100).catch(''),
  class: z.string().trim().max(60).catch(''),
  after: z.string().max(20).optional().catch(undefined),
});

export default page<{
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}>('look', async function MachinesPage({ searchParams }) {
  const { q, class: equipment, after } = askedSchema.parse(await searchParams);
  const asked = { q, equipment };
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title="Machines" under="What each can do, and how it is wired" />
      <main className="flex-1">
        <LibraryScreen
          key={`${q} ${equipment} ${after}`}
          {...asked}
          {...await openLibrary({ ...asked, ...(after === undefined ? {} : { after }) })}
        />
      </main>
    </div>
  );
});
