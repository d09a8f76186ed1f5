import type { Metadata } from 'next';
import { LibraryScreen } from '@/features/machines/LibraryScreen';
import { openLibrary } from '@/features/machines/server';
import { PageHead } from '@/ui/PageHead';

export const metadata: Metadata = { title: 'Machines' };
export const dynamic = 'force-dynamic';

export default async function MachinesPage() {
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title="Machines" under="What each can do, and how it is wired" />
      <main className="flex-1">
        <LibraryScreen machines={await openLibrary()} />
      </main>
    </div>
  );
}
