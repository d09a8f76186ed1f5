import type { Metadata } from 'next';
import { Link } from '@/ui/Link';
import { notFound } from 'next/navigation';
import { page } from '@/features/gate/page';
import type { MoveWhy } from '@/core/shed/requisition';
import { siteMoment } from '@/core/units/siteTime';
import { openPolicy } from '@/features/policy/server';
import { openSpare } from '@/features/spares/server';
import { MovePieces, SpareCard } from '@/features/spares/SpareCard';
import { SPARE_KINDS } from '@/features/spares/spareFacts';
import { SpareSays } from '@/features/spares/SpareSays';
import { PageHead } from '@/ui/PageHead';
import { Heading, Nothing } from '@/ui/sheet';
import { MOVE_WORDS } from '@/words/en/spares';

export const metadata: Metadata = { title: 'Spare' };
export const dynamic = 'force-dynamic';

const MOST_LETTERS = 60;

/** One spare: its card, and every piece that came or went. */
export default page<{ params: Promise<{ number: string }> }>('look', async function SparePage({ params }) {
  const number = decodeURIComponent((await params).number);
  const [opened, { policy }] = await Promise.all([
    number.length <= MOST_LETTERS && number.isWellFormed() ? openSpare(number) : null,
    openPolicy(),
  ]);
  if (!opened) notFound();
  const { spare, moves, standIns } = opened;
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead
        title={`${spare.number} ${spare.name}`}
        under={`${spare.stock} on the shelf${spare.place ? `, ${spare.place}` : ''}; ${spare.on_the_way} on the way`}
      />
      <main className="grid flex-1 gap-x-9 px-6 pb-10 max-tablet:px-3 desk:grid-cols-[minmax(0,1fr)_420px]">
        <SpareCard key={spare.id} spare={spare} kinds={SPARE_KINDS} />
        <div className="min-w-0">
          <section aria-labelledby="stand-ins">
            <Heading id="stand-ins" aside="by its own label; in a job by what the circuit asks">
              Could stand in for it
            </Heading>
            {standIns.length === 0 ? (
              <Nothing>
                {Object.keys(spare.ratings).length === 0
                  ? 'Its card says nothing that another could be told by.'
                  : 'Nothing else on the shelf does what its label says.'}
              </Nothing>
            ) : null}
            <ul>
              {standIns.map((one) => (
                <li key={one.number} className="border-b-[1.5px] border-rule" data-testid="stand-in">
                  <Link
                    href={`/parts/${encodeURIComponent(one.number)}`}
                    className="flex flex-wrap items-center gap-x-4 gap-y-1 py-1.5"
                  >
                    <SpareSays one={one} />
                  </Link>
                </li>
              ))}
            </ul>
          </section>
          <section aria-labelledby="moves" className="mt-6">
            <Heading id="moves" aside="the latest first">
              Came and went
            </Heading>
            <MovePieces number={spare.number} />
            {moves.length === 0 ? <Nothing>No piece has come or gone yet.</Nothing> : null}
            <ul>
              {moves.map(({ pieces, why, person, moved_at, job }) => (
                <li
                  key={`${moved_at.toISOString()} ${pieces}`}
                  className="flex min-h-11 flex-wrap items-center gap-x-4 border-b-[1.5px] border-rule"
                >
                  <span className="fig-bold w-12">{pieces > 0 ? `+${pieces}` : `−${-pieces}`}</span>
                  <span className="min-w-0 flex-1">
                    {MOVE_WORDS[why as MoveWhy]}, {person}
                    {job === null ? null : (
                      <>
                        {', '}
                        <Link href={`/jobs/${job}`} className="underline underline-offset-4">
                          job {job}
                        </Link>
                      </>
                    )}
                  </span>
                  <span className="text-[15.5px] text-ink2">
                    {siteMoment(moved_at.toISOString(), policy.timeZone)}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        </div>
      </main>
    </div>
  );
});
