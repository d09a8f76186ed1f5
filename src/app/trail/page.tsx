import type { Metadata } from 'next';
import { Link, LINK } from '@/ui/Link';
import { z } from 'zod';
import { siteMoment } from '@/core/units/siteTime';
import { page } from '@/features/gate/page';
import { openTrail } from '@/features/people/server';
import { openPolicy } from '@/features/policy/server';
import { PageHead } from '@/ui/PageHead';
import { Nothing } from '@/ui/sheet';
import { TRAIL_WORDS } from '@/words/en/people';

export const metadata: Metadata = { title: 'Trail' };
export const dynamic = 'force-dynamic';

const askedSchema = z.object({
  at: z.iso.datetime().optional().catch(undefined),
  id: z.uuid().optional().catch(undefined),
  person: z.string().max(60).optional().catch(undefined),
});

/** Who did what beside the logs of jobs, from where, the latest first. */
export default page<{ searchParams: Promise<Record<string, string | string[] | undefined>> }>(
  'trail',
  async function TrailPage({ searchParams }) {
    const { at, id, person } = askedSchema.parse(await searchParams);
    const [{ rows, more }, { policy }] = await Promise.all([
      openTrail(at && id ? { at: new Date(at), id } : undefined, person?.toWellFormed()),
      openPolicy(),
    ]);
    const keep: Record<string, string> = person ? { person } : {};
    return (
      <div className="flex min-h-dvh flex-col bg-sheet">
        <PageHead
          title="Trail"
          under={
            person ? `What ${person} did beside the logs of jobs` : 'Who did what beside the logs of jobs'
          }
        />
        <main className="flex-1 px-6 pb-10 max-tablet:px-3">
          {person ? (
            <Link href="/trail" className={LINK}>
              Everybody
            </Link>
          ) : null}
          {rows.length === 0 ? <Nothing>Nothing stands here yet.</Nothing> : null}
          <ul>
            {rows.map((row) => (
              <li
                key={row.id}
                className="grid min-h-11 grid-cols-1 gap-x-4 border-b-[1.5px] border-rule py-2 tablet:grid-cols-[170px_150px_minmax(0,1fr)_200px]"
                data-what={row.what}
              >
                <span className="fig text-[15.5px] text-ink2">
                  {siteMoment(row.at.toISOString(), policy.timeZone)}
                </span>
                <Link
                  href={`/trail?${new URLSearchParams({ person: row.person }).toString()}`}
                  className="truncate font-[680] underline underline-offset-4"
                >
                  {row.person}
                </Link>
                <span className="break-words">
                  {TRAIL_WORDS[row.what]}
                  {row.about ? `: ${row.about}` : ''}
                </span>
                <span className="text-[15.5px] break-words text-ink2">
                  {[row.device, row.address].filter(Boolean).join(', ')}
                </span>
              </li>
            ))}
          </ul>
          {more ? (
            <Link href={`/trail?${new URLSearchParams({ ...keep, ...more }).toString()}`} className={LINK}>
              Earlier
            </Link>
          ) : null}
        </main>
      </div>
    );
  },
);
