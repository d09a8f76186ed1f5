import { notFound } from 'next/navigation';
import { page, titled } from '@/features/gate/page';
import { ClassScreen } from '@/features/machines/ClassScreen';
import { openClass } from '@/features/machines/classes';
import { PageHead } from '@/ui/PageHead';
import { machinesCount } from '@/words/en/classes';

interface Props {
  params: Promise<{ name: string }>;
}

export const generateMetadata = titled<Props>(async ({ params }) => {
  return { title: decodeURIComponent((await params).name) };
});

export default page<Props>('look', async function ClassPage({ params }) {
  const open = await openClass(decodeURIComponent((await params).name));
  if (!open) notFound();
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title={open.name} under={`Class of equipment, ${machinesCount(open.machines)}`} />
      <main className="flex-1">
        <ClassScreen {...open} />
      </main>
    </div>
  );
});
