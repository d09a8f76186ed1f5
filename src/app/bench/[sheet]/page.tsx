import { notFound } from 'next/navigation';
import { page, titled } from '@/features/gate/page';
import { isOpenTo, licenceOfSheet } from '@/core/safety/licensed';
import { Licence } from '@/features/bench/Licence';
import type { SheetName } from '@/core/sheets/sheets';
import { BenchScreen } from '@/features/bench/BenchScreen';
import { openPolicy } from '@/features/policy/server';
import { openTables } from '@/features/tables/server';
import { PageHead } from '@/ui/PageHead';
import { BENCH_TITLE } from '@/words/en/benchSheets';

interface Props {
  params: Promise<{ sheet: string }>;
}

const isSheet = (name: string): name is SheetName => Object.hasOwn(BENCH_TITLE, name);

export const generateMetadata = titled<Props>(async ({ params }) => {
  const { sheet } = await params;
  return { title: isSheet(sheet) ? BENCH_TITLE[sheet].title : 'Bench' };
});

export default page<Props>('look', async function BenchSheetPage({ params }, who) {
  const { sheet } = await params;
  if (!isSheet(sheet)) notFound();
  const { title, what } = BENCH_TITLE[sheet];
  const [{ rules, equipment }, { policy }] = await Promise.all([openTables(), openPolicy()]);
  const open = isOpenTo(sheet, who);
  return (
    <div className="flex min-h-dvh flex-col bg-film">
      <PageHead title={title} under={what} />
      <main className="flex-1">
        {licenceOfSheet(sheet) ? <Licence open={open} /> : null}
        {open ? (
          <BenchScreen
            sheet={sheet}
            rules={rules}
            equipment={equipment}
            insulationPass={policy.insulationPass}
          />
        ) : null}
      </main>
    </div>
  );
});
