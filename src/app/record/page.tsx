import type { Metadata } from 'next';
import { Link, LINK } from '@/ui/Link';
import { may } from '@/core/people/roles';
import { page } from '@/features/gate/page';
import { CalibrationPlot } from '@/features/record/CalibrationPlot';
import { RecordTable } from '@/features/record/RecordTable';
import { openRecord } from '@/features/record/server';
import { PageHead } from '@/ui/PageHead';
import { Heading, Nothing } from '@/ui/sheet';
import { alikeWords, calibrationWords } from '@/words/en/record';

export const metadata: Metadata = { title: 'What usually breaks' };
export const dynamic = 'force-dynamic';

/** The latest of long lists; the table has them all. */
const MOST_LISTED = 12;

/** What the shed's proved jobs come to: what breaks here, and how far the program's doubt can be taken at its word. */
export default page('look', async function RecordPage(_props, who) {
  const { jobs, calibration, rows, types, wrong, cameBack, learn, by, behind } = await openRecord();
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead
        title="What usually breaks"
        under={`${jobs} ${jobs === 1 ? 'job' : 'jobs'} that ${jobs === 1 ? 'was' : 'were'} proved and held; nothing is learnt from others`}
      />
      <main className="grid flex-1 gap-x-9 px-6 pb-10 max-tablet:px-3 desk:grid-cols-[minmax(0,1fr)_420px]">
        {behind > 0 ? (
          <p className="text-[16px] text-ink2 desk:col-span-2">
            Jobs of before are still being looked at; look again in a while.
          </p>
        ) : null}
        <div className="min-w-0">
          <section aria-labelledby="alike">
            <Heading id="alike" aside="functions drawn alike, whichever machine they are on">
              In functions of one type
            </Heading>
            {types.length === 0 ? (
              <Nothing>No type of function has three proved jobs yet.</Nothing>
            ) : (
              <ul>
                {types.map((type) => (
                  <li key={type.name} className="border-b-[1.5px] border-rule py-1.5" data-testid="alike">
                    <strong className="font-[700]">{type.name}</strong>
                    <span className="block text-[16px]">{alikeWords(type)}.</span>
                  </li>
                ))}
              </ul>
            )}
          </section>
          <section aria-labelledby="classes" className="mt-5">
            <Heading
              id="classes"
              aside="against what the rules of thumb would have; jobs are weighed by the last column"
            >
              By kind of part
            </Heading>
            {rows.length === 0 ? (
              <Nothing>No job was proved yet. Odds are those of the rules of thumb until then.</Nothing>
            ) : (
              <RecordTable rows={rows} learn={learn} by={by} />
            )}
          </section>
        </div>
        <div className="min-w-0">
          <section aria-labelledby="calibration">
            <Heading id="calibration">How doubt came true</Heading>
            <p className="py-2" data-testid="calibration">
              {calibrationWords(calibration)}
            </p>
            {calibration.bins.length > 0 ? (
              <CalibrationPlot
                bins={calibration.bins}
                label={calibration.bins
                  .map(
                    ({ said, cameTrue, count }) =>
                      `said ${Math.round(100 * said)} %, came true ${Math.round(100 * cameTrue)} % of ${count}`,
                  )
                  .join('; ')}
              />
            ) : null}
          </section>
          <section aria-labelledby="wrong" className="mt-5">
            <Heading id="wrong" aside={`${wrong.length}`}>
              Wrong names
            </Heading>
            {wrong.length === 0 ? <Nothing>None.</Nothing> : null}
            <ul>
              {wrong.slice(0, MOST_LISTED).map(({ job, named, part }) => (
                <li
                  key={job}
                  className="flex min-h-11 flex-wrap items-center gap-x-4 border-b-[1.5px] border-rule"
                >
                  <Link className={LINK} href={`/jobs/${job}`}>
                    Job {job}
                  </Link>
                  {named} was named, it was {part}
                </li>
              ))}
            </ul>
          </section>
          <section aria-labelledby="back" className="mt-5">
            <Heading id="back" aside={`${cameBack.length} within thirty days; nothing is learnt from them`}>
              Came back
            </Heading>
            {cameBack.length === 0 ? <Nothing>None.</Nothing> : null}
            <p className="flex flex-wrap gap-x-4">
              {cameBack.slice(0, MOST_LISTED).map((job) => (
                <Link key={job} className={LINK} href={`/jobs/${job}`}>
                  Job {job}
                </Link>
              ))}
            </p>
          </section>
          <nav aria-label="Take it away" className="mt-4 flex flex-wrap gap-x-6">
            <a className={LINK} href="/api/record.csv">
              Every proved job as CSV
            </a>
            {may(who.role, 'carryOutShed') ? (
              <a className={LINK} href="/api/shed-archive">
                The whole shed as one file
              </a>
            ) : null}
          </nav>
        </div>
      </main>
    </div>
  );
});
