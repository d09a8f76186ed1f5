import type { Metadata } from 'next';
import { Link, LINK } from '@/ui/Link';
import { notFound } from 'next/navigation';
import { z } from 'zod';
import { page } from '@/features/gate/page';
import { siteTime } from '@/core/units/siteTime';
import { FleetStrip } from '@/features/trends/FleetStrip';
import { LazyPlaceChart } from '@/features/trends/LazyPlaceChart';
import { openPlace } from '@/features/trends/server';
import { machineAddress } from '@/ui/machineAddress';
import { PageHead } from '@/ui/PageHead';
import { Heading } from '@/ui/sheet';
import { limitWords, measureFigure, slopeWords, stepWords, trendWords } from '@/words/en/trends';

export const metadata: Metadata = { title: 'Drift of a place' };
export const dynamic = 'force-dynamic';

const paramsSchema = z.object({ function: z.uuid(), place: z.string().regex(/^[0-9a-f]{32}$/) });
const TONE = { stamp: 'text-stamp', copper: 'text-copper-ink', plain: '' } as const;

/** One place of one machine over the years. */
export default page<{ params: Promise<Record<string, string>> }>(
  'look',
  async function PlacePage({ params }) {
    const asked = paramsSchema.safeParse(await params);
    const opened = asked.success ? await openPlace(asked.data.function, asked.data.place) : null;
    if (!opened) notFound();
    const { row, fleet, gaugeUnit, timeZone, today } = opened;
    const { body, machine_code, machine_name, function_name, function_id } = row;
    const { kind, dots, limits, trend } = body;
    const words = trendWords(body, today);
    const figure = (value: number, over = false) => measureFigure(kind, value, gaugeUnit, over);
    const last = dots.at(-1)!;
    const latest = [...new Map(fleet.toReversed().map((dot) => [dot.machine, dot])).values()];
    const facts = [
      slopeWords(body, gaugeUnit),
      stepWords(body, gaugeUnit) && `At the last repair: ${stepWords(body, gaugeUnit)}`,
      trend.swing === null
        ? null
        : `Over a year ${figure(trend.swing)} up and down with the season, taken out of the line`,
      limits ? `Held against ${limitWords(limits.source)}` : 'Nothing says what its limit is',
    ].filter((one): one is string => Boolean(one));
    return (
      <div className="flex min-h-dvh flex-col bg-sheet">
        <PageHead title={`${machine_code}: ${body.title}`} under={`${function_name}, ${machine_name}`} />
        <main className="grid flex-1 gap-x-9 px-6 pb-10 max-tablet:px-3 desk:grid-cols-[minmax(0,1fr)_400px]">
          <div className="min-w-0">
            <p className={`pt-3 text-[21px] font-[720] ${TONE[words.tone]}`} data-testid="trend-words">
              {figure(last.value, last.over)}. {words.moves} {words.when}
            </p>
            <LazyPlaceChart
              trend={body}
              gaugeUnit={gaugeUnit}
              label={`${body.title}: ${dots.length} readings. ${words.moves} ${words.when}`}
            />
            <ul className="text-[16.5px]">
              {facts.map((fact) => (
                <li key={fact} className="py-0.5">
                  {fact.charAt(0).toUpperCase() + fact.slice(1)}.
                </li>
              ))}
            </ul>
            {latest.length > 0 ? (
              <section aria-labelledby="fleet" className="mt-5">
                <Heading
                  id="fleet"
                  aside={`${latest.length} ${latest.length === 1 ? 'machine' : 'machines'} of its type`}
                >
                  The fleet
                </Heading>
                <FleetStrip
                  own={last.value}
                  fleet={latest}
                  byFactors={kind === 'insulation'}
                  label={`${machine_code} ${figure(last.value)}; others from ${figure(Math.min(...latest.map(({ value }) => value)))} to ${figure(Math.max(...latest.map(({ value }) => value)))}`}
                />
                <p className="flex justify-between text-[15.5px] text-ink2">
                  <span>{figure(Math.min(last.value, ...latest.map(({ value }) => value)))}</span>
                  <span>{figure(Math.max(last.value, ...latest.map(({ value }) => value)))}</span>
                </p>
              </section>
            ) : null}
            <nav aria-label="From here" className="mt-4 flex flex-wrap gap-x-6">
              <Link className={LINK} href={`/retests/round?function=${function_id}`}>
                Read it again
              </Link>
              <Link className={LINK} href={machineAddress(machine_code)}>
                {machine_code}
              </Link>
              <Link className={LINK} href="/drift">
                All that drifts
              </Link>
            </nav>
          </div>
          <section aria-labelledby="readings" className="min-w-0">
            <Heading id="readings" aside={`${dots.length}, the latest first`}>
              Read
            </Heading>
            <ul>
              {dots.toReversed().map(({ at, value, over, corrected, job }) => (
                <li
                  key={`${job} ${at}`}
                  className="grid min-h-11 grid-cols-[110px_minmax(0,1fr)_auto] items-center gap-x-3 border-b-[1.5px] border-rule"
                >
                  <time dateTime={at} className="text-[15.5px] text-ink2">
                    {siteTime(at, timeZone).day}
                  </time>
                  <span className="fig-bold">
                    {figure(value, over)}
                    {corrected ? null : <span className="text-[15px] font-[550] text-ink2"> as read</span>}
                  </span>
                  <Link className={LINK} href={`/jobs/${job}`}>
                    job {job}
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        </main>
      </div>
    );
  },
);
