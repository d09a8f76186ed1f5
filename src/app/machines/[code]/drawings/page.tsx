import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { DrawingsScreen } from '@/features/drawings/DrawingsScreen';
import { openDrawings } from '@/features/drawings/server';
import { PageHead } from '@/ui/PageHead';

interface Props {
  params: Promise<{ code: string }>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  return { title: `Drawings of ${decodeURIComponent((await params).code)}` };
}

export default async function DrawingsPage({ params }: Props) {
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
}
