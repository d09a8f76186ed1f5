import type { Metadata } from 'next';
import { Link } from '@/ui/Link';
import { page } from '@/features/gate/page';
import { functionChoices, trialsOfFunction } from '@/features/desk/functionChoices';
import { NewJobForm } from '@/features/desk/NewJobForm';
import { Brand } from '@/ui/Brand';

export const metadata: Metadata = { title: 'New job' };
export const dynamic = 'force-dynamic';

const UUID = /^[0-9a-f-]{36}$/i;

export default page<{
  searchParams: Promise<{ function?: string | string[] }>;
}>('work', async function NewJobPage({ searchParams }) {
  const asked = (await searchParams).function;
  const wanted = typeof asked === 'string' && UUID.test(asked) ? asked : undefined;
  const { functions, total } = await functionChoices('', wanted);
  const begin = functions.find(({ id }) => id === wanted);
  const trials = begin ? ((await trialsOfFunction(begin.id)) ?? []) : [];
  return (
    <div className="flex min-h-dvh flex-col">
      <header className="flex h-14 items-stretch border-b-2 border-ink pl-6 max-tablet:pl-3">
        <Brand />
        <h1 className="flex items-center border-l border-rule px-4 text-[18px] font-[750]">New job</h1>
      </header>
      <main className="flex-1 bg-sheet px-6 py-7 max-tablet:px-3">
        {functions.length === 0 ? (
          <p>
            No machine has a circuit yet, so no job can be opened.{' '}
            <Link className="underline underline-offset-4" href="/machines">
              Draw a function first
            </Link>
            .
          </p>
        ) : (
          <NewJobForm functions={functions} total={total} trials={trials} {...(wanted ? { wanted } : {})} />
        )}
      </main>
    </div>
  );
});
