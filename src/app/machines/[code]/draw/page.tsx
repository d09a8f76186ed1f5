import { notFound } from 'next/navigation';
import { page, titled } from '@/features/gate/page';
import { DrawDesk } from '@/features/builder/DrawDesk';
import { openDrawing } from '@/features/builder/server';

interface Props {
  params: Promise<{ code: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

export const generateMetadata = titled<Props>(async ({ params }) => {
  return { title: `Draw, ${decodeURIComponent((await params).code)}` };
});

export default page<Props>('draw', async function DrawPage({ params, searchParams }) {
  const query = await searchParams;
  const one = (key: string) => (typeof query[key] === 'string' ? query[key] : undefined);
  const values = Object.fromEntries(
    Object.entries(query).flatMap(([key, value]) =>
      key.startsWith('value.') && typeof value === 'string' ? [[key.slice(6), Number(value)]] : [],
    ),
  );
  const desk = await openDrawing(decodeURIComponent((await params).code), {
    ...(one('function') ? { functionId: one('function')! } : {}),
    ...(one('template') ? { template: one('template')! } : {}),
    values,
  });
  if (!desk) notFound();
  // A kept version is a desk of its own: what was typed before does not reach into it.
  return <DrawDesk key={`${desk.functionId} ${desk.version} ${one('template') ?? ''}`} desk={desk} />;
});
