import type { Metadata } from 'next';
import { page } from '@/features/gate/page';
import { openTables } from '@/features/tables/server';
import { TablesScreen } from '@/features/tables/TablesScreen';
import { PageHead } from '@/ui/PageHead';

export const metadata: Metadata = { title: 'Reference tables' };
export const dynamic = 'force-dynamic';

export default page('look', async function TablesPage() {
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title="Reference tables" under="Figures to lean on, with where they come from" />
      <main className="flex-1">
        <TablesScreen {...await openTables()} />
      </main>
    </div>
  );
});
