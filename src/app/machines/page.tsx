import type { Metadata } from 'next';
import { z } from 'zod';
import { LibraryScreen } from '@/features/machines/LibraryScreen';
import { openLibrary } from '@/features/machines/server';
import { PageHead } from '@/ui/PageHead';

export const metadata: Metadata = { title: 'Machines' };
export const dynamic = 'force-dynamic';

const askedSchema = z.object({
  q: z.string().trim().max(100).catch(''),
  after: z.string().max(20).optional().catch(undefined),
});

export default async function MachinesPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { q, after } = askedSchema.parse(await searchParams);
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title="Machines" under="What each can do, and how it is wired" />
      <main className="flex-1">
        <LibraryScreen key={`${q} ${after}`} q={q} {...await openLibrary(q, after)} />
      </main>
    </div>
  );
}
