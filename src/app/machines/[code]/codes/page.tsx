import { notFound } from 'next/navigation';
import { page, titled } from '@/features/gate/page';
import { BookScreen } from '@/features/codes/BookScreen';
import { openBook } from '@/features/codes/server';
import { PageHead } from '@/ui/PageHead';

interface Props {
  params: Promise<{ code: string }>;
}

export const generateMetadata = titled<Props>(async ({ params }) => {
  return { title: `Codes of ${decodeURIComponent((await params).code)}` };
});

export default page<Props>('look', async function BookPage({ params }) {
  const open = await openBook(decodeURIComponent((await params).code));
  if (!open) notFound();
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title={`${open.machine.code} code book`} under={open.machine.name} />
      <main className="flex-1">
        <BookScreen {...open} />
      </main>
    </div>
  );
});
