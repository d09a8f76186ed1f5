import { notFound } from 'next/navigation';
import { page, titled } from '@/features/gate/page';
import { TEMPLATES } from '@/core/templates/templates';
import { MachineScreen } from '@/features/machines/MachineScreen';
import { openMachine } from '@/features/machines/server';
import { PageHead } from '@/ui/PageHead';

interface Props {
  params: Promise<{ code: string }>;
}

export const generateMetadata = titled<Props>(async ({ params }) => {
  return { title: decodeURIComponent((await params).code) };
});

export default page<Props>('look', async function MachinePage({ params }) {
  const open = await openMachine(decodeURIComponent((await params).code));
  if (!open) notFound();
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title={open.machine.code} under={open.machine.name} />
      <main className="flex-1">
        <MachineScreen
          {...open}
          templates={TEMPLATES.map(({ id, title, fields }) => ({ id, title, fields }))}
        />
      </main>
    </div>
  );
});
