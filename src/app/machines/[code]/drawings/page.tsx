import { notFound } from 'next/navigation';
import { page, titled } from '@/features/gate/page';
import { DrawingsScreen } from '@/features/drawings/DrawingsScreen';
import { openDrawings } from '@/features/drawings/server';
import { PageHead } from '@/ui/PageHead';

interface Props {
  params: Promise<{ code: string }>;
}

export const generateMetadata = titled<Props>(async ({ params }) => {
  return { title: `Drawings of ${decodeURIComponent((await params).code)}` };
});

export default page<Props>('look', async function DrawingsPage({ params }) {
  const open = await openDrawings(decodeURIComponent((await params).code));
  if (!open) notFound();
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title={`${open.machine.code} drawings`} under={open.machine.name} />
      <main className="flex-1">
        <DrawingsScreen {...open} />
      </main>
    </div>
  );
});
