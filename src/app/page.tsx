import { Plus } from 'lucide-react';
import { Link, LINE_LINK } from '@/ui/Link';
import { z } from 'zod';
import { page } from '@/features/gate/page';
import { ShedFilter } from '@/features/shed/ShedFilter';
import { JobRow } from '@/features/shed/JobRow';
import { MachineLine } from '@/features/shed/MachineLine';
import { LookAgain } from '@/features/shed/LookAgain';
import { siteDay } from '@/core/units/siteTime';
import { openPolicy } from '@/features/policy/server';
import { retestsThisWeek } from '@/features/retests/server';
import { openShed } from '@/features/shed/server';
import { DriftRows } from '@/features/trends/DriftRows';
import { worstDrift } from '@/features/trends/server';
import { waitingWords } from '@/words/en/retests';
import { soonWords } from '@/words/en/trends';
import { Heading } from '@/ui/sheet';
import { Brand } from '@/ui/Brand';

const cursorSchema = z.object({ at: z.iso.datetime(), id: z.uuid() });
const filterSchema = z.object({
  q: z.string().max(100).catch(''),
  show: z.enum(['open', 'closed']).catch('open'),
});

interface Props {
  searchParams: Promise<{ at?: string; id?: string; q?: string; show?: string }>;
}

/** The shed: jobs in hand and the machines they belong to. */
export default page<Props>('look', async function ShedPage({ searchParams }) {
  const asked = await searchParams;
  const cursor = cursorSchema.safeParse(asked);
  const { q, show } = filterSchema.parse(asked);
  const after = cursor.success ? { openedAt: new Date(cursor.data.at), id: cursor.data.id } : undefined;
  const [{ jobs, total, machines, allMachines, more }, { policy }, due, drift] = await Promise.all([
    openShed({ text: q, closed: show === 'closed' }, after),
    openPolicy(),
    retestsThisWeek(),
    worstDrift(),
  ]);
  const keep = new URLSearchParams({ ...(q ? { q } : {}), ...(show === 'closed' ? { show } : {}) });
  const address = (more: Record<string, string>) =>
    `/?${new URLSearchParams({ ...Object.fromEntries(keep), ...more })}`;
  return (
    <div className="flex min-h-dvh flex-col">
      <header className="sticky top-0 z-20 flex h-14 shrink-0 items-stretch border-b-2 border-ink bg-film pl-6 max-tablet:h-auto max-tablet:min-h-14 max-tablet:pl-3">
        <Brand />
        <div className="flex min-w-0 flex-col justify-center border-l border-rule px-4">
          <h1 className="truncate text-[17px] leading-5 font-[750] max-tablet:line-clamp-2 max-tablet:whitespace-normal">
            {policy.shedName}
          </h1>
          <p className="truncate text-[15px] leading-5 text-ink2 max-tablet:hidden">
            {siteDay(new Date().toISOString(), policy.timeZone)}
          </p>
        </div>
        <Link
          href="/new"
          className="my-1.5 mr-6 ml-auto flex items-center gap-2 bg-pencil px-5 text-[17px] font-[750] whitespace-nowrap text-sheet max-tablet:mr-2 max-tablet:px-3"
        >
          <Plus size={20} strokeWidth={3} aria-hidden /> New job
        </Link>
      </header>
      <main className="flex-1">
        <section aria-labelledby="in-hand" className="bg-sheet">
          <h2
            id="in-hand"
            className="mx-6 flex min-h-12 flex-wrap items-center gap-x-3 border-b-2 border-ink text-[19px] font-[780] max-tablet:mx-3"
          >
            {show === 'closed' ? 'Handed over' : 'In hand'}{' '}
            <span className="text-[15.5px] font-[550] text-ink2">{total}</span>
            {drift.soon > 0 ? (
              <Link
                href="/drift"
                className="ml-auto flex min-h-11 items-center text-[16px] font-[650] text-copper-ink underline underline-offset-4"
              >
                {soonWords(drift.soon)}
              </Link>
            ) : null}
            {due > 0 ? (
              <Link
                href="/retests"
                className={`${drift.soon > 0 ? '' : 'ml-auto'} flex min-h-11 items-center text-[16px] font-[650] text-copper-ink underline underline-offset-4`}
              >
                {waitingWords(due)}
              </Link>
            ) : null}
          </h2>
          <ShedFilter q={q} show={show} />
          {jobs.length === 0 && (q || show === 'closed') ? (
            <p className="px-6 py-10 text-[19px] max-tablet:px-3">
              {q
                ? `No ${show === 'closed' ? 'closed ' : ''}job is about “${q}”.`
                : 'No job has been handed over yet.'}{' '}
              <Link href="/" className="underline underline-offset-4">
                All jobs in hand
              </Link>
            </p>
          ) : jobs.length === 0 ? (
            <p className="px-6 py-10 text-[19px] max-tablet:px-3">
              No jobs in hand.{' '}
              {allMachines === 0 ? (
                'A job begins at a machine: enter one, and draw what it can do.'
              ) : (
                <>
                  Start one from the machine that will not work.{' '}
                  <Link href="/new" className="underline underline-offset-4">
                    New job
                  </Link>
                </>
              )}
            </p>
          ) : (
            <ul>
              {jobs.map((job) => (
                <JobRow key={job.number} job={job} />
              ))}
            </ul>
          )}
          {jobs.some(({ digest }) => !digest) ? <LookAgain /> : null}
          <nav aria-label="Pages" className="flex gap-6 px-6 max-tablet:px-3">
            {after ? (
              <Link href={address({})} className={LINE_LINK}>
                Newest jobs
              </Link>
            ) : null}
            {more ? (
              <Link href={address({ at: more.openedAt.toISOString(), id: more.id })} className={LINE_LINK}>
                Older jobs
              </Link>
            ) : null}
          </nav>
        </section>
        {drift.rows.length > 0 ? (
          <section
            aria-labelledby="drift"
            className="border-t-2 border-ink bg-film px-6 pb-4 max-tablet:px-3"
          >
            <Heading id="drift" aside="what was proved again and again, the worst first">
              Drift
            </Heading>
            <DriftRows rows={drift.rows} />
            <p className="flex flex-wrap items-center gap-x-6 text-[15.5px] text-ink2">
              <Link href="/drift" className={LINE_LINK}>
                All that drifts
              </Link>
              <Link href="/record" className={LINE_LINK}>
                What usually breaks
              </Link>
            </p>
          </section>
        ) : null}
        <section aria-labelledby="machines" className="border-t-2 border-ink px-6 pb-10 max-tablet:px-3">
          <h2 id="machines" className="flex h-12 items-center border-b-2 border-ink text-[19px] font-[780]">
            {allMachines > machines.length ? 'Machines with a job in hand' : 'Machines'}
          </h2>
          {machines.length === 0 ? (
            <p className="py-6">
              {allMachines === 0 ? (
                <>
                  No machine has been entered yet.{' '}
                  <Link href="/machines" className="underline underline-offset-4">
                    Enter the first
                  </Link>
                </>
              ) : (
                'No machine has a job in hand.'
              )}
            </p>
          ) : null}
          <ul className="grid grid-cols-1 gap-x-9 desk:grid-cols-2">
            {machines.map(({ id, code, name, functions, open_jobs }) => (
              <MachineLine key={id} code={code} name={name} functions={functions} openJobs={open_jobs} />
            ))}
          </ul>
          {allMachines > machines.length ? (
            <Link href="/machines" className={LINE_LINK}>
              All {allMachines} machines
            </Link>
          ) : null}
        </section>
      </main>
    </div>
  );
});
