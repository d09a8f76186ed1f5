import type { Metadata } from 'next';
import { page } from '@/features/gate/page';
import { LogScreen } from '@/features/codes/LogScreen';
import { PageHead } from '@/ui/PageHead';

export const metadata: Metadata = { title: 'Codes and bus logs' };

/** Codes without a job: anything pasted, and bus logs. */
export default page('look', async function CodesPage() {
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title="Codes and bus logs" under="Read, not sent: nothing here touches a machine" />
      <main className="flex-1">
        <LogScreen />
      </main>
    </div>
  );
});
