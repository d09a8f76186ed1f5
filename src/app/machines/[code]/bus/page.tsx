import { notFound } from 'next/navigation';
import { page, titled } from '@/features/gate/page';
import { BusScreen } from '@/features/bus/BusScreen';
import { openBusPage } from '@/features/bus/page';
import { PageHead } from '@/ui/PageHead';

interface Props {
  params: Promise<{ code: string }>;
}

export const generateMetadata = titled<Props>(async ({ params }) => {
  return { title: `Bus of ${decodeURIComponent((await params).code)}` };
});

export default page<Props>('look', async function BusPage({ params }) {
  const open = await openBusPage(decodeURIComponent((await params).code));
  if (!open) notFound();
  const { machine, book, functions } = open;
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title={`${machine.code} bus`} under={machine.name} />
      <main className="flex-1">
        <BusScreen machineCode={machine.code} book={book} functions={functions} />
      </main>
    </div>
  );
});
