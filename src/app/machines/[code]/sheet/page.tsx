import { notFound } from 'next/navigation';
import { page, titled } from '@/features/gate/page';
import { openSheet } from '@/features/builder/sheet';
import { SheetPrint } from '@/features/builder/SheetPrint';
import { PageHead } from '@/ui/PageHead';

interface Props {
  params: Promise<{ code: string }>;
  searchParams: Promise<{ function?: string | string[] }>;
}

export const generateMetadata = titled<Props>(async ({ params }) => {
  return { title: `Sheet, ${decodeURIComponent((await params).code)}` };
});

export default page<Props>('look', async function SheetPage({ params, searchParams }) {
  const { function: id } = await searchParams;
  const sheet = typeof id === 'string' ? await openSheet(decodeURIComponent((await params).code), id) : null;
  if (!sheet) notFound();
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title={sheet.name} under={`${sheet.machine.code} ${sheet.machine.name}`} />
      <main className="flex-1">
        <SheetPrint {...sheet} />
      </main>
    </div>
  );
});
