import type { Metadata } from 'next';
import { page } from '@/features/gate/page';
import { PolicyForm } from '@/features/policy/PolicyForm';
import { openPolicy } from '@/features/policy/server';
import { PageHead } from '@/ui/PageHead';

export const metadata: Metadata = { title: 'Site policy' };
export const dynamic = 'force-dynamic';

export default page('look', async function PolicyPage() {
  const { policy, by } = await openPolicy();
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title="Site policy" under="What this site allows, and how it likes to work" />
      <main className="flex-1">
        <PolicyForm policy={policy} by={by} zones={Intl.supportedValuesOf('timeZone')} />
      </main>
    </div>
  );
});
