import type { Metadata } from 'next';
import { Link } from '@/ui/Link';
import { page } from '@/features/gate/page';
import { PageHead } from '@/ui/PageHead';
import { BENCH_TITLE } from '@/words/en/benchSheets';

export const metadata: Metadata = { title: 'Bench' };

/** Sheets for parts on the bench, without a job. */
export default page('look', async function BenchPage() {
  return (
    <div className="flex min-h-dvh flex-col bg-film">
      <PageHead title="Bench" under="Sheets for a part in the hand, without a job" />
      <main className="flex-1 px-6 pb-10 max-tablet:px-3">
        <ul className="grid gap-x-9 pt-2 desk:grid-cols-2">
          {Object.entries(BENCH_TITLE).map(([sheet, { title, what }]) => (
            <li key={sheet} className="border-b-[1.5px] border-rule">
              <Link
                href={`/bench/${sheet}`}
                className="flex min-h-[56px] flex-wrap items-baseline gap-x-3 py-2.5 max-tablet:flex-col"
              >
                <strong className="text-[17.5px] font-[720]">{title}</strong>
                <span className="text-[16px] text-ink2">{what}</span>
              </Link>
            </li>
          ))}
        </ul>
      </main>
    </div>
  );
});
