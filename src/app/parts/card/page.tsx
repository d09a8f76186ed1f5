import type { Metadata } from 'next';
import { page } from '@/features/gate/page';
import { SpareCard } from '@/features/spares/SpareCard';
import { SPARE_KINDS } from '@/features/spares/spareFacts';
import { PageHead } from '@/ui/PageHead';

export const metadata: Metadata = { title: 'New card' };
export const dynamic = 'force-dynamic';

export default page('stock', async function NewCardPage() {
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title="New card" under="A spare by what its label says" />
      <main className="max-w-[860px] flex-1 px-6 pb-10 max-tablet:px-3">
        <SpareCard spare={null} kinds={SPARE_KINDS} />
      </main>
    </div>
  );
});
